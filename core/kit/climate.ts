/** The air in the shop. */
export interface Climate {
  temperatureC: number;
  humidityPct: number;
}

/** A heated shop (common practice), until it says otherwise. */
export const DEFAULT_CLIMATE: Climate = { temperatureC: 20, humidityPct: 45 };

/** What the equation below was fitted to; outside it Junta refuses to answer. */
export const CLIMATE_LIMITS = { temperatureC: [-2, 50], humidityPct: [0, 95] } as const;

/** Whether wood's equilibrium can be told for an air: -2 to 50 C and up to 95 % humidity. */
export const isClimateKnown = ({ temperatureC: t, humidityPct: h }: Climate): boolean =>
  t >= CLIMATE_LIMITS.temperatureC[0] &&
  t <= CLIMATE_LIMITS.temperatureC[1] &&
  h >= CLIMATE_LIMITS.humidityPct[0] &&
  h <= CLIMATE_LIMITS.humidityPct[1];

/**
 * Moisture that wood comes to in an air, % (Hailwood and Horrobin's one-hydrate form, Wood Handbook equation 4-5,
 * coefficients for degrees Celsius, from memory). Within 0.1 % of the handbook's Table 4-2; species differ by about 1 %.
 * Throws outside the climates it was fitted to.
 */
export function equilibriumMoisture(climate: Climate): number {
  if (!isClimateKnown(climate))
    throw new Error(
      `equilibriumMoisture: ${climate.temperatureC} C and ${climate.humidityPct} % humidity lie outside -2 to 50 C and 0 to 95 %`,
    );
  const t = climate.temperatureC;
  const h = climate.humidityPct / 100;
  const W = 349 + 1.29 * t + 0.0135 * t * t;
  const K = 0.805 + 0.000736 * t - 0.00000273 * t * t;
  const K1 = 6.27 - 0.00938 * t - 0.000303 * t * t;
  const K2 = 1.91 + 0.0407 * t - 0.000293 * t * t;
  const kh = K * h;
  const a = K1 * kh;
  const b = K1 * K2 * kh * kh;
  return (1800 / W) * (kh / (1 - kh) + (a + 2 * b) / (1 + a + b));
}

/** How far the air is from holding all the water it can, kPa: saturation pressure by Magnus' formula (WMO No. 8). */
export const vapourDeficitKPa = ({ temperatureC: t, humidityPct: h }: Climate): number =>
  0.61121 * Math.exp((17.62 * t) / (243.12 + t)) * (1 - Math.min(h, 99) / 100);
