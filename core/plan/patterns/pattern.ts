import { type Brief, type BuildDocument, type MeasureValue, type PatternId, Refusal } from '../../document';
import type { ShopSnapshot } from '../../kit';
import type { Length } from '../../units';

/** One measure of a pattern, as the interface asks for it. */
export interface MeasureField {
  key: string;
  label: string;
  kind: 'length' | 'count' | 'angle' | 'choice' | 'words';
  /** Used where the brief says nothing. Lengths in mm or as a maker would write them in inches. */
  fallback: number | string;
  options?: readonly { value: string; label: string }[];
  least?: number;
  most?: number;
}

/** What a pattern is and how it is planned. A pattern is one file that exports one of these. */
export interface Pattern {
  id: PatternId;
  name: string;
  group: 'Panels' | 'Layers' | 'End grain' | 'Angles and blocks';
  /** In one sentence, what is made and how. */
  about: string;
  /** What its first measure is called: a strip, a square, a brick. */
  moduleLabel: string;
  /** What the brief's sizes are called, where they are not those of the whole piece. */
  sizeLabels?: Partial<Record<'length' | 'width' | 'thickness', string>>;
  /** The slices of the pattern stand on end. */
  endGrain: boolean;
  /** Several alike can be cut and sliced together. */
  batch?: boolean;
  /** More slices than needed can be cut, as spares. */
  spares?: boolean;
  measures: readonly MeasureField[];
  /** A brief to begin with; lengths in inches as a maker would write them. */
  start: { length: string; width: string; thickness: string; module: string; woods: string[] };
  /** Plans the build backwards from the finished size. Throws Refusal with the reason and its numbers. */
  plan: (order: Order) => BuildDocument;
}

/** A brief with all that is needed to plan it. */
export interface Order {
  brief: Brief;
  shop: ShopSnapshot;
  name: string;
  use: string;
  pattern: Pattern;
}

const fieldOf = ({ pattern }: Order, key: string): MeasureField => {
  const field = pattern.measures.find((candidate) => candidate.key === key);
  if (!field) throw new Error(`${pattern.id} has no measure ${key}`);
  return field;
};

/** A measure as the brief gives it, or as the pattern begins. */
export function measureOf(brief: Brief, field: MeasureField): MeasureValue {
  const given = brief.measures?.[field.key];
  if (given !== undefined) return given;
  return field.kind === 'length' && typeof field.fallback === 'number'
    ? { mm: field.fallback }
    : field.fallback;
}

/** A length of the pattern, mm. Throws Refusal where it is negative or no number. */
export function lengthOf(order: Order, key: string): number {
  const field = fieldOf(order, key);
  const value = measureOf(order.brief, field);
  const mm = typeof value === 'object' ? (value as Length).mm : Number.NaN;
  if (!Number.isFinite(mm) || mm < 0) throw new Refusal([`${field.label} must be zero or more.`]);
  return mm;
}

/** A count or an angle, within the field's limits. Throws Refusal with the limits. */
export function numberOf(order: Order, key: string): number {
  const field = fieldOf(order, key);
  const value = Number(measureOf(order.brief, field));
  const [least, most] = [field.least ?? 0, field.most ?? 1000];
  const whole = field.kind !== 'count' || Number.isInteger(value);
  if (!Number.isFinite(value) || value < least || value > most || !whole)
    throw new Refusal([
      `${field.label} must be ${field.kind === 'count' ? 'a whole number ' : ''}from ${least} to ${most}${field.kind === 'angle' ? ' degrees' : ''}; it is ${Number.isFinite(value) ? value : 'no number'}.`,
    ]);
  return value;
}

/** A choice or words. */
export const wordOf = (order: Order, key: string): string =>
  String(measureOf(order.brief, fieldOf(order, key)));
