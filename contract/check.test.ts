import { describe, expect, it } from 'vitest';
import * as yup from 'yup';
import type { BuildDocument } from '../core/document';
import { demoJobs } from '../demo/jobs';
import { demoShop } from '../demo/shop';
import { saveJobBody } from './bodies';
import { MOST_BYTES, MOST_DEPTH, MOST_FIELDS, MOST_VALUES, tooMuch } from './bounds';
import { buildSchema } from './build';
import { readDocument, readJobFile } from './read';
import { checkWith, MOST_PROBLEMS } from './check';
import { mutated, randomFrom } from './mutate.fixture';
import { kitBody, shopSnapshot } from './shop';

const bytes = (text: string) => new TextEncoder().encode(text);
const wire = (job: BuildDocument) => JSON.parse(JSON.stringify(job)) as BuildDocument & Record<string, any>;
const job = () =>
  wire(demoJobs.find((each) => each.steps.some(({ kind }) => kind === 'slice')) as BuildDocument);

/** What a schema keeps from being accepted, counting every entry it is asked about. */
function counted() {
  let asked = 0;
  const entry = yup.mixed().test('counted', 'never right', () => {
    asked += 1;
    return false;
  });
  return { schema: yup.object({ list: yup.array(entry).max(5000).required() }), asked: () => asked };
}

describe('the contract, checked with bounds', () => {
  it('says yes and no where Yup’s own strict validation does, on 600 mutated documents', () => {
    const random = randomFrom(9);
    const yes = (value: unknown) => {
      try {
        return buildSchema.isValidSync(value, { strict: true });
      } catch {
        // Yup asks what the whole must be although parts are missing, and the question breaks.
        return false;
      }
    };
    let accepted = 0;
    for (let i = 0; i < 600; i++) {
      const value = wire(mutated(demoJobs[i % demoJobs.length], random));
      // Yup takes 1e999 for a number; no field means infinity, and JSON.stringify writes it as null.
      const ours = checkWith(buildSchema, value).ok;
      expect({ i, ok: ours }).toEqual({ i, ok: yes(value) });
      accepted += Number(ours);
    }
    expect(accepted).toBeGreaterThan(40);
    expect(accepted).toBeLessThan(560);
  }, 240_000);
  it('looks at no entry of a list that is too long, and stops at the twentieth problem', () => {
    const long = counted();
    expect(checkWith(long.schema, { list: Array(5001).fill(0) })).toMatchObject({
      ok: false,
      problems: [{ path: 'list' }],
    });
    expect(long.asked()).toBe(0);
    const full = counted();
    const checked = checkWith(full.schema, { list: Array(5000).fill(0) });
    expect(checked.ok || checked.problems.length).toBe(MOST_PROBLEMS);
    // Each of them quickly, and again for its words.
    expect(full.asked()).toBeLessThan(5 * MOST_PROBLEMS);
  });
  it('takes no infinity for a number and no prototype for a field', () => {
    expect(
      readDocument(JSON.parse(JSON.stringify(job()).replace('"quantity":1', '"quantity":1e999'))),
    ).toMatchObject({
      ok: false,
      problems: [{ path: 'targets[0].quantity' }],
    });
    expect(readDocument(JSON.parse(`{"__proto__":{"a":1},${JSON.stringify(job()).slice(1)}`))).toMatchObject({
      ok: false,
      problems: [{ reason: expect.stringContaining('__proto__') }],
    });
  });
});

describe('text that is too much', () => {
  it('is told from its bytes alone: size, depth, values, and nothing inside of words counts', () => {
    expect(tooMuch(bytes(JSON.stringify(job())))).toBeUndefined();
    expect(tooMuch(bytes(' '.repeat(MOST_BYTES + 1)))).toContain('4 MB');
    expect(tooMuch(bytes('['.repeat(MOST_DEPTH)))).toBeUndefined();
    expect(tooMuch(bytes('['.repeat(MOST_DEPTH + 1)))).toContain('24 levels');
    expect(tooMuch(bytes(`[${'0,'.repeat(MOST_VALUES - 2)}0]`))).toBeUndefined();
    expect(tooMuch(bytes(`[${'0,'.repeat(MOST_VALUES)}0]`))).toContain('300,000 values');
    expect(tooMuch(bytes(JSON.stringify(`${'[{,'.repeat(400_000)}\\"`)))).toBeUndefined();
    expect(tooMuch(bytes('"\\'))).toBeUndefined();
    const wide = (n: number) => JSON.stringify([Object.fromEntries(many(n, (i) => [`f${i}`, 0]))]);
    expect(tooMuch(bytes(wide(MOST_FIELDS)))).toBeUndefined();
    expect(tooMuch(bytes(wide(MOST_FIELDS + 1)))).toContain('600 fields');
  });
  it('stops an import before it is parsed', () => {
    expect(readJobFile('['.repeat(1_000_000))).toMatchObject({
      ok: false,
      problems: [{ path: 'the file', reason: expect.stringContaining('nested') }],
    });
  });
});

const many = <T>(count: number, make: (i: number) => T): T[] =>
  Array.from({ length: count }, (_, i) => make(i));

describe('references', () => {
  const wrong = (change: (build: any) => void) => {
    const build = job();
    change(build);
    const checked = readDocument(build);
    return checked.ok ? [] : checked.problems.map(({ path, reason }) => `${path} ${reason}`);
  };
  it.each<[string, (build: any) => void, string]>([
    ['two steps with one output', (b) => (b.steps[2].output = b.steps[1].output), 'steps[2].output'],
    [
      'outputs that differ in case only',
      (b) => (b.steps[2].output = b.steps[1].output.toUpperCase()),
      'steps[2].output',
    ],
    [
      'a step that takes what it makes',
      (b) => (b.steps[1].inputs = [b.steps[1].output]),
      'no step before it makes',
    ],
    [
      'steps that wait for each other',
      (b) => (b.steps[1].inputs = [b.steps[3].output]),
      'steps[1].inputs[0]',
    ],
    ['an input nobody makes', (b) => (b.steps[1].inputs = ['nowhere']), '“nowhere”'],
    ['two steps of one id', (b) => (b.steps[1].id = b.steps[0].id), 'steps[1].id'],
    [
      'strips that differ in case only',
      (b) => (b.assemblies[0].slots[1].id = b.assemblies[0].slots[0].id.toUpperCase()),
      'assemblies[0].slots[1].id',
    ],
    [
      'words that programs keep for themselves',
      (b) => (b.assemblies[0].slots[0].species = '__proto__'),
      'keep for themselves',
    ],
    [
      'more strips in all than any shop makes',
      (b) => {
        b.assemblies[0].repeat = 1000;
        b.targets[0].quantity = 1000;
      },
      'the most is 20000',
    ],
    ['two machines of one id', (b) => b.shop.machines.push(b.shop.machines[0]), 'shop.machines'],
    [
      'two readings of one id',
      (b) =>
        (b.readings = [0, 1].map(() => ({ id: 'r', step: 's', dimension: 'width', measured: { mm: 3 } }))),
      'readings[1].id',
    ],
  ])('%s are refused with the place', (_name, change, words) =>
    expect(wrong(change).join('; ')).toContain(words));
  it('of every job in the demo are whole', () => {
    for (const build of demoJobs) expect(readDocument(wire(build))).toMatchObject({ ok: true });
  });
  it('of the kit are told apart without regard to case', () => {
    const shop = JSON.parse(JSON.stringify(demoShop));
    shop.saws.push({ ...shop.saws[0], id: shop.saws[0].id.toUpperCase() });
    expect(checkWith(shopSnapshot(), shop).ok).toBe(true);
    expect(checkWith(kitBody, { version: 1, shop })).toMatchObject({
      ok: false,
      problems: [{ path: 'shop.saws[' + (shop.saws.length - 1) + '].id' }],
    });
  });
});

describe('ranges a shop can mean', () => {
  it.each<[string, (build: any) => void, string]>([
    [
      'a strip of a millionth',
      (b) => (b.assemblies[0].slots[0].width.mm = 1e-6),
      'width must be between 0.05',
    ],
    ['a thickness of 100 m', (b) => (b.assemblies[0].slots[0].thickness.mm = 100_000), '2,000 mm'],
    [
      'a largest clamp spacing of 0.0001 mm',
      (b) => (b.shop.gluing = { ...b.shop.gluing, mostSpacing: { mm: 1e-4 } }),
      'at least 10 mm',
    ],
    ['a million slices', (b) => (b.steps.find((s: any) => s.kind === 'slice').count = 1e6), 'count'],
    [
      'a rest of a century',
      (b) => b.steps.push({ id: 'z', output: 'z', inputs: [], kind: 'rest', hours: 1e6 }),
      'hours',
    ],
    [
      'settings that never end',
      (b) =>
        b.steps.push({
          id: 'z',
          output: 'z',
          inputs: [],
          kind: 'surface',
          settings: { a: { a: { a: { a: { a: { a: 1 } } } } } },
        }),
      'nested at most 5',
    ],
    [
      'settings of 501 values',
      (b) =>
        b.steps.push({
          id: 'z',
          output: 'z',
          inputs: [],
          kind: 'surface',
          settings: { a: many(500, (i) => i) },
        }),
      '500 values',
    ],
  ])('%s is refused', (_name, change, words) => {
    const build: any = { ...job(), shop: JSON.parse(JSON.stringify(demoShop)) };
    change(build);
    const checked = readDocument(build);
    expect(checked.ok ? '' : checked.problems.map((p) => p.reason).join('; ')).toContain(words);
  });
  it('a version past what the database counts is refused', () =>
    expect(checkWith(saveJobBody, { version: 2 ** 31, build: job() })).toMatchObject({
      ok: false,
      problems: [{ path: 'version' }],
    }));
});
