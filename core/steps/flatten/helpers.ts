import type { DimensionName } from '../../document';
import { axisOf } from '../../document';
import { extents } from '../../solid';
import type { Length } from '../../units';
import type { WorkPiece } from '../timeline';

/** What may be put on a piece, as a step has it. */
interface Ridden {
  runners?: Length;
  ends?: Length;
  chamfer?: Length;
}

/** How a piece is held while it is flattened, with what keeps it from moving and what the cutter must keep clear of. */
export const HOLDS = [
  { value: 'none', label: 'As its machine does', says: '' },
  {
    value: 'stops',
    label: 'Stops on all sides',
    says: 'Stops stand lower than the last pass; wedge out what rocks.',
  },
  {
    value: 'tapeGlue',
    label: 'Tape and glue',
    says: 'Tape on both, glue between: press it flat, and peel it off along the grain.',
  },
  {
    value: 'hotGlue',
    label: 'Hot glue',
    says: 'Beads at the edges, no higher than the lower face needs; loosen them with spirit.',
  },
  {
    value: 'jig',
    label: 'Jig',
    says: 'The jig carries the whole face; its screws and rails lie outside every path.',
  },
  {
    value: 'sled',
    label: 'Sled with hold-down',
    says: 'Hold-downs at the ends, outside the cutter’s way; move them only while it stands still.',
  },
  {
    value: 'vacuum',
    label: 'Vacuum',
    says: 'The face it lies on must be tight: open pores and end grain leak. It must hold before the cutter starts.',
  },
] as const;
export type Hold = (typeof HOLDS)[number]['value'];

/** What is put on a piece to be machined with it and cut off again: its wood, and minutes for each piece, a guess. */
export interface Helpers {
  woodMm3: number;
  minutesEach: number;
}
const RUNNERS_MIN = 10;
const ENDS_MIN = 10;
const CHAMFER_MIN = 5;

/** What runners along both edges and sacrificial pieces at both ends add to a size, mm. */
export const helpersAdd = (step: Ridden, dimension: DimensionName): number =>
  dimension === 'length' ? 2 * (step.ends?.mm ?? 0) : dimension === 'width' ? 2 * (step.runners?.mm ?? 0) : 0;

/** The wood of runners and sacrificial ends, as thick as the pieces they are on; it is no part of the job's wood and is cut off again. */
export function helpersOf(step: Ridden, entered: readonly WorkPiece[]): Helpers | undefined {
  const [runners, ends] = [step.runners?.mm ?? 0, step.ends?.mm ?? 0];
  const minutesEach = helperMinutes(step);
  if (minutesEach === 0) return undefined;
  const woodMm3 = entered.reduce((sum, { blank }) => {
    const size = extents(blank);
    const [long, wide, thick] = (['length', 'width', 'thickness'] as const).map((name) => size[axisOf(name)]);
    // Runners past the ends carry them: without runners, pieces as wide as the work lie there.
    return sum + thick * (runners === 0 ? 2 * ends * wide : 2 * runners * (long + 2 * ends));
  }, 0);
  return { woodMm3, minutesEach };
}

/** Minutes for each piece to put helpers on and cut them off again, a guess. */
export const helperMinutes = (step: Ridden): number =>
  ((step.runners?.mm ?? 0) > 0 ? RUNNERS_MIN : 0) +
  ((step.ends?.mm ?? 0) > 0 ? ENDS_MIN : 0) +
  ((step.chamfer?.mm ?? 0) > 0 ? CHAMFER_MIN : 0);
