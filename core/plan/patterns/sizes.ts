import { type Aim, Refusal } from '../../document';
import { countNeeded, INCH } from '../../units';
import { plainSize, type Whole, wholeModules } from '../aims';
import { requirePositive } from './parts';
import { type MeasureField, numberOf, type Order, wordOf } from './pattern';

/** A count held by the maker, or a whole number of modules that suits the aim. A held count with a free size gives the size. */
export function heldModules(
  aim: Aim,
  moduleMm: number,
  { usual, even, held }: { usual: number; even: boolean; held: number },
): Whole {
  if (held <= 0) return wholeModules(aim, moduleMm, usual, even);
  if (even && held % 2)
    throw new Refusal([
      `${held} is odd: this pattern needs an even number; ${held - 1} or ${held + 1} would do.`,
    ]);
  const value = aim.value?.mm;
  const sizeMm = aim.aim === 'free' || value === undefined ? held * moduleMm : value;
  return { count: held, sizeMm };
}

/** What a maker may hold of a row of strips beside about how wide they are: their very width, a most, or their number. */
export const ROW_MEASURES: readonly MeasureField[] = [
  {
    key: 'moduleAs',
    label: 'That width is',
    kind: 'choice',
    fallback: 'about',
    options: [
      { value: 'about', label: 'about' },
      { value: 'exactly', label: 'exactly' },
      { value: 'atMost', label: 'at most' },
    ],
  },
  {
    key: 'strips',
    label: 'Strips, 0 for any number',
    kind: 'count',
    fallback: 0,
    most: 200,
  },
];

/** A row of strips: how many, and how wide each is before what is over comes off, mm. */
export interface Row {
  count: number;
  strip: number;
  /** Held to that very width: not rounded to the shop's step. */
  exact: boolean;
}

/**
 * How many strips lie side by side, by the brief's width of one, its `moduleAs` and the number held: `total` with what is
 * trimmed off, `finished` without, mm. All are alike. Throws Refusal where a number held of strips of exactly that width
 * does not reach.
 */
export function rowOf(
  order: Order,
  what: string,
  { total, finished }: { total: number; finished: number },
): Row {
  const module = requirePositive(what, order.brief.module.mm);
  const held = numberOf(order, 'strips');
  switch (wordOf(order, 'moduleAs')) {
    case 'exactly': {
      const count = held || countNeeded(total / module);
      if (count * module < total - 1e-6)
        throw new Refusal([
          `${count} ${count === 1 ? 'strip' : 'strips'} of exactly `,
          { mm: module },
          ' make ',
          { mm: count * module },
          '; ',
          { mm: total },
          ` are needed with what is trimmed off. ${countNeeded(total / module)} would do.`,
        ]);
      return { count, strip: module, exact: true };
    }
    case 'atMost': {
      const count = held || countNeeded(finished / module);
      if (finished / count > module + 1e-6)
        throw new Refusal([
          `${count} ${count === 1 ? 'strip' : 'strips'} would be `,
          { mm: finished / count },
          ' wide each, and at most ',
          { mm: module },
          ` is wanted. ${countNeeded(finished / module)} would do.`,
        ]);
      return { count, strip: total / count, exact: false };
    }
    default: {
      const count = held || Math.max(1, Math.round(finished / module));
      return { count, strip: total / count, exact: false };
    }
  }
}

/** Finished sizes as asked, or usual ones where they are free, mm. Throws Refusal where one is not more than zero. */
export function sizesOf(
  { brief }: Order,
  usual: readonly [number, number, number] = [18 * INCH, 12 * INCH, 1.5 * INCH],
): [number, number, number] {
  return [
    requirePositive('The length', plainSize(brief.length, usual[0])),
    requirePositive('The width', plainSize(brief.width, usual[1])),
    requirePositive('The thickness', plainSize(brief.thickness, usual[2])),
  ];
}

/** The wood of a strip, woods taken in turn. */
export const woodOf = ({ brief }: Order, i: number): string => brief.woods[i % brief.woods.length];
