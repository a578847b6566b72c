import Ajv from 'ajv/dist/2020';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { predict } from '../core/exchange';
import { defaultShop } from '../core/kit';
import { mustFit, PATTERNS, startingBrief } from '../core/plan';
import { run } from '../core/run';
import { demoJobs } from '../demo/jobs';
import { readDocument, readJobFile } from './read';
import { jobFileSchema } from './jsonschema';

const wire = () => JSON.parse(JSON.stringify(demoJobs[4])) as Record<string, any>;
const problems = (value: unknown) => {
  const checked = readDocument(value);
  return checked.ok ? [] : checked.problems;
};
const validate = new Ajv({ strict: false, allErrors: true }).compile(jobFileSchema());

/** Every path to a plain value in a document, to break one at a time. */
function paths(value: unknown, at: (string | number)[] = []): (string | number)[][] {
  if (value === null || typeof value !== 'object') return [at];
  return Object.entries(value).flatMap(([key, inner]) =>
    paths(inner, [...at, Array.isArray(value) ? Number(key) : key]),
  );
}
const setAt = (root: any, path: (string | number)[], value: unknown) => {
  const parent = path.slice(0, -1).reduce((at, key) => at[key], root);
  parent[path[path.length - 1]] = value;
};

describe('the job file', () => {
  it('comes back as it went out', () => {
    for (const job of demoJobs) {
      const checked = readJobFile(JSON.stringify(job));
      expect(checked).toMatchObject({ ok: true, build: JSON.parse(JSON.stringify(job)) });
    }
  });
  it('holds every pattern: each comes back as it went out, by contract and by JSON Schema', () => {
    const layUps = [{ id: 'rule-1', name: 'own', strips: [{ species: 'maple_sugar', share: 1 }] }];
    const shop = {
      ...defaultShop('patterns'),
      layUps,
      practice: { rings: 'alternate' as const, first: 'planing' as const },
    };
    for (const { id, measures } of PATTERNS) {
      const given = Object.fromEntries(
        measures.map(({ key, kind, fallback }) => [
          key,
          kind === 'length' ? { mm: Number(fallback) } : fallback,
        ]),
      );
      const brief = startingBrief(id, shop, { quantity: 1, measures: given });
      const build = mustFit(brief, shop, { name: id, use: '' });
      const sent = JSON.parse(JSON.stringify(build));
      const checked = readDocument(sent);
      expect(checked, id).toMatchObject({ ok: true, build: sent });
      expect(validate(sent), `${id} ${JSON.stringify(validate.errors?.slice(0, 3))}`).toBe(true);
    }
  });
  it.each([
    [{ many: Object.fromEntries(Array.from({ length: 41 }, (_, i) => [`m${i}`, 1])) }, 'many'],
    [{ angle: Number.NaN }, 'angle'],
    [{ map: 'a'.repeat(2001) }, 'map'],
    [{ side: { mm: 1e9 } }, 'side'],
    [{ list: [1, 2] }, 'list'],
  ])('refuses measures such as %j', (measures, _name) => {
    const broken = wire();
    broken.brief.measures = 'many' in measures ? measures.many : measures;
    expect(problems(broken).some(({ path }) => path.startsWith('brief.measures'))).toBe(true);
  });
  it('is described by the generated JSON Schema: both accept the good', () => {
    for (const job of demoJobs)
      expect(validate(JSON.parse(JSON.stringify(job))), JSON.stringify(validate.errors?.slice(0, 3))).toBe(
        true,
      );
  });
  it('and both refuse a value of the wrong kind at any place, with the place', () => {
    const all = paths(wire()).filter((path) => !path.includes('settings'));
    fc.assert(
      fc.property(fc.constantFrom(...all), fc.constantFrom(null, [], { odd: 1 }), (path, wrong) => {
        const broken = wire();
        setAt(broken, path, wrong);
        expect(validate(broken)).toBe(false);
        const found = problems(broken);
        expect(found.length).toBeGreaterThan(0);
        if (path[0] !== 'format') expect(found.some((p) => p.path !== '')).toBe(true);
      }),
      { numRuns: 300, seed: 3 },
    );
  });
  it('refuses extra fields by name, at any depth', () => {
    const extra = { ...wire(), colour: 'red' };
    expect(problems(extra)[0].reason).toContain('colour');
    const deep = wire();
    deep.steps[0].speed = 3;
    expect(problems(deep)[0]).toMatchObject({ path: 'steps[0]', reason: expect.stringContaining('speed') });
    expect(validate(deep)).toBe(false);
  });
  it('says that a file is of a newer version, or no job at all', () => {
    expect(problems({ ...wire(), version: 3 })[0]).toMatchObject({
      path: 'version',
      reason: expect.stringContaining('newer Junta'),
    });
    expect(problems({ hello: 1 })[0].path).toBe('format');
    expect(problems(null)[0].path).toBe('format');
  });
  it('says where a broken file breaks', () => {
    const content = JSON.stringify(wire(), null, 2);
    const broken = readJobFile(content.replace('"steps": [', '"steps": [,'));
    expect(broken).toMatchObject({
      ok: false,
      problems: [{ path: expect.stringMatching(/^line \d+, column \d+$/) }],
    });
    expect(readJobFile(content.slice(0, 300))).toMatchObject({ ok: false });
  });
  it('refuses 5,000 strips, a count that is no number, an infinite length', () => {
    const many = wire();
    many.assemblies[0].slots = Array.from({ length: 5000 }, (_, i) => ({
      ...many.assemblies[0].slots[0],
      id: `s${i}`,
    }));
    expect(problems(many)[0]).toMatchObject({
      path: 'assemblies[0].slots',
      reason: expect.stringContaining('5000'),
    });
    const infinite = wire();
    infinite.assemblies[0].slots[0].width.mm = Number.POSITIVE_INFINITY;
    expect(problems(infinite).length).toBeGreaterThan(0);
  });
});

describe('predict', () => {
  it('gives the same from a file as from the build, with a ledger that closes', () => {
    for (const job of demoJobs) {
      const checked = readJobFile(JSON.stringify(job));
      if (!checked.ok) throw new Error('unreadable');
      const timeline = predict(checked.build);
      expect(timeline).toEqual(predict(job));
      expect(timeline.complete).toBe(true);
      expect(Math.abs(timeline.ledgerMm3.difference) / timeline.ledgerMm3.woodIn).toBeLessThan(1e-9);
      const perStep = timeline.steps.reduce((sum, step) => sum + step.lostMm3.kerf, 0);
      expect(perStep).toBeCloseTo(timeline.ledgerMm3.kerf, 3);
      expect(timeline.finished?.[0].length.likely90Mm).toBeGreaterThan(0);
    }
  });
  it('answers a build that cannot be run with what could be', () => {
    const broken = structuredClone(demoJobs[4]);
    broken.assemblies[0].slots[0].width = { mm: 0 };
    const timeline = predict(broken);
    expect(timeline).toMatchObject({
      complete: false,
      finished: null,
      findings: [{ code: 'no-size', step: 'rip' }],
    });
  });
  it('plans the same from a shop that has been through the file', () => {
    const shop = JSON.parse(JSON.stringify(defaultShop('x')));
    const brief = demoJobs[4].brief;
    if (!brief) throw new Error('no brief');
    expect(run(mustFit(brief, shop, { name: 'a', use: '' })).finished?.greatest).toEqual(
      run(mustFit(brief, defaultShop('x'), { name: 'a', use: '' })).finished?.greatest,
    );
  });
});
