import { expect, it } from 'vitest';
import { expectMended } from '../../review/mended.fixture';
import { build, GLUE, last, size, three } from '../steps.fixture';
import { sumOf } from '../../units';
import { fill, type FillStep, type Void, voidMm3 } from './fill';

const mm = (n: number) => ({ mm: n });
const knot: Void = { shape: 'round', length: mm(20), width: mm(10), depth: mm(8), count: 3 };
const step = (change: Partial<FillStep> = {}): FillStep => ({
  id: 'fill',
  kind: 'fill',
  inputs: ['panel'],
  output: 'filled',
  with: 'epoxy',
  voids: [knot],
  ...change,
});

it('a round void is an ellipse, a long one ends in half circles; several count together', () => {
  expect(voidMm3(knot)).toBeCloseTo((3 * 8 * Math.PI * 20 * 10) / 4, 9);
  expect(voidMm3({ ...knot, shape: 'long', count: 1 })).toBeCloseTo(8 * (10 * 10 + (Math.PI * 100) / 4), 9);
  // A slot as wide as it is long is a circle, whichever way it was entered.
  const round = { ...knot, shape: 'long' as const, length: mm(10), width: mm(10), count: 1 };
  expect(voidMm3(round)).toBeCloseTo(voidMm3({ ...round, shape: 'round' }), 9);
});

it('tells how much to mix, in layers no deeper than the filler takes, each hardening before the next', () => {
  const own = step();
  const job = build(three, [GLUE, own]);
  const facts = fill.facts?.(own, { build: job, entry: last(job) }) ?? [];
  const mixed = facts.find(({ name }) => name.startsWith('To mix'))?.says[0] as { ml: number };
  expect(mixed.ml).toBeCloseTo((voidMm3(knot) / 1000) * 1.15, 9);
  // 8 deep, 6 a layer.
  expect(fill.labour.rounds?.(own)).toHaveLength(2);
  expect(fill.labour.rounds?.(step({ with: 'wax' }))).toHaveLength(1);
  expect(size(last(job))).toEqual(size(last(build(three, [GLUE]))));
});

it('a void larger than its piece is found and taken out', () => {
  for (const large of [{ depth: mm(40) }, { length: mm(900) }, { length: mm(400), width: mm(300) }])
    expectMended(build(three, [GLUE, step({ voids: [knot, { ...knot, ...large }] })]), 'void-too-large');
});

it('takes the hands as long as its layers do together, and as many layers as it is deep', () => {
  const [small, two] = [step(), step({ voids: [knot, { ...knot, depth: mm(12.5) }] })];
  for (const [own, layers] of [
    [small, 2],
    [two, 3],
    // Just as deep as a layer, a hair less, and what takes any depth at once.
    [step({ voids: [{ ...knot, depth: mm(6) }] }), 1],
    [step({ voids: [{ ...knot, depth: mm(12) }] }), 2],
    [step({ with: 'wax' }), 1],
  ] as const) {
    const rounds = fill.labour.rounds?.(own) ?? [];
    expect(rounds).toHaveLength(layers);
    expect(fill.labour.fixed?.(own)).toBe(sumOf(rounds, ({ minutes }) => minutes));
  }
  const each = (own: FillStep) => fill.labour.rounds?.(own)[0].minutes ?? 0;
  // Mixing takes its time once; each void its own.
  expect(each(two) - each(small)).toBe(each(small) - each(step({ voids: [] })));
  expect(each(step({ voids: [] }))).toBe(10);
});
