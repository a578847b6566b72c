import { describe, expect, it } from 'vitest';
import { type BuildDocument, phraseText } from '../document';
import { mustEdit } from '../edit';
import { CHEQUER, panelBrief, plannedFor, shopWith } from '../plan/briefs.fixture';
import { run } from '../run';
import { review } from '.';

const CLAMPED = Date.UTC(2027, 2, 1, 17);
const after = (hours: number) => new Date(CLAMPED + hours * 3_600_000).toISOString();
const block = plannedFor(panelBrief(CHEQUER), shopWith({}, { hands: 2, surfaceWaitH: 24 }));

const ticked = (step: string, hours: number, noted: 'clamped' | 'ticked' | 'nothing' = 'clamped') => {
  let build: BuildDocument = mustEdit(block, {
    do: 'setStep',
    step: 'glue',
    change: { done: true, ...(noted === 'ticked' ? { doneAt: after(0) } : {}) },
  });
  if (noted === 'clamped')
    build = mustEdit(build, { do: 'planGlue', step: 'glue', change: { clamped: after(0) } });
  return mustEdit(build, { do: 'setStep', step, change: { done: true, doneAt: after(hours) } });
};
const early = (build: BuildDocument) => review(build, run(build)).filter(({ code }) => code === 'done-early');

describe('a step ticked before its wait was over', () => {
  it('says by how much it was early, and what the shop waits', () => {
    const [finding, ...rest] = early(ticked('flatten', 10));
    expect(rest).toEqual([]);
    expect(finding.numbers).toEqual({ afterH: 10, waitH: 24, earlyH: 14 });
    expect(phraseText(finding.message, block.shop.display)).toContain('waits 24 h: 14 h early');
  });
  it('is nothing at the end of the wait, nor where nobody noted when it was clamped', () => {
    expect(early(ticked('flatten', 24))).toEqual([]);
    expect(early(ticked('flatten', 10, 'nothing'))).toEqual([]);
    expect(early(ticked('flatten', 10, 'ticked'))).toHaveLength(1);
  });
  it('is gone with the tick', () => {
    const undone = mustEdit(ticked('flatten', 1), {
      do: 'setStep',
      step: 'flatten',
      change: { done: false, doneAt: undefined },
    });
    expect(early(undone)).toEqual([]);
  });
});
