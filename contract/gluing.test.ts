import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { mustEdit } from '../core/edit';
import { DEFAULT_ADHESIVES, DEFAULT_CLAMPS, DEFAULT_CLIMATE, DEFAULT_GLUE_PRACTICE } from '../core/kit';
import { demoJobs } from '../demo/jobs';
import { demoShop } from '../demo/shop';
import { readDocument } from './read';
import { checkWith } from './check';
import { adhesive, clampSet, climate, gluePlan, gluePractice } from './gluing';
import { shopSnapshot } from './shop';

const reasons = (schema: Parameters<typeof checkWith>[0], value: unknown): string => {
  const checked = checkWith(schema, value);
  return checked.ok ? '' : checked.problems.map(({ path, reason }) => `${path}: ${reason}`).join('; ');
};
const wire = <T>(value: T): T => JSON.parse(JSON.stringify(value));

describe('the gluing kit on the wire', () => {
  it('takes what a shop starts with, and the demo shop', () => {
    for (const set of DEFAULT_CLAMPS) expect(reasons(clampSet, wire(set))).toBe('');
    for (const bottle of DEFAULT_ADHESIVES) expect(reasons(adhesive, wire(bottle))).toBe('');
    expect(reasons(climate, DEFAULT_CLIMATE)).toBe('');
    expect(reasons(gluePractice, wire(DEFAULT_GLUE_PRACTICE))).toBe('');
    expect(reasons(shopSnapshot(), wire(demoShop))).toBe('');
    expect(reasons(shopSnapshot(), wire({ ...demoShop, clamps: [], adhesives: [] }))).toBe('');
  });
  it.each([
    ['a climate out of range', climate, { temperatureC: 70, humidityPct: 40 }, 'temperatureC'],
    ['more damp than air holds', climate, { temperatureC: 20, humidityPct: 120 }, 'humidityPct'],
    ['a clamp without force', clampSet, { ...wire(DEFAULT_CLAMPS[0]), forceN: 0 }, 'forceN'],
    ['a clamp nobody knows', clampSet, { ...wire(DEFAULT_CLAMPS[0]), kind: 'magnet' }, 'kind'],
    ['half a clamp', clampSet, { ...wire(DEFAULT_CLAMPS[0]), count: 2.5 }, 'count'],
    ['a date that is none', adhesive, { ...wire(DEFAULT_ADHESIVES[0]), expires: 'soon' }, '2027-03-31'],
    [
      'a day that ends before it begins',
      gluePractice,
      { ...wire(DEFAULT_GLUE_PRACTICE), hours: { days: [1], from: 17, to: 8 } },
      'must end at least half an hour after',
    ],
    [
      'a shop that never works',
      gluePractice,
      { ...wire(DEFAULT_GLUE_PRACTICE), hours: { days: [], from: 8, to: 17 } },
      'days',
    ],
    [
      'a shaving of nothing',
      gluePractice,
      { ...wire(DEFAULT_GLUE_PRACTICE), shaving: { mm: 0 } },
      'at least 0.001',
    ],
  ])('%s is refused', (_name, schema, value, words) => expect(reasons(schema, value)).toContain(words));
});

describe('a glue-up’s plan on the wire', () => {
  const full = {
    adhesive: 'slow',
    applicator: 'brush' as const,
    faces: 2 as const,
    hands: 2 as const,
    school: 'elastic' as const,
    tightening: 'rounds' as const,
    wantedMPa: 0.7,
    clamps: [{ id: 'c1', at: { mm: 90 }, side: 'below' as const, forceN: 3000, set: 'long' }],
    edgeCaul: { mm: 40 },
    crossCauls: 3,
    edges: [{ joint: 1, shape: 'wavy' as const, depth: { mm: 0.2 }, wave: { mm: 200 } }],
    aids: {
      kind: 'dowels' as const,
      places: [{ joint: 1, at: { mm: 100 } }],
      keepOut: [{ from: { mm: 1 }, to: { mm: 9 }, why: 'sink' }],
    },
    rehearsal: {
      at: '2026-03-02T08:30:00.000Z',
      whole: false,
      laps: [{ act: 'spread' as const, seconds: 12.5 }],
    },
    clamped: '2026-03-02T08:40:00Z',
    storage: 'edge' as const,
    joints: [{ joint: 1, squeezeOut: 'even' as const, step: { mm: 0.1 } }],
    hollow: { mm: 0.3 },
  };
  it('comes back as it went, whole or in any part, inside a job', () => {
    const names = Object.keys(full) as (keyof typeof full)[];
    fc.assert(
      fc.property(fc.subarray(names), (some) => {
        const change = Object.fromEntries(some.map((name) => [name, full[name]]));
        const build = wire(mustEdit(demoJobs[0], { do: 'planGlue', step: 'glue', change }));
        expect(readDocument(build)).toEqual({ ok: true, build });
      }),
      { seed: 20260, numRuns: 60 },
    );
  });
  it.each([
    ['clamps a kilometre off', { clamps: [{ ...full.clamps[0], at: { mm: 1e6 } }] }, 'clamps'],
    ['a joint zero', { edges: [{ ...full.edges[0], joint: 0 }] }, 'joint'],
    ['a time in words', { clamped: 'this morning' }, '2026-03-02'],
    [
      'a lap of a century',
      { rehearsal: { ...full.rehearsal, laps: [{ act: 'clamp', seconds: 1e9 }] } },
      'seconds',
    ],
    ['a field too many', { magic: true }, 'magic'],
  ])('%s are refused', (_name, value, words) => expect(reasons(gluePlan, value)).toContain(words));
});
