import { sumOf } from '../../units';
import { colourDifference } from '../../wood';
import { endForEnd, type FaceLook, type StripLook } from '../faces';
import { lineAngle } from '../joints';

/** What an order of strips is wanted for. */
export const PURPOSES = ['vanish', 'even', 'contrast', 'apart', 'symmetric', 'rings', 'planing'] as const;

export type Purpose = (typeof PURPOSES)[number];

/** How a strip can lie: as it is, end for end, rolled over, or both. */
export const WAYS = [
  { endForEnd: false, rollOver: false },
  { endForEnd: true, rollOver: false },
  { endForEnd: false, rollOver: true },
  { endForEnd: true, rollOver: true },
] as const;

/** One of the sums a purpose is made of, as it is printed with the answer. */
export interface Term {
  name: string;
  weight: number;
  /** What it counts is a length, mm: it is shown in the reader's units. */
  of?: 'length';
}

/** Terms of each purpose: on neighbours, on single strips, on mirror pairs. */
export const TERMS: Record<Purpose, { joints: Term[]; strips: Term[]; pairs: Term[] }> = {
  vanish: {
    joints: [
      { name: 'colour difference at the joint', weight: 1 },
      { name: 'angle between the lines, per 10°', weight: 1 },
      { name: 'sapwood meeting heartwood', weight: 12 },
    ],
    strips: [{ name: 'better face hidden', weight: 2 }],
    pairs: [],
  },
  even: {
    joints: [
      { name: 'change of lightness, in %', weight: 1 },
      { name: 'change back to darker, in %', weight: 2 },
    ],
    strips: [{ name: 'better face hidden', weight: 2 }],
    pairs: [],
  },
  contrast: {
    joints: [{ name: 'colour difference short of 60', weight: 1 }],
    strips: [{ name: 'better face hidden', weight: 2 }],
    pairs: [],
  },
  apart: {
    joints: [
      { name: 'same wood side by side', weight: 10 },
      { name: 'same board or bundle side by side', weight: 6 },
      { name: 'colour difference short of 12', weight: 1 },
    ],
    strips: [{ name: 'better face hidden', weight: 2 }],
    pairs: [],
  },
  symmetric: {
    joints: [],
    strips: [{ name: 'better face hidden', weight: 2 }],
    pairs: [
      { name: 'colour difference of a mirror pair', weight: 1 },
      { name: 'difference in width', weight: 1, of: 'length' },
      { name: 'different woods in a mirror pair', weight: 10 },
    ],
  },
  rings: {
    joints: [
      { name: 'rings alike side by side', weight: 10 },
      { name: 'colour difference at the joint, per 10', weight: 0.1 },
    ],
    strips: [{ name: 'better face hidden', weight: 1 }],
    pairs: [],
  },
  planing: {
    joints: [
      { name: 'planing opposed', weight: 10 },
      { name: 'colour difference at the joint, per 10', weight: 0.1 },
    ],
    strips: [
      { name: 'planing from right to left', weight: 0.01 },
      { name: 'better face hidden', weight: 1 },
    ],
    pairs: [],
  },
};

/** Strips in numbers: what every joint, strip and mirror pair costs, by index of strip and of way. Plain data. */
export interface Costs {
  n: number;
  purpose: Purpose;
  /** joint[((i * 4 + a) * n + j) * 4 + b]: strip i lying way a, its near edge against the far edge of j lying b. */
  joint: Float64Array;
  strip: Float64Array;
  /** pair[i * n + j]: strips at places that mirror each other. */
  pair: Float64Array;
  hasPairs: boolean;
}

const faceOf = (strip: StripLook, way: number): FaceLook => {
  const face = WAYS[way].rollOver ? strip.down : strip.up;
  return WAYS[way].endForEnd ? endForEnd(face) : face;
};

/** Values of a purpose's terms on a joint, in the order of its terms. */
export function jointValues(
  purpose: Purpose,
  { a, wayA, b, wayB }: { a: StripLook; wayA: number; b: StripLook; wayB: number },
): number[] {
  const [far, near] = [faceOf(a, wayA), faceOf(b, wayB)];
  const [left, right] = [far.near, near.far];
  const edges = () => colourDifference(left.lab, right.lab);
  const whole = () => colourDifference(far.lab, near.lab);
  switch (purpose) {
    case 'vanish': {
      const apart =
        left.figureDegrees === undefined || right.figureDegrees === undefined
          ? 0
          : lineAngle(left.figureDegrees, right.figureDegrees);
      return [edges(), apart / 10, (left.sap ?? false) !== (right.sap ?? false) ? 1 : 0];
    }
    case 'even': {
      const change = 100 * (near.lab[0] - far.lab[0]);
      return [Math.abs(change), Math.max(0, -change)];
    }
    case 'contrast':
      return [Math.max(0, 60 - whole())];
    case 'apart': {
      const shared =
        (a.board !== undefined && a.board === b.board) || (a.set !== undefined && a.set === b.set);
      return [a.species === b.species ? 1 : 0, shared ? 1 : 0, Math.max(0, 12 - whole())];
    }
    case 'symmetric':
      return [];
    case 'rings':
      return [far.rings !== 0 && far.rings === near.rings ? 1 : 0, edges() / 10];
    case 'planing':
      return [(far.planing ?? 0) * (near.planing ?? 0) < 0 ? 1 : 0, edges() / 10];
  }
}

/** Values of a purpose's terms on a single strip. */
export function stripValues(purpose: Purpose, strip: StripLook, way: number): number[] {
  const shown = WAYS[way].rollOver ? 'down' : 'up';
  const hidden = strip.goodFace !== undefined && strip.goodFace !== shown ? 1 : 0;
  if (purpose !== 'planing') return [hidden];
  return [(faceOf(strip, way).planing ?? 0) < 0 ? 1 : 0, hidden];
}

/** Values of a purpose's terms on a mirror pair. */
export const pairValues = (purpose: Purpose, a: StripLook, b: StripLook): number[] =>
  purpose === 'symmetric'
    ? [colourDifference(a.up.lab, b.up.lab), Math.abs(a.width - b.width), a.species === b.species ? 0 : 1]
    : [];

const weighed = (terms: readonly Term[], values: readonly number[]): number =>
  sumOf(terms, (term, i) => term.weight * values[i]);

/** All costs of a purpose on some strips. */
export function costsOf(purpose: Purpose, strips: readonly StripLook[]): Costs {
  const n = strips.length;
  const terms = TERMS[purpose];
  const directed = purpose === 'even';
  const joint = new Float64Array(16 * n * n);
  const strip = new Float64Array(4 * n);
  const pair = new Float64Array(n * n);
  strips.forEach((one, i) => {
    for (let a = 0; a < 4; a++) {
      strip[i * 4 + a] = weighed(terms.strips, stripValues(purpose, one, a));
      if (terms.joints.length === 0) continue;
      strips.forEach((other, j) => {
        if (i === j || (!directed && j < i)) return;
        for (let b = 0; b < 4; b++) {
          const cost = weighed(terms.joints, jointValues(purpose, { a: one, wayA: a, b: other, wayB: b }));
          joint[((i * 4 + a) * n + j) * 4 + b] = cost;
          // Both strips end for end and the other way round: the same two edges meet.
          if (!directed) joint[((j * 4 + (b ^ 1)) * n + i) * 4 + (a ^ 1)] = cost;
        }
      });
    }
    strips.forEach((other, j) => {
      if (i !== j) pair[i * n + j] = weighed(terms.pairs, pairValues(purpose, one, other));
    });
  });
  return { n, purpose, joint, strip, pair, hasPairs: terms.pairs.length > 0 };
}

/** An order: which strip at each place from the far edge on, and how it lies. */
export interface Order {
  strips: number[];
  ways: number[];
}

/** What an order costs, summed anew. */
export function costOf(costs: Costs, { strips, ways }: Order): number {
  const { n, joint, strip, pair } = costs;
  let sum = 0;
  for (let p = 0; p < n; p++) {
    sum += strip[strips[p] * 4 + ways[p]];
    if (p > 0) sum += joint[((strips[p - 1] * 4 + ways[p - 1]) * n + strips[p]) * 4 + ways[p]];
  }
  if (costs.hasPairs) for (let p = 0; p < n - 1 - p; p++) sum += pair[strips[p] * n + strips[n - 1 - p]];
  return sum;
}

/** What each term comes to in an order, with its weight; for printing with the answer. */
export function scoresOf(
  purpose: Purpose,
  looks: readonly StripLook[],
  order: Order,
): (Term & { sum: number })[] {
  const terms = TERMS[purpose];
  const at = (p: number) => looks[order.strips[p]];
  const sums = (list: readonly Term[], values: number[][]) =>
    list.map((term, i) => ({ ...term, sum: sumOf(values, (row) => row[i]) }));
  const places = looks.map((_, p) => p);
  const pairs = places.filter((p) => p < looks.length - 1 - p);
  return [
    ...sums(
      terms.joints,
      places
        .slice(1)
        .map((p) =>
          jointValues(purpose, { a: at(p - 1), wayA: order.ways[p - 1], b: at(p), wayB: order.ways[p] }),
        ),
    ),
    ...sums(
      terms.pairs,
      pairs.map((p) => pairValues(purpose, at(p), at(looks.length - 1 - p))),
    ),
    ...sums(
      terms.strips,
      places.map((p) => stripValues(purpose, at(p), order.ways[p])),
    ),
  ];
}
