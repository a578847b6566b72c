import { INCH, type Length, type LengthSystem } from './length';

/** How the shop reads numbers. `fraction` is the finest inch division shown, 0 for decimal inches. */
export interface Display {
  system: LengthSystem;
  fraction: 0 | 16 | 32 | 64;
  /** Decimals where a size is shown finer than the shop reads it: a tenth of a millimetre or four of an inch if missing. */
  digits?: number;
}

/** The same system in decimals, for sizes that would all be shown as one: thousandths of a millimetre, or of a tenth of an inch. */
export const finer = ({ system }: Display): Display => ({
  system,
  fraction: 0,
  digits: system === 'mm' ? 3 : 4,
});

/** Inches to 1/32, the division of a good steel rule. */
export const DEFAULT_DISPLAY: Display = { system: 'inch', fraction: 32 };

/** A number taken apart for setting in type: whole and stacked fraction, or a decimal text. */
export interface NumberParts {
  negative: boolean;
  whole: string;
  top?: number;
  bottom?: number;
  /** The text shows less than the value holds. */
  rounded: boolean;
}

/** The greatest common divisor of two whole numbers. A number that is none ends it at once. */
function gcd(a: number, b: number): number {
  let [high, low] = [a, b];
  while (low > 0) [high, low] = [low, high % low];
  return high;
}
const trimZeros = (text: string): string => (text.includes('.') ? text.replace(/\.?0+$/, '') : text);

const decimalParts = (value: number, digits: number): NumberParts => {
  // A hair of floating point must not tip a half: 273.05 and 273.04999999 are one size and read alike.
  const text = trimZeros((Math.abs(value) + 1e-7).toFixed(digits));
  return {
    negative: value < 0 && Number(text) !== 0,
    whole: text,
    rounded: Math.abs(Number(text) - Math.abs(value)) > 1e-7,
  };
};

/** Sets a length in the shop's system: millimetres to a tenth, inches to the chosen division. */
export function lengthParts(mm: number, display: Display): NumberParts {
  if (!Number.isFinite(mm)) return { negative: false, whole: '?', rounded: true };
  if (display.system === 'mm') return decimalParts(mm, display.digits ?? 1);
  const inch = mm / INCH;
  if (display.fraction === 0) return decimalParts(inch, display.digits ?? 4);
  const parts = Math.round(Math.abs(inch) * display.fraction + 1e-7);
  const whole = Math.floor(parts / display.fraction);
  const rest = parts - whole * display.fraction;
  const rounded = Math.abs(parts / display.fraction - Math.abs(inch)) > 1e-7;
  const negative = inch < 0 && parts > 0;
  if (rest === 0) return { negative, whole: String(whole), rounded };
  const divisor = gcd(rest, display.fraction);
  return {
    negative,
    whole: whole ? String(whole) : '',
    top: rest / divisor,
    bottom: display.fraction / divisor,
    rounded,
  };
}

const TYPED_FRACTION = /^(?:(\d+)\s+)?(\d+)\s*\/\s*(\d+)$/;

/** Sets a length as it was typed where that was in the system now shown, else converted. */
export function typedParts(length: Length, display: Display): NumberParts {
  if (length.typed?.system !== display.system) return lengthParts(length.mm, display);
  const fraction = TYPED_FRACTION.exec(length.typed.text);
  if (!fraction) return { negative: false, whole: length.typed.text, rounded: false };
  return {
    negative: false,
    whole: fraction[1] ?? '',
    top: Number(fraction[2]),
    bottom: Number(fraction[3]),
    rounded: false,
  };
}

const partsText = (parts: NumberParts): string => {
  const fraction = parts.bottom ? `${parts.top}/${parts.bottom}` : '';
  return `${parts.negative ? '−' : ''}${[parts.whole, fraction].filter(Boolean).join(' ')}`;
};

/** A length as its reader sees it, mm: rounded to the division that is shown. */
export function shownMm(mm: number, display: Display): number {
  const { negative, whole, top = 0, bottom = 1 } = lengthParts(mm, display);
  const value = Number(whole || 0) + top / bottom;
  return (negative ? -value : value) * (display.system === 'inch' ? INCH : 1);
}

/** A length as plain text with its unit, as in `1 3/8 in` or `35 mm`. */
export const lengthText = (mm: number, display: Display): string =>
  `${partsText(lengthParts(mm, display))} ${lengthUnit(display)}`;

/** What an input shows for a length: the typed text, or the value converted; without a unit. */
export const inputText = (length: Length, display: Display): string => partsText(typedParts(length, display));

/** The exact value for hover and focus, in both systems. */
export const exactText = (mm: number): string =>
  `${trimZeros((mm / INCH).toFixed(6))} in = ${trimZeros(mm.toFixed(4))} mm`;

/** The unit's abbreviation. */
export const lengthUnit = (display: Display): string => (display.system === 'inch' ? 'in' : 'mm');

const CUBIC_INCH = INCH ** 3;

/**
 * A quantity with so many decimals. One that would be shown as nothing keeps its first figure: what is there is never 0.
 */
const figures = (value: number, digits: number): string => {
  const text = value.toFixed(digits);
  if (value === 0 || Number(text) !== 0) return text;
  const first = Math.ceil(-Math.log10(Math.abs(value)));
  return first > MOST_DECIMALS
    ? `less than ${(10 ** -MOST_DECIMALS).toFixed(MOST_DECIMALS)}`
    : value.toFixed(first);
};
const MOST_DECIMALS = 4;

/** An area in square inches or square centimetres, from mm2. */
export const areaText = (mm2: number, display: Display): string =>
  display.system === 'inch'
    ? `${trimZeros(figures(mm2 / INCH ** 2, 1))} in²`
    : `${trimZeros(figures(mm2 / 100, 1))} cm²`;

/** A volume in cubic inches or cubic centimetres, from mm3. */
export const volumeText = (mm3: number, display: Display): string =>
  display.system === 'inch'
    ? `${trimZeros(figures(mm3 / CUBIC_INCH, 1))} in³`
    : `${trimZeros(figures(mm3 / 1000, 0))} cm³`;

/** A volume of stacked boards in cubic feet or cubic metres, from mm3. */
export const bulkText = (mm3: number, display: Display): string =>
  display.system === 'inch' ? `${figures(mm3 / (12 * INCH) ** 3, 1)} ft³` : `${figures(mm3 * 1e-9, 3)} m³`;

/** A mass in pounds (0.45359237 kg, exact) or kilograms. */
export const massText = (kg: number, display: Display): string =>
  display.system === 'inch' ? `${figures(kg / 0.45359237, 1)} lb` : `${figures(kg, 1)} kg`;

/** How far a size may be off, to the figures it deserves: thousandths of an inch, or hundredths of a millimetre. */
export const offText = (mm: number, display: Display): string =>
  display.system === 'inch' ? figures(mm / INCH, 3) : figures(mm, 2);

/** How near a size must lie to what its shop reads for that to be what is dialled, mm. */
const ON_MARK_MM = 0.005;

/** Whether a size lies on a mark of the shop's rule: a fraction of an inch as it reads them, or a tenth of a millimetre. */
export function isOnMark(mm: number, { system, fraction }: Display): boolean {
  const mark = system === 'mm' ? 0.1 : fraction === 0 ? INCH / 1000 : INCH / fraction;
  return Math.abs(mm - Math.round(mm / mark) * mark) < ON_MARK_MM;
}

/** Cubic metres in a board foot: 144 cubic inches. */
const BOARD_FOOT_M3 = (144 * CUBIC_INCH) / 1e9;

/** A long way in whole feet or metres: what a set of knives has run. */
export const longText = (mm: number, { system }: Pick<Display, 'system'>): string =>
  system === 'inch' ? `${Math.round(mm / 304.8)} ft` : `${Math.round(mm / 1000)} m`;

/** An amount of wood as it is sold: board feet, or cubic metres. */
export const woodText = (boardFeet: number, { system }: Pick<Display, 'system'>): string =>
  system === 'inch' ? `${figures(boardFeet, 1)} bd ft` : `${figures(boardFeet * BOARD_FOOT_M3, 4)} m³`;

/** A temperature in degrees Fahrenheit or Celsius, from Celsius. */
export const temperatureText = (celsius: number, display: Display): string =>
  display.system === 'inch' ? `${Math.round(celsius * 1.8 + 32)} °F` : `${Math.round(celsius)} °C`;

/** A force in pounds-force (4.4482216 N) or kilonewtons. */
export const forceText = (newtons: number, display: Display): string =>
  display.system === 'inch'
    ? `${Math.round(newtons / 4.4482216152605)} lbf`
    : `${(newtons / 1000).toFixed(2)} kN`;

/** A pressure in pounds per square inch (0.00689476 MPa) or megapascals. */
export const pressureText = (mpa: number, display: Display): string =>
  display.system === 'inch' ? `${Math.round(mpa / 0.006894757293)} psi` : `${mpa.toFixed(2)} MPa`;

/** A small mass in ounces (28.349523 g) or grams. */
export const smallMassText = (grams: number, display: Display): string =>
  display.system === 'inch' ? `${figures(grams / 28.349523125, 1)} oz` : `${figures(grams, 0)} g`;

/** A volume of glue or finish in fluid ounces (US, 29.573530 ml) or millilitres. */
export const fluidText = (ml: number, display: Pick<Display, 'system'>): string =>
  display.system === 'inch' ? `${figures(ml / 29.5735295625, 1)} fl oz` : `${figures(ml, 0)} ml`;

/** Minutes as a maker says them: half minutes while short, then hours. */
export const minutesText = (minutes: number): string => {
  if (minutes < 10) return `${trimZeros((Math.round(minutes * 10) / 10).toFixed(1))} min`;
  if (minutes < 90) return `${Math.round(minutes)} min`;
  return `${trimZeros((minutes / 60).toFixed(1))} h`;
};
