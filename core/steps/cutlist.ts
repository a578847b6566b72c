import { greatestSize } from './sizes';
import { type BuildDocument, type Phrase, sawIdOf, type Step } from '../document';
import { type CutWay, cutsThrough } from './deepcut';
import { roomOf } from './list';
import type { TimelineStep } from './timeline';

interface Squared {
  way?: CutWay;
  square?: 'near' | 'far';
  measureFrom?: 'left' | 'right';
}

const OTHER = { near: 'far', far: 'near', left: 'right', right: 'left' } as const;

/** A saw's reach, guided and free, mm. */
export const reachOf = ({ depth, freeDepth }: { depth: { mm: number }; freeDepth?: { mm: number } }) => ({
  guidedMm: depth.mm,
  freeMm: Math.max(depth.mm, freeDepth?.mm ?? 0),
});

/** The way a step is told to come through its pieces; in one cut if it says nothing. */
export const wayOf = (step: Step): CutWay => (step as Squared).way ?? 'one';

/**
 * The cuts of a step that squares pieces with a saw, in their order: long edges first, then the ends, each with the edge that
 * the square stands on and the side it is measured from, so that pieces alike come to one length. Empty for any other step.
 */
export function cutList(step: Step, entry: TimelineStep, build: BuildDocument): Phrase[][] {
  const { sawing, takesOff } = roomOf(step);
  const saw = build.shop.saws.find(({ id }) => id === sawIdOf(step));
  if (!saw || !sawing?.squares || entry.pieces.length === 0 || entry.entered.length === 0) return [];
  const { square = 'near', measureFrom = 'left' } = step as Squared;
  const out: Phrase[][] = [];
  const [length, width] = entry.greatest;
  const off = (dimension: 'length' | 'width') =>
    takesOff?.(step).find((each) => each.dimension === dimension);
  const edges = off('width');
  const ends = off('length');
  if (edges && edges.min + edges.max > 0) {
    const first = square === 'near' ? edges.min : edges.max;
    const second = square === 'near' ? edges.max : edges.min;
    if (first > 0) out.push([`The ${square} edge, straight: `, { mm: first }, ' off.']);
    if (second > 0)
      out.push([
        `The ${OTHER[square]} edge, parallel to it: `,
        { mm: width },
        ' wide, measured from the first.',
      ]);
  }
  const count = entry.pieces.length;
  const alike = count > 1 ? `, against one stop for all ${count}` : '';
  if (ends && ends.min + ends.max > 0) {
    const first = measureFrom === 'left' ? ends.min : ends.max;
    if (first > 0)
      out.push([`The ${measureFrom} end, the square on the ${square} edge: `, { mm: first }, ' off.']);
    out.push([
      `The ${OTHER[measureFrom]} end, the square on the same edge: `,
      { mm: length },
      ` long, measured from the ${measureFrom} end${alike}.`,
    ]);
  } else if (!takesOff)
    out.push([
      `The square on the ${square} edge: `,
      { mm: length },
      ` long, measured from the left end${alike}.`,
    ]);
  if (out.length === 0) return [];
  return [...out, ...throughPieces(step, entry, saw)];
}

/** How each cut comes through where the saw does not at once, and what holds the piece up. */
function throughPieces(
  step: Step,
  entry: TimelineStep,
  saw: BuildDocument['shop']['saws'][number],
): Phrase[][] {
  const thick = greatestSize(entry.entered, 'thickness');
  const way = wayOf(step);
  const out: Phrase[][] = [];
  if (way !== 'one' && saw.depth.mm > 0) {
    const { cuts, overMm } = cutsThrough(way, thick, reachOf(saw));
    out.push([
      'Each of them: ',
      ...cuts.flatMap(({ from, deepMm, guided }, i) => [
        `${i > 0 ? ', then ' : ''}from the ${from} face `,
        { mm: deepMm },
        guided ? ' deep' : ' deep without the guide, in the kerf of the first',
      ]),
      ...(way === 'hand' ? [', and ', { mm: Math.max(0, -overMm) }, ' in the middle by hand'] : []),
      '. Turned over on the same long edge, so that the cuts meet.',
    ]);
  }
  out.push(['Both sides of the cut lie on supports to the end; what falls away must not bind the blade.']);
  return out;
}
