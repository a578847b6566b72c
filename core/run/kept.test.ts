import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoJobs } from '../../demo/jobs';
import type { BuildDocument, Edit } from '../document';
import { mustEdit } from '../edit';
import { extents } from '../solid';
import type { Timeline } from '../steps';
import { run } from './run';

/** All that is told of a timeline, sizes and losses to the last digit. */
const told = ({ steps, woodInMm3, leftOverMm3, ledger, problems, finished, sources }: Timeline) => ({
  steps: steps.map(
    ({ id, from, least, greatest, tolerance, lost, laid, glue, wanted, massKg, predicted, pieces }) => ({
      ...{ id, from, least, greatest, tolerance, lost, laid, glue, wanted, massKg, predicted },
      pieces: pieces.map(({ id: own, blank }) => [own, blank.cells.length, extents(blank)]),
    }),
  ),
  ...{ woodInMm3, leftOverMm3, ledger, problems, finished: finished?.id },
  sources: [...sources].toSorted(([a], [b]) => (a < b ? -1 : 1)),
});

/** An edit of any step of a job: sizes, tools, readings, spoilt pieces, strips, boards. */
const anyEdit = (build: BuildDocument): fc.Arbitrary<Edit> =>
  fc
    .record({ at: fc.nat(build.steps.length - 1), what: fc.nat(7), mm: fc.integer({ min: 1, max: 40 }) })
    .map(({ at, what, mm }): Edit => {
      const step = build.steps[at];
      const value = { mm: mm / 8 };
      const piece = build.assemblies[0]?.slots[0]?.id ?? '';
      return (
        [
          { do: 'measure', step: step.id, dimension: 'thickness', measured: { mm: 10 + mm } },
          { do: 'measure', step: step.id, dimension: 'length', measured: { mm: 100 + 10 * mm } },
          { do: 'useSaw', step: step.id, saw: build.shop.saws[mm % build.shop.saws.length].id },
          { do: 'setStep', step: step.id, change: { near: value, face: value, top: value, head: value } },
          { do: 'spoil', step: step.id, piece: `${step.id}.1` },
          { do: 'setSlot', step: build.steps[0].id, strip: piece, change: { width: { mm: 10 + mm } } },
          { do: 'lengthenStrips', step: build.steps[0].id, byMm: mm },
          { do: 'useShop', shop: { ...build.shop, settingStep: value } },
        ] satisfies Edit[]
      )[what];
    });

describe('a run that begins from one before', () => {
  it('comes to the very same as one that begins anew, edit after edit', () => {
    const jobs = fc.constantFrom(...demoJobs);
    const edits = jobs.chain((job) =>
      fc.tuple(fc.constant(job), fc.array(anyEdit(job), { minLength: 1, maxLength: 5 })),
    );
    fc.assert(
      fc.property(edits, ([job, list]) => {
        let build: BuildDocument = job;
        let last = run(build);
        for (const edit of list) {
          build = mustEdit(build, edit);
          last = run(build, last);
          expect(told(last)).toEqual(told(run(build)));
        }
      }),
      { numRuns: 60, seed: 11 },
    );
  });
  it('keeps the pieces of every step before the one that changed, and no others', () => {
    for (const job of demoJobs) {
      const first = run(job);
      job.steps.forEach((step, at) => {
        // What begins a line is cut from boards together with all others.
        if (step.inputs.length === 0) return;
        const next = run(
          mustEdit(job, { do: 'setStep', step: step.id, change: { note: 'looked at' } }),
          first,
        );
        const same = (i: number) => next.steps[i]?.pieces === first.steps[i]?.pieces;
        expect(job.steps.slice(0, at).every((_, i) => same(i))).toBe(true);
        expect(same(at)).toBe(false);
      });
    }
  });
  it('takes nothing over from another job, whatever its steps are called', () => {
    const timelines = demoJobs.map((job) => run(job));
    demoJobs.forEach((job, i) => {
      const other = timelines[(i + 1) % timelines.length];
      expect(told(run(job, other))).toEqual(told(timelines[i]));
    });
  });
});
