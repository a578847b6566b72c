import { INCH, type Length, type LengthSystem } from './length';

/** What a field accepts. Limits are in millimetres and inclusive. */
export interface LengthRule {
  minMm?: number;
  maxMm?: number;
}

/** The answer to a typed length: the length, or the reason it cannot be one. */
export type Parsed = { ok: true; length: Length } | { ok: false; reason: string };

/** The longest length Junta takes, 100 m: more is a slip of the finger. */
export const ABSURD_MM = 100_000;

/** The least length that is not nothing: a thousandth of a millimetre. */
export const LEAST_MM = 0.001;

const VULGAR: Record<string, string> = {
  '½': '1/2',
  '¼': '1/4',
  '¾': '3/4',
  '⅛': '1/8',
  '⅜': '3/8',
  '⅝': '5/8',
  '⅞': '7/8',
  '⅓': '1/3',
  '⅔': '2/3',
  '⅕': '1/5',
  '⅖': '2/5',
  '⅗': '3/5',
  '⅘': '4/5',
  '⅙': '1/6',
  '⅚': '5/6',
};

const UNITS: Record<string, { system: LengthSystem; mm: number }> = {
  mm: { system: 'mm', mm: 1 },
  cm: { system: 'mm', mm: 10 },
  m: { system: 'mm', mm: 1000 },
  in: { system: 'inch', mm: INCH },
  inch: { system: 'inch', mm: INCH },
  inches: { system: 'inch', mm: INCH },
  '"': { system: 'inch', mm: INCH },
  "'": { system: 'inch', mm: 12 * INCH },
  ft: { system: 'inch', mm: 12 * INCH },
  foot: { system: 'inch', mm: 12 * INCH },
  feet: { system: 'inch', mm: 12 * INCH },
};

const NUMBER = String.raw`(?:\d+[.,]?\d*|[.,]\d+)`;
const MIXED = new RegExp(String.raw`^(?:(\d+)(?:\s+|\s*-\s*))?(\d+)\s*/\s*(\d+)$`);
const DECIMAL = new RegExp(`^${NUMBER}$`);
const FEET = new RegExp(String.raw`^(${NUMBER})\s*(?:'|ft|feet|foot)\s*-?\s*(.+)$`);
const WITH_UNIT = /^(.*?)\s*(mm|cm|m|inches|inch|in|ft|feet|foot|"|')$/;

/** A text with fractions in one sign written out, and with plain signs for inches, feet and the stroke of a fraction. */
export function withPlainSigns(text: string): string {
  let out = text;
  for (const [glyph, fraction] of Object.entries(VULGAR)) out = out.replaceAll(glyph, ` ${fraction}`);
  return out
    .replace(/[′’‘]/g, "'")
    .replace(/''|[″”“]/g, '"')
    .replace(/⁄/g, '/');
}

const tidy = (text: string): string => withPlainSigns(text.trim().toLowerCase()).replace(/\s+/g, ' ').trim();

interface Amount {
  value: number;
  fraction: boolean;
}

function parseAmount(text: string): Amount | string {
  const mixed = MIXED.exec(text);
  if (mixed) {
    const [, whole, top, bottom] = mixed;
    if (Number(bottom) === 0) return `the fraction ${top}/${bottom} divides by zero`;
    return { value: Number(whole ?? 0) + Number(top) / Number(bottom), fraction: true };
  }
  if (DECIMAL.test(text)) return { value: Number(text.replace(',', '.')), fraction: false };
  return text === '' ? 'a number is missing' : `“${text}” is not a number or a fraction`;
}

function parseFeet(text: string): { mm: number } | string | undefined {
  const feet = FEET.exec(text);
  if (!feet) return undefined;
  const rest = parseAmount(feet[2].replace(/\s*("|in|inch|inches)$/, '').trim());
  if (typeof rest === 'string') return rest;
  return { mm: (Number(feet[1].replace(',', '.')) * 12 + rest.value) * INCH };
}

/** A limit as the reader reads lengths, to the thousandth. */
const inSystem = (mm: number, system: LengthSystem): string =>
  system === 'inch' ? `${Number((mm / INCH).toFixed(3))} in` : `${mm} mm`;

/** Checks a value against a field's limits; the reason names the limit, in the shop's units. */
function against(mm: number, rule: LengthRule, system: LengthSystem): string | undefined {
  const min = rule.minMm ?? LEAST_MM;
  const max = rule.maxMm ?? ABSURD_MM;
  if (!Number.isFinite(mm)) return 'this is not a finite number';
  if (mm < 0 && min >= 0) return 'a length cannot be negative';
  if (mm < min)
    return min <= LEAST_MM ? 'a length must be more than zero' : `the least here is ${inSystem(min, system)}`;
  if (mm > max)
    return max === ABSURD_MM
      ? `this is longer than ${system === 'inch' ? '328 ft' : '100 m'}`
      : `the most here is ${inSystem(max, system)}`;
  return undefined;
}

/**
 * Reads a length as a woodworker writes it: `1 3/8`, `1-3/8"`, `35 mm`, `4/4`, `3' 6 1/2"`, `0.8125`, `2,5 cm`.
 * A bare decimal or whole number is in the shop's own system; a fraction is always inches (nobody rules in
 * fractions of a millimetre, and `4/4` is rough lumber's inch), unless a unit says otherwise.
 * Never throws: what cannot be read comes back with the reason.
 */
export function parseLength(text: string, shop: LengthSystem, rule: LengthRule = {}): Parsed {
  const tidied = tidy(text);
  if (tidied === '') return { ok: false, reason: 'type a length, such as 1 3/8 or 35 mm' };
  const negative = /^[-−]/.test(tidied);
  const body = negative ? tidied.slice(1).trim() : tidied;
  const feet = parseFeet(body);
  if (typeof feet === 'string') return { ok: false, reason: feet };
  let mm: number;
  let system: LengthSystem;
  if (feet) {
    mm = feet.mm;
    system = 'inch';
  } else {
    const unit = WITH_UNIT.exec(body);
    const amount = parseAmount(unit ? unit[1].trim() : body);
    if (typeof amount === 'string') return { ok: false, reason: amount };
    system = unit ? UNITS[unit[2]].system : amount.fraction ? 'inch' : shop;
    mm = amount.value * (unit ? UNITS[unit[2]].mm : system === 'inch' ? INCH : 1);
  }
  const reason = against(negative ? -mm : mm, rule, shop);
  if (reason) return { ok: false, reason };
  const typed = negative ? `-${canonical(body)}` : canonical(body);
  return { ok: true, length: { mm: negative ? -mm : mm, typed: { text: typed, system } } };
}

/** The typed text without its own inch or millimetre mark: the field shows the unit beside it. */
const canonical = (text: string): string => {
  if (text.includes("'") || /ft|foot|feet|cm|\dm$|\d m$/.test(text)) return text;
  return text.replace(/\s*(mm|inches|inch|in|")$/, '').replace(/^(\d+)\s*-\s*(\d+\s*\/)/, '$1 $2');
};
