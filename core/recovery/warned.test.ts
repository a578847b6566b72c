import { describe, expect, it } from 'vitest';
import { type BuildDocument, type Failure, FAILURE_KINDS } from '../document';
import { applyEdit } from '../edit';
import { WARNERS } from '../log';
import { CHEQUER, panelBrief, plannedFor, shopWith } from '../plan/briefs.fixture';
import { run } from '../run';
import { plansFor } from '.';
import { warnedOf } from './warned';

const chequer = (more: Parameters<typeof shopWith>[0] = {}): BuildDocument =>
  plannedFor(panelBrief({ ...CHEQUER }), shopWith(more));
const sliceOf = (build: BuildDocument) => build.steps.find(({ kind }) => kind === 'slice')?.id ?? '';
const lost = (build: BuildDocument) => ({ step: sliceOf(build), kind: 'lostSlice' as const });
/** The same with shorter strips. */
const scant = (build: BuildDocument, byMm: number): BuildDocument => ({
  ...build,
  assemblies: build.assemblies.map((assembly) => ({
    ...assembly,
    slots: assembly.slots.map((slot) => ({ ...slot, length: { mm: slot.length.mm - byMm } })),
  })),
});
/** Its blank is 20 mm shorter than its slices and their kerfs. */
const warning = (build: BuildDocument): BuildDocument => scant(build, 20);

describe('whether a plan had warned of what failed', () => {
  it('is told by its findings of that kind, at the step or at one that its pieces come from', () => {
    const build = scant(chequer(), -40);
    expect(warnedOf(build, lost(build))).toEqual([]);
    const short = warning(chequer());
    expect(warnedOf(short, lost(short))).toEqual(['slices-do-not-fit']);
    // What warns of slices warns of no open joint, and what stands at a later step warns of nothing before it.
    expect(warnedOf(short, { step: sliceOf(short), kind: 'openJoint' })).toEqual([]);
    expect(warnedOf(short, { step: short.steps[0].id, kind: 'lostSlice' })).toEqual([]);
    expect(warnedOf(short, { step: 'gone', kind: 'lostSlice' })).toEqual([]);
  });
  it('does not change with what was done and read since', () => {
    const short = warning(chequer());
    const at = sliceOf(short);
    const made: BuildDocument = {
      ...short,
      steps: short.steps.map((step) => ({ ...step, done: true, doneAt: '2026-03-01T10:00:00.000Z' })),
      readings: [{ id: 'r', step: at, dimension: 'length', measured: { mm: 20 } }],
    };
    expect(warnedOf(made, lost(made))).toEqual(['slices-do-not-fit']);
  });
  it('a kit without clamps warned of an open joint, and a rule of the shop’s own of whatever failed there', () => {
    const bare = chequer({ clamps: [] });
    const glue = bare.steps.find(({ kind }) => kind === 'glue')?.id ?? '';
    expect(warnedOf(bare, { step: glue, kind: 'openJoint' })).toContain('no-clamps');
    const ruled = scant(
      chequer({
        rules: [
          { id: 'r', words: 'x', step: 'slice', dimension: 'length', side: 'below', size: { mm: 900 } },
        ],
      }),
      -40,
    );
    expect(warnedOf(ruled, lost(ruled))).toEqual(['own-rule']);
    expect(warnedOf(ruled, { step: sliceOf(ruled), kind: 'other' })).toEqual(['own-rule']);
    // A rule of a check warned once it was made.
    const wet = scant(
      chequer({
        rules: [{ id: 'r', words: 'x', step: 'rip', side: 'above', check: 'moisture', value: 10 }],
      }),
      -40,
    );
    const rip = wet.steps.find(({ kind }) => kind === 'rip')?.id ?? '';
    const read: BuildDocument = {
      ...wet,
      checks: [{ id: 'c', step: rip, kind: 'moisture', values: [12] }],
    };
    expect([warnedOf(wet, lost(wet)), warnedOf(read, lost(read))]).toEqual([[], ['own-rule']]);
  });
  it('goes into the record with the way that is taken', () => {
    const short = warning(chequer());
    const slice = run(short).steps.find(({ id }) => id === sliceOf(short));
    const told: Failure = { id: 'f', ...lost(short), pieces: [slice?.pieces[0].id ?? ''] };
    const moment = { now: Date.parse('2027-01-04T08:00:00Z'), today: '2027-01-04', zone: 'UTC' };
    const [plan] = plansFor(short, told, moment);
    const after = applyEdit(short, plan.edit) as BuildDocument;
    expect(after.failures).toMatchObject([{ id: 'f', warned: ['slices-do-not-fit'] }]);
  });
  it('every kind has its warners, each once', () => {
    for (const kind of FAILURE_KINDS)
      expect(new Set(WARNERS[kind].codes).size).toBe(WARNERS[kind].codes.length);
  });
});
