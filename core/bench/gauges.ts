import type { Phrase } from '../document';
import type { Climate } from '../kit';
import { clamped, roundToStep } from '../units';

/** What a gauge measures. */
export type Quantity = 'length' | 'angle' | 'moisture' | 'mass' | 'temperature' | 'humidity';

/** Units that a gauge may send, each of one quantity, as many of its base (mm, degrees, %, kg) as it is, with an offset for degrees of heat. */
export const GAUGE_UNITS = {
  mm: { of: 'length', times: 1, plus: 0 },
  in: { of: 'length', times: 25.4, plus: 0 },
  deg: { of: 'angle', times: 1, plus: 0 },
  pct: { of: 'moisture', times: 1, plus: 0 },
  kg: { of: 'mass', times: 1, plus: 0 },
  g: { of: 'mass', times: 0.001, plus: 0 },
  lb: { of: 'mass', times: 0.45359237, plus: 0 },
  C: { of: 'temperature', times: 1, plus: 0 },
  F: { of: 'temperature', times: 5 / 9, plus: -160 / 9 },
  rh: { of: 'humidity', times: 1, plus: 0 },
} as const satisfies Record<string, { of: Quantity; times: number; plus: number }>;
export type GaugeUnit = keyof typeof GAUGE_UNITS;
export const GAUGE_UNIT_NAMES = Object.keys(GAUGE_UNITS) as GaugeUnit[];

/** A kind of gauge: what it measures, how finely, between what (in base units), and in which units it speaks, its usual one first. */
export interface GaugeKind {
  name: string;
  of: Quantity;
  least: number;
  most: number;
  step: number;
  units: readonly GaugeUnit[];
  /** What it may be off by as it comes, base units (common practice). */
  noise: number;
}

/** Every kind of gauge. Ranges and resolutions: common practice. */
export const GAUGES = {
  caliper: {
    name: 'Caliper',
    of: 'length',
    least: 0,
    most: 300,
    step: 0.01,
    units: ['mm', 'in'],
    noise: 0.02,
  },
  height: {
    name: 'Height gauge',
    of: 'length',
    least: 0,
    most: 100,
    step: 0.01,
    units: ['mm', 'in'],
    noise: 0.02,
  },
  angle: { name: 'Angle gauge', of: 'angle', least: 0, most: 180, step: 0.05, units: ['deg'], noise: 0.1 },
  moisture: {
    name: 'Moisture meter',
    of: 'moisture',
    least: 4,
    most: 60,
    step: 0.1,
    units: ['pct'],
    noise: 0.5,
  },
  scale: {
    name: 'Scale',
    of: 'mass',
    least: 0,
    most: 150,
    step: 0.005,
    units: ['kg', 'g', 'lb'],
    noise: 0.01,
  },
  climate: {
    name: 'Room temperature',
    of: 'temperature',
    least: -20,
    most: 60,
    step: 0.1,
    units: ['C', 'F'],
    noise: 0.3,
  },
  humidity: {
    name: 'Room humidity',
    of: 'humidity',
    least: 0,
    most: 100,
    step: 0.1,
    units: ['rh'],
    noise: 2,
  },
} as const satisfies Record<string, GaugeKind>;
export type GaugeKindName = keyof typeof GAUGES;
export const GAUGE_KIND_NAMES = Object.keys(GAUGES) as GaugeKindName[];

/** A reading as a gauge sends it. */
export interface GaugeReading {
  /** What the gauge is called, as in “caliper 1”. */
  gauge: string;
  kind: GaugeKindName;
  value: number;
  unit: GaugeUnit;
}

/** The value in the base unit of its quantity: mm, degrees, %, kg, degrees Celsius. */
export const inBase = ({ value, unit }: Pick<GaugeReading, 'value' | 'unit'>): number =>
  value * GAUGE_UNITS[unit].times + GAUGE_UNITS[unit].plus;

/** Lengths under this are read to thousandths, mm. */
const FINE_MM = 5;

/** A number of a quantity, in its base unit, as it is said in a sentence. */
export const phraseOf = (of: Quantity, value: number): Phrase =>
  ({
    length: value < FINE_MM ? { fine: value } : { mm: value },
    angle: `${Number(value.toFixed(2))}°`,
    moisture: `${Number(value.toFixed(1))} %`,
    mass: { kg: value },
    temperature: { celsius: value },
    humidity: `${Number(value.toFixed(1))} %`,
  })[of];

/** Whether what came in is a reading of a gauge. */
export const isGaugeReading = (data: unknown): data is GaugeReading =>
  typeof data === 'object' && data !== null && 'gauge' in data && 'value' in data && 'unit' in data;

/** Air that Junta reckons with, °C and %: what a shop may have. */
const AIR = { temperatureC: [-2, 50], humidityPct: [0, 95] } as const;

/** What a reading says of the air of the room, to a tenth; undefined where it says nothing of it, or no shop is like that. */
export function airOf({ value, unit }: Pick<GaugeReading, 'value' | 'unit'>): Partial<Climate> | undefined {
  const { of } = GAUGE_UNITS[unit];
  if (of !== 'temperature' && of !== 'humidity') return undefined;
  const field = of === 'temperature' ? 'temperatureC' : 'humidityPct';
  const base = Math.round(10 * inBase({ value, unit })) / 10;
  const [least, most] = AIR[field];
  return base >= least && base <= most ? { [field]: base } : undefined;
}

/** Why a gauge of a kind cannot have sent this, in words; undefined where it can. */
export function notOfGauge({ kind, value, unit }: GaugeReading): string | undefined {
  const { name, of, least, most, step, units } = GAUGES[kind] as GaugeKind;
  if (GAUGE_UNITS[unit].of !== of) return `${name}: it measures in ${units.join(' or ')}, not in ${unit}.`;
  const base = inBase({ value, unit });
  // Told in another unit the limit itself is rounded.
  const hair = step / 10;
  if (!(base >= least - hair && base <= most + hair)) {
    const [own] = units;
    return `${name}: ${value} ${unit} lies outside of what it measures, ${least} to ${most} ${own}.`;
  }
  return undefined;
}

/** How a simulated gauge behaves: the true value, how far it scatters and drifts, and how often it is in the wrong unit; base units. */
export interface Simulated {
  true: number;
  noise: number;
  /** What each reading adds to its error. */
  drift: number;
  /** One reading in so many comes in another of its units with the number of the first; never at 0. */
  wrongOneIn: number;
  unit: GaugeUnit;
}

/**
 * What a simulated gauge reads the nth time, counted from 0: the true value with scatter (normal, by two random numbers from 0 to 1) and
 * drift, to its own step; now and then in the wrong unit. Never outside of what it measures.
 */
export function simulatedReading(
  gauge: string,
  kind: GaugeKindName,
  how: Simulated,
  nth: number,
  random: () => number,
): GaugeReading {
  const { least, most, step, units } = GAUGES[kind] as GaugeKind;
  // Box and Muller, 1958: two even numbers make a normal one.
  const scatter = Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const base = how.true + how.noise * scatter + how.drift * nth;
  const held = clamped(roundToStep(base, step), least, most);
  const { times, plus } = GAUGE_UNITS[how.unit];
  const value = Number(((held - plus) / times).toFixed(4));
  const other = units.find((unit) => unit !== how.unit);
  const wrong = other !== undefined && how.wrongOneIn > 0 && (nth + 1) % how.wrongOneIn === 0;
  const sent: GaugeReading = { gauge, kind, value, unit: wrong ? other : how.unit };
  return notOfGauge(sent) === undefined ? sent : { ...sent, unit: how.unit };
}

/** A reading as a keyboard wedge types it, for a field that reads lengths. */
export const wedgeText = ({ value, unit }: Pick<GaugeReading, 'value' | 'unit'>): string =>
  `${value} ${unit}`;
