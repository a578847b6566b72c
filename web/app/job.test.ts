import { describe, expect, it } from 'vitest';
import type { JobReply } from '../../contract/api';
import { demoJobs } from '../../demo/jobs';
import { differences } from '../parts/differences';
import { jobActions as act, jobReducer, type JobState } from './job';

const reply = (version = 3): JobReply => ({
  id: 'a',
  name: 'x',
  use: '',
  version,
  changed: '',
  tags: [],
  build: demoJobs[4],
});
const play = (...actions: Parameters<typeof jobReducer>[1][]): JobState =>
  actions.reduce(jobReducer, jobReducer(undefined, act.opened(reply())));
const rename = (name: string, mark?: string) => act.edited({ edit: { do: 'rename', name }, mark });

describe('the open job', () => {
  it('undoes and redoes every edit, and takes back redo when a new edit is made', () => {
    const undone = play(rename('one'), rename('two'), act.undone());
    expect([undone.build?.name, undone.past.length, undone.future.length]).toEqual(['one', 1, 1]);
    expect(jobReducer(undone, act.redone()).build?.name).toBe('two');
    expect(jobReducer(undone, rename('three')).future).toEqual([]);
    expect(play(act.undone()).build).toBe(demoJobs[4]);
  });
  it('takes edits with one mark as one step of undo, until the field is left', () => {
    expect(play(rename('a', 'name'), rename('ab', 'name'), act.undone()).build?.name).toBe(demoJobs[4].name);
    expect(play(rename('a', 'name'), act.settled(), rename('ab', 'name'), act.undone()).build?.name).toBe(
      'a',
    );
  });
  it('is stored only when the very build on the screen was stored', () => {
    const edited = play(rename('one'));
    expect(edited.keeping).toBe('storing');
    const stale = jobReducer(edited, act.stored({ id: 'a', version: 4, build: demoJobs[4] }));
    expect([stale.keeping, stale.version]).toEqual(['storing', 4]);
    if (!edited.build) throw new Error();
    expect(jobReducer(edited, act.stored({ id: 'a', version: 4, build: edited.build })).keeping).toBe(
      'stored',
    );
    expect(jobReducer(edited, act.stored({ id: 'other', version: 9, build: edited.build })).version).toBe(3);
  });
  it('keeps both sides of a conflict within reach', () => {
    const mine = { ...demoJobs[4], name: 'mine' };
    const theirs = { ...reply(7), build: { ...demoJobs[4], name: 'theirs' } };
    for (const side of ['mine', 'theirs'] as const) {
      const settled = play(act.conflicted({ mine, theirs }), act.conflictSettled(side));
      expect([settled.build?.name, settled.version, settled.conflict]).toEqual([side, 7, undefined]);
      expect(jobReducer(settled, act.undone()).build?.name).toBe(side === 'mine' ? 'theirs' : 'mine');
    }
  });
  it('says why a plan cannot be made and leaves the build as it was', () => {
    const refused = play(act.edited({ edit: { do: 'replan', change: { woods: [] } } }));
    expect(refused.refused?.join('')).toContain('at least one wood');
    expect(refused.build).toBe(demoJobs[4]);
  });
  it('keeps what of a glue-up is looked at, forgets joint and clamp with the step, and drops answers of another step', () => {
    const looked = play(
      act.stepChosen('glue'),
      act.glueViewed('clamps'),
      act.jointChosen(3),
      act.clampChosen('c'),
    );
    expect([looked.glueView, looked.joint, looked.clamp]).toEqual(['clamps', 3, 'c']);
    const other = jobReducer(looked, act.stepChosen('glue-block'));
    expect([other.glueView, other.joint, other.clamp]).toEqual(['clamps', 1, undefined]);
    const answer = { joints: [], coarse: false, settled: true, quick: false, wideOutside: false };
    const planned = jobReducer(other, act.gluePlanned({ step: 'glue-block' }));
    const late = jobReducer(planned, act.pressureFound({ step: 'glue', answer, stale: false }));
    expect(late.pressure).toBeUndefined();
    const own = jobReducer(planned, act.pressureFound({ step: 'glue-block', answer, stale: false }));
    expect(own.pressure?.stale).toBe(false);
    // Planned again, the last answer stays on the screen, marked as old, until the next one.
    expect(jobReducer(own, act.gluePlanned({ step: 'glue-block' })).pressure?.stale).toBe(true);
    expect(jobReducer(own, act.gluePlanned({ step: 'glue' })).pressure).toBeUndefined();
  });
  it('never shows a step that is gone', () => {
    const state = play(act.stepChosen('slice'), act.broughtBack(demoJobs[0]));
    expect(demoJobs[0].steps.map(({ id }) => id)).toContain(state.step);
    expect(jobReducer(state, act.undone()).build).toBe(demoJobs[4]);
  });
});

describe('differences between two builds', () => {
  it('name the place, also in lists, and say nothing about what is alike', () => {
    expect(differences(demoJobs[4], structuredClone(demoJobs[4]))).toEqual([]);
    const changed = structuredClone(demoJobs[4]);
    changed.assemblies[0].slots[2].width = { mm: 12 };
    changed.assemblies[0].slots.splice(5, 1);
    const list = differences(demoJobs[4], changed).map(({ path }) => path);
    expect(list).toContain('assemblies › lay-up › slots › strip-3 › width › mm');
    expect(list).toContain('assemblies › lay-up › slots › strip-6');
    expect(list.length).toBeLessThan(4);
  });
});
