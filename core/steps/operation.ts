import type { Phrase } from '../document';
import { type Axis, extents } from '../solid';
import { counted, type Length, falling } from '../units';
import type { Played } from './fact';
import type { WorkPiece } from './timeline';

/** What is set, measured or counted before hands go on: what it is called, as in “fence at”, and what it comes to. */
export interface ToSet {
  name: string;
  value: Phrase;
}

/**
 * One thing to do at the bench: what, in one sentence, and what is dialled for it. Where the rest of Junta has a list of
 * such things – passes of a machine, cuts in their order, acts of a glue-up – that list stands in its place, and this is
 * said only where it is empty.
 */
export interface Operation {
  say: Phrase[];
  dial?: ToSet;
  instead?: 'passes' | 'cuts' | 'features' | 'glue-up';
}

/** Sizes nearer than this are set alike, mm. */
const ALIKE_MM = 1e-3;

/** Pieces by one of their sizes, the greatest first: so often is something set. */
export function sizesAlong(pieces: readonly WorkPiece[], axis: Axis): { mm: number; count: number }[] {
  const out: { mm: number; count: number }[] = [];
  for (const { blank } of pieces) {
    const mm = extents(blank)[axis];
    const same = out.find((each) => Math.abs(each.mm - mm) < ALIKE_MM);
    if (same) same.count++;
    else out.push({ mm, count: 1 });
  }
  return out.toSorted(falling((a) => a.mm));
}

/** One operation for each size that has to be set: `verb` and what the pieces are called, as in “Rip 4 strips”. */
export const perSize = (
  { entry }: Played,
  axis: Axis,
  { verb, noun, dial }: { verb: string; noun: readonly [one: string, many: string]; dial: string },
): Operation[] =>
  sizesAlong(entry.pieces, axis).map(({ mm, count }) => ({
    say: [`${verb} ${counted(count, ...noun)}.`],
    dial: { name: dial, value: { mm } },
  }));

/** What comes off, as something to dial; nothing where nothing does. */
export const offDial = (name: string, off: Length): { dial: ToSet } | Record<never, never> =>
  off.mm > 0 ? { dial: { name, value: { mm: off.mm } } } : {};
