import { boxOf, clearance as inPlan, type Region } from '../curve';
import { chordsOf } from '../solid';
import type { Body, Layer } from './body';

type Stretch = readonly [number, number];

/** How far two stretches are apart; 0 where they overlap. */
const gap = ([a0, a1]: Stretch, [b0, b1]: Stretch): number => Math.max(0, b0 - a1, a0 - b1);
/** How much two stretches overlap, by the shorter way out; below zero where they are apart. */
const overlap = ([a0, a1]: Stretch, [b0, b1]: Stretch): number => Math.min(a1 - b0, b1 - a0);

/** Layers along one axis: outlines in one plane, depths along one line. */
function alike(a: Layer, b: Layer): number {
  const plan = inPlan(a.region, b.region);
  const deep = gap([a.low, a.high], [b.low, b.high]);
  if (plan > 0) return Math.hypot(plan, deep);
  if (deep > 0) return deep;
  // Both overlap: the way out sideways, or up.
  return -Math.min(-plan || Infinity, overlap([a.low, a.high], [b.low, b.high]));
}

/** The stretches of a layer along one of its outline's axes, at a place on the other. */
const stretches = (layer: Layer, at: number, axis: 0 | 1 | 2): Stretch[] =>
  layer.u === axis
    ? chordsOf(layer.region, { x: 0, y: at }, { x: 1, y: 0 })
    : chordsOf(layer.region, { x: at, y: 0 }, { x: 0, y: 1 });

const rangeOf = (region: Region, along: 'u' | 'v'): Stretch => {
  const { x0, x1, y0, y1 } = boxOf(region);
  return along === 'u' ? [x0, x1] : [y0, y1];
};

/** How finely places are looked at before the nearest is looked at again, more finely. */
const PLACES = 40;
const ROUNDS = 4;

/**
 * Layers that stand square to one another. With w the axis both outlines share, the squared distance is (wa - wb)2 + f(wa)2 + g(wb)2: f
 * from a's chord at wa to b's depth, g from b's chord at wb to a's. The least is found over places, then nearer, then nearer.
 */
function square(a: Layer, b: Layer): number {
  const w = ([0, 1, 2] as const).find((axis) => axis !== a.n && axis !== b.n) as 0 | 1 | 2;
  const rangeA = rangeOf(a.region, a.u === w ? 'u' : 'v');
  const rangeB = rangeOf(b.region, b.u === w ? 'u' : 'v');
  const f = (at: number) =>
    stretches(a, at, b.n).reduce((least, each) => Math.min(least, gap(each, [b.low, b.high])), Infinity);
  const g = (at: number) =>
    stretches(b, at, a.n).reduce((least, each) => Math.min(least, gap(each, [a.low, a.high])), Infinity);
  let best = { d: Infinity, p: 0, q: 0 };
  let [p0, p1] = rangeA;
  let [q0, q1] = rangeB;
  for (let round = 0; round < ROUNDS; round++) {
    const list = ([from, to]: Stretch) =>
      Array.from({ length: PLACES + 1 }, (_, i) => from + 1e-9 + ((to - from - 2e-9) * i) / PLACES);
    const ps = list([p0, p1]).map((p) => ({ p, f: f(p) }));
    const qs = list([q0, q1]).map((q) => ({ q, g: g(q) }));
    for (const { p, f: fp } of ps)
      for (const { q, g: gq } of qs) {
        const d = (p - q) ** 2 + fp * fp + gq * gq;
        if (d < best.d) best = { d, p, q };
      }
    const [sp, sq] = [(p1 - p0) / PLACES, (q1 - q0) / PLACES];
    [p0, p1] = [Math.max(rangeA[0], best.p - 1.5 * sp), Math.min(rangeA[1], best.p + 1.5 * sp)];
    [q0, q1] = [Math.max(rangeB[0], best.q - 1.5 * sq), Math.min(rangeB[1], best.q + 1.5 * sq)];
  }
  const both: Stretch = [Math.max(rangeA[0], rangeB[0]), Math.min(rangeA[1], rangeB[1])];
  const least = Math.sqrt(best.d);
  if (least > 1e-6 && !(both[1] > both[0] && overlapsAt(a, b, both))) return least;
  return -deepest(a, b, { both, rangeA, rangeB });
}

const middles = ([from, to]: Stretch): number[] =>
  Array.from({ length: PLACES }, (_, i) => from + ((to - from) * (i + 0.5)) / PLACES);

const overlapsAt = (a: Layer, b: Layer, both: Stretch): boolean =>
  middles(both).some(
    (at) =>
      stretches(a, at, b.n).some((each) => overlap(each, [b.low, b.high]) > 1e-9) &&
      stretches(b, at, a.n).some((each) => overlap(each, [a.low, a.high]) > 1e-9),
  );

/** How deep two layers square to one another reach into each other: the shortest way out along an axis. */
function deepest(
  a: Layer,
  b: Layer,
  { both, rangeA, rangeB }: { both: Stretch; rangeA: Stretch; rangeB: Stretch },
): number {
  const most = (one: Layer, other: Layer) =>
    middles(both).reduce(
      (deep, at) =>
        Math.max(deep, ...stretches(one, at, other.n).map((each) => overlap(each, [other.low, other.high]))),
      0,
    );
  return Math.max(0, Math.min(overlap(rangeA, rangeB), most(a, b), most(b, a)));
}

const layers = (a: Layer, b: Layer): number => (a.n === b.n ? alike(a, b) : square(a, b));

/** A body as one layer at a depth. */
const layerAt = (body: Body, depth: number): Layer => {
  const at = body.along(depth);
  return { ...body, region: body.at?.(depth) ?? body.region, low: at, high: at };
};

/** The least of a function of a depth between two, sampled and then looked at more finely round the least. */
function leastOver(of: (depth: number) => number, from: number, to: number): number {
  let [low, high] = [from, to];
  let best = Infinity;
  for (let round = 0; round < 3; round++) {
    const step = (high - low) / 16;
    let where = low;
    for (let i = 0; i <= 16; i++) {
      const depth = low + i * step;
      const own = of(depth);
      if (own < best) [best, where] = [own, depth];
    }
    [low, high] = [Math.max(from, where - step), Math.min(to, where + step)];
  }
  return best;
}

const boxes = (body: Body): [Stretch, Stretch, Stretch] => {
  const out: [Stretch, Stretch, Stretch] = [
    [0, 0],
    [0, 0],
    [0, 0],
  ];
  const { x0, x1, y0, y1 } = boxOf(body.region);
  out[body.u] = [x0, x1];
  out[body.v] = [y0, y1];
  out[body.n] = [body.low, body.high];
  return out;
};

/** At least so far apart, by their boxes, mm. */
export function apartByBox(a: Body, b: Body): number {
  const [p, q] = [boxes(a), boxes(b)];
  return Math.hypot(gap(p[0], q[0]), gap(p[1], q[1]), gap(p[2], q[2]));
}

/**
 * The wood between two hollows, mm: below zero, how deep one reaches into the other. Exact for straight walls and circles seen along one
 * axis; else to about 0.001. `care` is what matters: bodies farther apart by their boxes are not looked at more closely.
 */
export function bridge(a: Body, b: Body, care = Infinity): number {
  const far = apartByBox(a, b);
  if (far > care) return far;
  if (!a.at && !b.at) return layers(a, b);
  if (!a.at) return bridge(b, a, care);
  return leastOver(
    (depth) =>
      b.at
        ? leastOver((other) => layers(layerAt(a, depth), layerAt(b, other)), b.from, b.to)
        : layers(layerAt(a, depth), b),
    a.from,
    a.to,
  );
}
