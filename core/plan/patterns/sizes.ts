import { type Aim, Refusal } from '../../document';
import { INCH } from '../../units';
import { plainSize, type Whole, wholeModules } from '../aims';
import { requirePositive } from './parts';
import type { Order } from './pattern';

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
