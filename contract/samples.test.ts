import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { READ_VERSIONS } from '../core/document';
import { review } from '../core/review';
import { run } from '../core/run';
import { readDocument } from './read';

/** What each sample came to when it was written, step by step, mm. */
interface Sizes {
  woodInMm3: number;
  steps: { id: string; pieces: number; least: number[]; greatest: number[] }[];
}

/* Jobs as each version wrote them, of the demo and of every pattern: kept as they were, never written again. */
describe.each(READ_VERSIONS)('jobs of version %i', (version) => {
  const folder = `contract/samples/${version}`;
  const sizes: Record<string, Sizes> = JSON.parse(readFileSync(`${folder}/sizes.data.json`, 'utf8'));
  const samples = readdirSync(folder).filter((file) => file.endsWith('.junta.json'));
  it('say that they are', () => {
    for (const file of samples)
      expect(JSON.parse(readFileSync(`${folder}/${file}`, 'utf8')).version, file).toBe(version);
  });
  it('are all there', () =>
    expect(samples.map((file) => file.replace('.junta.json', ''))).toEqual(Object.keys(sizes)));
  it.each(samples)('%s opens, and comes to what it came to then', (file) => {
    const checked = readDocument(JSON.parse(readFileSync(`${folder}/${file}`, 'utf8')));
    if (!checked.ok) throw new Error(JSON.stringify(checked));
    const timeline = run(checked.build);
    const then = sizes[file.replace('.junta.json', '')];
    expect(timeline.steps.map(({ id, pieces }) => [id, pieces.length])).toEqual(
      then.steps.map(({ id, pieces }) => [id, pieces]),
    );
    timeline.steps.forEach(({ least, greatest }, i) =>
      [0, 1, 2].forEach((a) => {
        expect(Math.abs(least[a] - then.steps[i].least[a])).toBeLessThan(1e-9);
        expect(Math.abs(greatest[a] - then.steps[i].greatest[a])).toBeLessThan(1e-9);
      }),
    );
    expect(timeline.woodInMm3 / then.woodInMm3).toBeCloseTo(1, 12);
    expect(review(checked.build, timeline).filter(({ severity }) => severity === 'stop')).toEqual([]);
  });
});
