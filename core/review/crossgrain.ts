import { rising, sumOf } from '../units';
import type { BuildDocument, Finding, Step } from '../document';
import { ownersOf } from '../glueup';
import {
  type Blank,
  type Cell,
  type Contact,
  contacts,
  dot,
  grainAngle,
  grainOf,
  grainSide,
  principalStrains,
  strainDifference,
  type StrainDifference,
  type Vec3,
} from '../solid';
import { roomOf, swingOf } from '../steps';
import { findSpecies, isSolid, speciesName } from '../wood';
import type { ReviewContext } from './context';

/** Fibres that cross by less run along one another: such a joint is an ordinary one. Cosine of 20 degrees. */
const ALONG = Math.cos((20 * Math.PI) / 180);
/** Change of moisture over a year indoors, %, where nobody told the place; common practice, as in the seasonal check of the shop arithmetic. */
const YEAR_PCT = 4;
/** The change of moisture over a year where the piece will stand, %. */
function yearPct(build: BuildDocument): number {
  if (!build.place) return YEAR_PCT;
  const { dry, damp } = swingOf(build);
  return Math.round((damp - dry) * 10) / 10;
}
/** Less movement than this is taken up by wood and glue, mm; common practice. */
const TAKEN_UP_MM = 1;

const movement = (cell: Cell) => {
  const species = findSpecies(cell.origin.species);
  return {
    radial: species?.coefficientRadial ?? 0.0015,
    tangential: species?.coefficientTangential ?? 0.003,
    along: species?.coefficientAlong ?? 0,
  };
};

/** Whether one side of a joint is a sheet or a metal and the other wood: then no way of the grain makes them move alike. */
const onSheet = (a: Cell, b: Cell): boolean => isSolid(a.origin.species) !== isSolid(b.origin.species);

/** All fibres run one way in one kind of wood: nothing can be across the grain, and no joint need be looked at. */
const allAlong = ({ cells }: Blank): boolean => {
  const first = cells[0] && grainOf(cells[0]);
  return (
    cells.every((cell) => Math.abs(dot(grainOf(cell), first)) > 0.999) &&
    !cells.some((cell) => onSheet(cell, cells[0]))
  );
};

/** One side of a joint across the grain: everything one part meets on one plane. */
interface Side {
  contacts: Contact[];
  differences: StrainDifference[];
  /** The sheet or the metal at this joint, where it is one. */
  sheet?: string;
}

/** Length of what is joined along a direction: stretches that overlap count once, gaps do not count. mm. */
function joinedLength(list: readonly Contact[], along: Vec3): number {
  const spans = list
    .map((contact) => contact.outline().map((point) => dot(point, along)))
    .map((at) => ({ from: Math.min(...at), to: Math.max(...at) }))
    .toSorted(rising((a) => a.from));
  let [length, end] = [0, -Infinity];
  for (const { from, to } of spans) {
    length += Math.max(0, to - Math.max(from, end));
    end = Math.max(end, to);
  }
  return length;
}

/** How far one side wants to move past the other along the joint, in the direction in which it is most. */
function movesOf({ contacts: list, differences }: Side, year: number): { length: number; moves: number } {
  const area = sumOf(list, ({ areaMm2 }) => areaMm2);
  const mean = (of: (d: StrainDifference) => number) =>
    sumOf(differences, (d, i) => of(d) * list[i].areaMm2) / area;
  const [{ u, v }] = differences;
  const strains = principalStrains({
    u,
    v,
    uu: mean((d) => d.uu),
    vv: mean((d) => d.vv),
    uv: mean((d) => d.uv),
  });
  return strains
    .map(({ along, strain }) => {
      const length = joinedLength(list, along);
      return { length, moves: Math.abs(strain) * length * year };
    })
    .reduce((a, b) => (b.moves > a.moves ? b : a));
}

/** Joints glued across the grain, where one side moves with the seasons and the other holds it; and end grain alone. */
export function crossGrain(step: Step, context: ReviewContext): Finding[] {
  const entry = context.timeline.steps.find(({ id }) => id === step.id);
  const blank = entry?.pieces[0]?.blank;
  if (!roomOf(step).flow.joins || !entry || !blank || allAlong(blank)) return [];
  const partOf = ownersOf(entry);
  const sides = new Map<string, Side>();
  let [all, ends] = [0, 0];
  for (const contact of contacts(blank)) {
    const { a, b, areaMm2, normal } = contact;
    const [one, other] = [blank.cells[a], blank.cells[b]];
    if (partOf[a] === partOf[b]) continue;
    all += areaMm2;
    if (
      [one, other].some(
        (cell) => isSolid(cell.origin.species) && grainSide(grainAngle(cell, normal)) === 'end grain',
      )
    )
      ends += areaMm2;
    if (Math.abs(dot(grainOf(one), grainOf(other))) > ALONG && !onSheet(one, other)) continue;
    // Each part as one side, with everything it meets on this plane as the other: always this one less that one.
    for (const [own, [x, y]] of [
      [partOf[a], [one, other]],
      [partOf[b], [other, one]],
    ] as const) {
      const plane = normal.map((n) => n.toFixed(4)).join(',');
      const key = `${own} ${plane} ${dot(contact.at, normal).toFixed(2)}`;
      const sheet = onSheet(one, other)
        ? [one, other].find(({ origin }) => !isSolid(origin.species))?.origin.species
        : undefined;
      const side: Side = sides.get(key) ?? { contacts: [], differences: [], ...(sheet ? { sheet } : {}) };
      side.contacts.push(contact);
      side.differences.push(strainDifference(x, y, normal, { ma: movement(x), mb: movement(y) }));
      sides.set(key, side);
    }
  }
  const year = yearPct(context.build);
  const moves = [...sides.values()].map(
    (side): Moves => ({ ...movesOf(side, year), ...(side.sheet ? { sheet: side.sheet } : {}) }),
  );
  // Wood on wood and wood on a sheet are two things to look at: the worst of each.
  const worst = (list: readonly Moves[]): Finding[] =>
    list.length > 0
      ? across(
          step,
          list.reduce((a, b) => (b.moves > a.moves + 1e-9 ? b : a)),
          year,
        )
      : [];
  return [
    ...worst(moves.filter(({ sheet }) => sheet)),
    ...worst(moves.filter(({ sheet }) => !sheet)),
    ...weakEnds(step, ends, all),
  ];
}

interface Moves {
  length: number;
  moves: number;
  sheet?: string;
}

function across(step: Step, { length, moves, sheet }: Moves, year: number): Finding[] {
  if (moves < TAKEN_UP_MM) return [];
  if (sheet)
    return [
      {
        code: 'wood-on-sheet',
        step: step.id,
        severity: 'warning',
        message: [
          `Wood glued to ${speciesName(sheet).toLowerCase()} over `,
          { mm: length },
          `: over a change of ${year} % moisture the wood wants to move `,
          { mm: moves },
          ' and the other holds it. It cracks, or the piece bends; fasten it so that it can slide, use narrow strips along the edge, or cover both faces alike with thin wood.',
        ],
        numbers: { length, moves, moisture: year },
        fixes: [],
      },
    ];
  return [
    {
      code: 'cross-grain-joint',
      step: step.id,
      severity: 'warning',
      message: [
        'Glued across the grain over ',
        { mm: length },
        `: over a change of ${year} % moisture one side wants to move `,
        { mm: moves },
        ' more than the other. It cracks or lets go; fasten it so that it can slide, glue only the middle, or turn the grain.',
      ],
      numbers: { length, moves, moisture: year },
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

declare module '../document/finding' {
  interface FindingCodes {
    /** Wood moves across the grain against wood that does not. */
    'cross-grain-joint': true;
    /** Wood is glued to a sheet or a metal that does not move with it. */
    'wood-on-sheet': true;
    /** A joint of end grain, which hardly holds. */
    'end-grain-joint': true;
  }
}
