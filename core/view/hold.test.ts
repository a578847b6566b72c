import { describe, expect, it } from 'vitest';
import { demoJobs } from '../../demo/jobs';
import { run } from '../run';
import { laidNames } from '.';

const mm = { system: 'mm', fraction: 0 } as const;

describe('the parts of a glue-up by name', () => {
  const played = demoJobs.map((build) => ({ build, timeline: run(build) }));

  it('are told apart without the ids of the document, in the order in which they lie', () => {
    for (const { build, timeline } of played) {
      const ids = new Set(build.assemblies.flatMap(({ slots }) => slots.map(({ id }) => id)));
      for (const entry of timeline.steps.filter(({ laid }) => laid)) {
        const names = laidNames(build, entry, mm);
        expect(names).toHaveLength(entry.laid?.length ?? 0);
        entry.laid?.forEach(({ piece, min, max, endForEnd }, i) => {
          expect(names[i].includes('end for end')).toBe(endForEnd);
          const wide = Number(/, ([\d.]+) mm wide/.exec(names[i])?.[1]);
          if (ids.has(piece)) expect(Math.abs(wide - (max[1] - min[1]))).toBeLessThan(0.051);
          else expect(names[i]).toContain(`part ${entry.entered.findIndex(({ id }) => id === piece) + 1}`);
          expect(names[i]).not.toContain(piece);
        });
      }
    }
  });

  it('are named by their wood where they are strips, and counted where they are slices', () => {
    const all = played.flatMap(({ build, timeline }) =>
      timeline.steps.flatMap((entry) => laidNames(build, entry, mm)),
    );
    expect(all.some((name) => name.startsWith('White ash, '))).toBe(true);
    expect(all.some((name) => /^part 2\b/.test(name))).toBe(true);
  });
});
