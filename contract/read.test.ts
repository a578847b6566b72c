import { describe, expect, it } from 'vitest';
import { FORMAT_VERSION } from '../core/document';
import { defaultShop } from '../core/kit';
import { run } from '../core/run';
import { demoJobs } from '../demo/jobs';
import { asCurrent } from '../core/steps';
import { readDocument, readJobFile, readShop } from './read';

const wire = (job = 0): any => JSON.parse(JSON.stringify(demoJobs[job]));
const sliced = (): any => {
  const job = demoJobs.find(({ steps }) => steps.some(({ kind }) => kind === 'slice'));
  return JSON.parse(JSON.stringify(job));
};
const stepOf = (document: any, kind: string) => document.steps.find((step: any) => step.kind === kind);

describe('reading a document', () => {
  it('of version 1 gives one of this version, with everything in it', () => {
    const old = { ...wire(), version: 1 };
    const read = readDocument(old);
    expect(read).toEqual({ ok: true, build: { ...wire(), version: FORMAT_VERSION } });
  });
  it('fills in what is missing and has a usual value, and nothing else', () => {
    const old = sliced();
    old.version = 1;
    delete old.shop.allowances.jointEdge;
    delete old.shop.settingStep;
    delete stepOf(old, 'rip').fence;
    delete stepOf(old, 'slice').head;
    const read = readDocument(old);
    if (!read.ok) throw new Error(JSON.stringify(read.problems));
    expect(read.build.shop.allowances.jointEdge).toEqual(defaultShop('').allowances.jointEdge);
    expect(read.build.shop.settingStep).toEqual(defaultShop('').settingStep);
    expect(stepOf(read.build, 'rip').fence).toBe('shared');
    expect(stepOf(read.build, 'slice').head).toEqual({ mm: 0 });
    for (const field of ['thickness', 'count', 'saw']) {
      const broken = sliced();
      delete stepOf(broken, 'slice')[field];
      expect(readDocument(broken), field).toMatchObject({
        ok: false,
        problems: [{ path: expect.stringContaining(field) }],
      });
    }
  });
  it('of a version to come is refused by name and version', () => {
    expect(readDocument({ ...wire(), name: 'A stair of tomorrow', version: 99 })).toEqual({
      ok: false,
      problems: [
        {
          path: 'version',
          reason: `“A stair of tomorrow” is of version 99, made by a newer Junta; this one reads up to version ${FORMAT_VERSION}`,
        },
      ],
    });
    for (const version of [0, 1.5, '1', null])
      expect(readDocument({ ...wire(), version })).toMatchObject({
        ok: false,
        problems: [{ path: 'version' }],
      });
  });
  it('keeps a step of a kind nobody knows as it is, and plays what comes before it', () => {
    const job = wire();
    const strange = {
      id: 'carve',
      kind: 'carve-of-tomorrow',
      inputs: [job.steps.at(-1).output],
      output: 'carved',
      depth: { mm: 4 },
      tools: ['gouge', { sweep: 7 }],
    };
    job.steps.push(strange);
    const read = readJobFile(JSON.stringify(job));
    if (!read.ok) throw new Error(JSON.stringify(read.problems));
    expect(JSON.parse(JSON.stringify(read.build))).toEqual(job);
    const timeline = run(read.build);
    expect(timeline.steps).toHaveLength(job.steps.length - 1);
    expect(timeline.problems.find(({ severity }) => severity === 'stop')).toMatchObject({
      code: 'unknown-step',
      step: 'carve',
      message: [expect.stringContaining('carve-of-tomorrow')],
    });
  });
  it('still refuses such a step where what every step has is wrong, or where it is a flood', () => {
    const job = wire();
    const bad = (step: object) => readDocument({ ...job, steps: [...job.steps, step] }).ok;
    const own = { id: 'x', kind: 'of tomorrow', inputs: [], output: 'y' };
    expect(bad({ ...own, kind: 'of-tomorrow' })).toBe(true);
    expect(bad(own)).toBe(false);
    expect(bad({ ...own, kind: 'of-tomorrow', inputs: ['nothing makes this'] })).toBe(false);
    expect(bad({ ...own, kind: 'constructor' })).toBe(false);
    const flood = Object.fromEntries(Array.from({ length: 600 }, (_, i) => [`f${i}`, i]));
    expect(bad({ ...own, kind: 'of-tomorrow', ...flood })).toBe(false);
  });
  it('gives back what is no document as it is', () => {
    for (const value of [null, 3, 'text', [], { version: 77 }]) expect(asCurrent(value)).toBe(value);
  });
});

describe('reading a shop', () => {
  it('fills in missing allowances, but never a saw or a machine', () => {
    const shop: any = JSON.parse(JSON.stringify(defaultShop('x')));
    delete shop.allowances;
    delete shop.woodMoisturePct;
    expect(readShop(shop)).toEqual({ ok: true, build: JSON.parse(JSON.stringify(defaultShop('x'))) });
    const { saws: _, ...bare } = JSON.parse(JSON.stringify(defaultShop('x')));
    expect(readShop(bare)).toMatchObject({ ok: false, problems: [{ path: 'saws' }] });
  });
});
