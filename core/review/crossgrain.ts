import type { Finding, Step } from '../build';
import {
  contacts,
  dot,
  extents,
  grainAngle,
  grainOf,
  grainSide,
  movementMismatch,
  type Blank,
  type Cell,
} from '../solid';
import { findSpecies } from '../wood';
import type { ReviewContext } from './review';

/** A joint whose sides differ by less per mm and 1 % is an ordinary one: end-grain boards have 0.001 to 0.002 (solid.md). */
const ORDINARY = 0.0024;
/** Change of moisture over a year indoors, %; common practice, as in the seasonal check of the shop arithmetic. */
const YEAR_PCT = 4;
/** Less movement than this is taken up by wood and glue, mm; common practice. */
const TAKEN_UP_MM = 1;

const movement = (cell: Cell) => {
  const species = findSpecies(cell.origin.species);
  return {
    radial: species?.coefficientRadial ?? 0.0015,
    tangential: species?.coefficientTangential ?? 0.003,
  };
};

/** All fibres run one way: nothing can be across the grain, and no joint need be looked at. */
const allAlong = ({ cells }: Blank): boolean => {
  const first = cells[0] && grainOf(cells[0]);
  return cells.every((cell) => Math.abs(dot(grainOf(cell), first)) > 0.999);
};

/** Joints glued across the grain, where one side moves with the seasons and the other holds it; and end grain alone. */
export function crossGrain(step: Step, context: ReviewContext): Finding[] {
  const entry = context.timeline.steps.find(({ id }) => id === step.id);
  const blank = entry?.pieces[0]?.blank;
  if (step.kind !== 'glue' || !entry || !blank || allAlong(blank)) return [];
  const before = new Map(
    context.before(step).flatMap(({ id, blank: { cells } }) => cells.map((cell) => [cell.id, id] as const)),
  );
  const thick = extents(blank)[2];
  const pairs = new Map<string, { area: number; worst: number; flat: boolean }>();
  let [all, ends] = [0, 0];
  for (const { a, b, areaMm2, normal } of contacts(blank)) {
    const [one, other] = [blank.cells[a], blank.cells[b]];
    const [from, to] = [before.get(one.id), before.get(other.id)];
    if (from !== undefined && from === to) continue;
    all += areaMm2;
    if ([one, other].some((cell) => grainSide(grainAngle(cell, normal)) === 'end grain')) ends += areaMm2;
    const mismatch = movementMismatch(one, other, normal, movement(one), movement(other));
    if (mismatch <= ORDINARY) continue;
    const key = `${from} ${to}`;
    const pair = pairs.get(key) ?? { area: 0, worst: 0, flat: Math.abs(normal[2]) > 0.5 };
    pair.area += areaMm2;
    pair.worst = Math.max(pair.worst, mismatch);
    pairs.set(key, pair);
  }
  let worst = { length: 0, moves: 0 };
  for (const { area, worst: mismatch, flat } of pairs.values()) {
    const length = flat ? Math.sqrt(area) : area / thick;
    const moves = mismatch * length * YEAR_PCT;
    if (moves > worst.moves) worst = { length, moves };
  }
  return [...across(step, worst), ...weakEnds(step, ends, all)];
}

function across(step: Step, { length, moves }: { length: number; moves: number }): Finding[] {
  if (moves < TAKEN_UP_MM) return [];
  return [
    {
      code: 'cross-grain-joint',
      step: step.id,
      severity: 'warning',
      message: [
        'Glued across the grain over ',
        { mm: length },
        `: over a change of ${YEAR_PCT} % moisture one side wants to move `,
        { mm: moves },
        ' more than the other. It cracks or lets go; fasten it so that it can slide, glue only the middle, or turn the grain.',
      ],
      numbers: { length, moves, moisture: YEAR_PCT },
      fixes: [],
    },
  ];
}

/** A share of end grain that the long-grain sides of the same pieces do not make up for; common practice. */
const MOST_END_SHARE = 0.5;

function weakEnds(step: Step, ends: number, all: number): Finding[] {
  if (all === 0 || ends / all < MOST_END_SHARE) return [];
  const share = Math.round((100 * ends) / all);
  return [
    {
      code: 'end-grain-joint',
      step: step.id,
      severity: 'warning',
      message: [
        `${share} % of the area to glue here, `,
        { mm2: ends },
        ', is end grain: it drinks the glue and holds a fraction of what long grain does. Size it first, and add a spline, dowels or a tenon where it must carry.',
      ],
      numbers: { area: ends, share },
      fixes: [],
    },
  ];
}
