import { spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import Ajv from 'ajv/dist/2020';
import { build } from 'esbuild';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { demoJobs } from '../demo/jobs';
// @ts-expect-error plain JavaScript without declarations
import { FOR_NODE } from './build.mjs';

const folder = mkdtempSync(join(tmpdir(), 'junta-cli-'));
const file = (name: string, content: string): string => {
  const path = join(folder, name);
  writeFileSync(path, content);
  return path;
};
// Beside the built application: its packages are found from there.
mkdirSync('dist', { recursive: true });
const beside = mkdtempSync(resolve('dist', 'junta-'));
const program = join(beside, 'junta.mjs');
const answer = (start: readonly string[], args: readonly string[]) => {
  const { status, stdout, stderr } = spawnSync(process.execPath, [...start, ...args], { encoding: 'utf8' });
  return { status, stdout, stderr };
};
/** As npm run junta starts it, which reads all of the source anew each time. */
const asStarted = (...args: string[]) => answer(['--import', 'tsx', 'scripts/junta.ts'], args);
/** The same program, bundled once. */
const junta = (...args: string[]) => answer([program], args);
const good = file('good.json', JSON.stringify(demoJobs[4]));

describe('the command line', () => {
  afterAll(() => rmSync(beside, { recursive: true, force: true }));
  beforeAll(() => build({ ...FOR_NODE, entryPoints: ['scripts/junta.ts'], outfile: program }));
  it('predicts a file: every step, the finished size, a ledger that closes', () => {
    const { status, stdout } = junta('predict', good);
    expect(status).toBe(0);
    const timeline = JSON.parse(stdout);
    expect(timeline.steps.map((step: { name: string }) => step.name)).toEqual([
      'Rip',
      'Mill',
      'Glue-up',
      'Flatten',
      'Slice',
      'Stand on end',
      'Second glue-up',
      'Flatten',
      'Trim',
    ]);
    expect(timeline.steps[4].pieces).toHaveLength(12);
    const [piece] = timeline.finished;
    for (const name of ['length', 'width', 'thickness']) {
      expect(piece[name].likely90Mm).toBeGreaterThan(0);
      expect(piece[name].worstMm).toBeGreaterThan(piece[name].likely90Mm);
    }
    const { woodIn, finished, kerf, shavings, chips, offcuts, dust, leftOver } = timeline.ledgerMm3;
    expect(
      Math.abs(woodIn - finished - kerf - shavings - chips - offcuts - dust - leftOver) / woodIn,
    ).toBeLessThan(1e-9);
    expect(timeline.joints).toMatchObject({ count: 18, contacts: 172 });
    expect(timeline.findings).toEqual([]);
  });
  it('names findings with code, step, message and numbers', () => {
    const timeline = JSON.parse(junta('predict', file('bench.json', JSON.stringify(demoJobs[0]))).stdout);
    expect(timeline.findings).toMatchObject([
      {
        code: 'wider-than-machine',
        step: 'flatten',
        severity: 'warning',
        message: expect.stringContaining('19 7/8 in'),
        numbers: { sections: 2 },
      },
    ]);
  });
  it('prints a schema that accepts the file', () => {
    const schema = JSON.parse(junta('schema').stdout);
    expect(new Ajv({ strict: false }).compile(schema)(JSON.parse(JSON.stringify(demoJobs[4])))).toBe(true);
  });
  it.each([
    ['a file that is not there', ['predict', join(folder, 'none.json')], 'none.json'],
    ['a broken file', ['predict', file('broken.json', '{"format":\n"junta-build",}')], 'line 2'],
    ['a newer file', ['check', file('newer.json', '{"format":"junta-build","version":3}')], 'newer Junta'],
    [
      'an unknown field',
      ['check', file('extra.json', JSON.stringify({ ...demoJobs[4], colour: 1 }))],
      'colour',
    ],
    ['an empty file', ['check', file('empty.json', '')], 'not JSON'],
    ['a huge file', ['check', file('huge.json', ' '.repeat(5_000_000))], '5000000 bytes'],
  ])('answers %s with place and reason, and exit code 1', (_name, args, words) => {
    const { status, stderr, stdout } = junta(...args);
    expect([status, stdout]).toEqual([1, '']);
    expect(stderr).toContain(words);
  });
  it('says how it is used', () => {
    expect(asStarted()).toMatchObject({ status: 2, stderr: expect.stringContaining('usage') });
    expect(asStarted('check', good)).toMatchObject({
      status: 0,
      stdout: expect.stringContaining('a job this Junta reads'),
    });
  });
});
