import { describe, expect, it } from 'vitest';
import { copyName, duplicateOf, gistOf, type JobGist, JOB_STATES, jobState } from '../document';
import { panelBrief, plannedFor, shopWith } from '../plan/briefs.fixture';
import { jobCounts, type ListedJob, listedJobs, NO_QUERY, readTags, stateOf } from '.';

const NOW = Date.parse('2026-03-10T12:00:00Z');
const panel = plannedFor(panelBrief({}), shopWith());
const gist = gistOf(panel);
const job = (name: string, part: Partial<ListedJob> = {}): ListedJob => ({
  id: name,
  name,
  use: '',
  changed: '2026-03-01T00:00:00Z',
  tags: [],
  gist,
  ...part,
});
const find = (jobs: ListedJob[], query: Partial<typeof NO_QUERY>) =>
  listedJobs(jobs, { ...NO_QUERY, ...query }, { now: NOW, woodName: (id) => `wood ${id}` }).map(
    ({ name }) => name,
  );

describe('where a job stands', () => {
  const at = (part: Partial<JobGist>, away = false) =>
    jobState({ ...gist, steps: 4, done: 0, planned: false, ...part }, away, NOW);
  it('is told by ticks, times and whether it was put away', () => {
    expect(at({})).toBe('idea');
    expect(at({ planned: true })).toBe('planned');
    expect(at({ planned: true, begins: '2026-03-10T12:00:01Z' })).toBe('planned');
    expect(at({ planned: true, begins: '2026-03-10T12:00:00Z' })).toBe('made');
    expect(at({ done: 1 })).toBe('made');
    expect(at({ done: 3 })).toBe('made');
    expect(at({ done: 4 })).toBe('done');
    expect(at({ done: 4 }, true)).toBe('away');
    expect(at({ steps: 0 })).toBe('idea');
  });
  it('is read of the build: ticks and times of steps that are not left out', () => {
    const steps = panel.steps.map((step, i) => ({
      ...step,
      ...(i === 0 ? { done: true } : {}),
      ...(i === 1 ? { begin: '2026-03-12T08:00:00Z' } : {}),
      ...(i === 2 ? { off: true, begin: '2026-03-11T08:00:00Z' } : {}),
    }));
    expect(gistOf({ ...panel, steps })).toMatchObject({
      steps: panel.steps.length - 1,
      done: 1,
      planned: true,
      begins: '2026-03-12T08:00:00Z',
    });
    expect(gist).toMatchObject({
      planned: false,
      woods: [...new Set(panel.assemblies[0].slots.map((s) => s.species))],
    });
  });
});

describe('the list of jobs', () => {
  const jobs = [
    job('Tray 10', { use: 'for the café', tags: ['kitchen'], changed: '2026-03-03T00:00:00Z' }),
    job('tray 9', { tags: ['kitchen', 'gift'], changed: '2026-03-02T00:00:00Z' }),
    job('Shelf', { putAway: '2026-03-01T00:00:00Z', changed: '2026-03-05T00:00:00Z' }),
    job('Block', { gist: { ...gist, done: gist.steps }, changed: '2026-03-04T00:00:00Z' }),
    job('Lost', { gist: undefined }),
  ];
  it('finds all words in name, use, tags and woods, whatever their case and accents', () => {
    expect(find(jobs, { words: 'CAFE tray' })).toEqual(['Tray 10']);
    expect(find(jobs, { words: 'kitchen' })).toEqual(['Tray 10', 'tray 9']);
    expect(find(jobs, { words: `wood ${gist.woods[0]}` })).toEqual(['Block', 'Tray 10', 'tray 9']);
    expect(find(jobs, { words: 'tray shelf' })).toEqual([]);
  });
  it('leaves those put away out until they are asked for', () => {
    expect(find(jobs, {})).toEqual(['Block', 'Tray 10', 'tray 9', 'Lost']);
    expect(find(jobs, { states: ['away'] })).toEqual(['Shelf']);
    expect(find(jobs, { states: ['done', 'away'] })).toEqual(['Shelf', 'Block']);
    expect(find(jobs, { tags: ['kitchen', 'gift'] })).toEqual(['tray 9']);
  });
  it('stands in the order that is asked for, numbers as numbers', () => {
    expect(find(jobs, { order: 'name' })).toEqual(['Block', 'Lost', 'tray 9', 'Tray 10']);
    expect(find(jobs, { order: 'left' })).toEqual(['Block', 'Lost', 'Tray 10', 'tray 9']);
    expect(find(jobs, { order: 'state', states: ['done', 'idea', 'away'] }).at(-1)).toBe('Shelf');
  });
  it('counts every job in one state, and tags by name', () => {
    const { states, tags } = jobCounts(jobs, NOW);
    expect(Object.values(states).reduce((a, b) => a + b)).toBe(jobs.length);
    for (const state of Object.keys(JOB_STATES) as (keyof typeof JOB_STATES)[])
      expect(states[state]).toBe(jobs.filter((each) => stateOf(each, NOW) === state).length);
    expect(tags).toEqual([
      ['gift', 1],
      ['kitchen', 2],
    ]);
  });
  it('reads tags with commas between them, each once, none longer or more than may be', () => {
    expect(readTags(' kitchen,, for sale ,kitchen,', { most: 12, longest: 30 })).toEqual([
      'kitchen',
      'for sale',
    ]);
    expect(readTags('abcdef, b, c', { most: 2, longest: 3 })).toEqual(['abc', 'b']);
  });
});

describe('a duplicate', () => {
  it('begins anew: nothing done, no times, readings or boards; the work is the same', () => {
    const made = {
      ...panel,
      readings: [{ id: 'r', step: panel.steps[0].id, dimension: 'length' as const, measured: { mm: 1 } }],
      steps: panel.steps.map((step) => ({ ...step, done: true, doneAt: 'x', begin: 'y', spoilt: ['z'] })),
      assemblies: panel.assemblies.map((assembly) => ({
        ...assembly,
        slots: assembly.slots.map((slot) => ({
          ...slot,
          strip: { board: 'b', seed: 7, at: { x: 0, y: 0 }, locked: true },
        })),
      })),
    };
    const copy = duplicateOf(made, 'again');
    expect({ ...copy, name: panel.name, assemblies: panel.assemblies }).toEqual({
      ...panel,
      boards: [],
      readings: [],
    });
    for (const slot of copy.assemblies.flatMap(({ slots }) => slots)) expect(slot.strip).toEqual({ seed: 7 });
  });
  it('has a name of its own, however long', () => {
    expect(copyName('Shelf', [])).toBe('Shelf, copy');
    expect(copyName('Shelf', ['Shelf, copy'])).toBe('Shelf, copy 2');
    expect(copyName('Shelf, copy 2', ['Shelf, copy', 'Shelf, copy 2'])).toBe('Shelf, copy 3');
    expect(copyName('x'.repeat(120), [])).toHaveLength(120);
  });
});
