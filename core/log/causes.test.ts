import { describe, expect, it } from 'vitest';
import { FAILURE_KINDS } from '../document';
import { causesOf, WARNED_BY } from '.';

const line = (cause: 'crack' | 'lostSlice', job: string, at: string, lostMinor = 0) =>
  ({ cause, job, at, struck: 1, lostMinor }) as const;

describe('what goes wrong', () => {
  it('is counted by how often or by what it cost, with its jobs and its last time', () => {
    const lines = [
      line('lostSlice', 'a', '2026-01-03', 100),
      line('lostSlice', 'a', '2026-01-01', 100),
      line('lostSlice', 'b', '2026-01-02', 100),
      line('crack', 'c', '2026-01-01', 900),
    ];
    expect(causesOf(lines)).toEqual([
      { cause: 'lostSlice', times: 3, jobs: 2, pieces: 3, costMinor: 300, last: '2026-01-03' },
      { cause: 'crack', times: 1, jobs: 1, pieces: 1, costMinor: 900, last: '2026-01-01' },
    ]);
    expect(causesOf(lines, 'cost').map(({ cause }) => cause)).toEqual(['crack', 'lostSlice']);
    expect(causesOf([{ job: 'a', at: '2026-01-01' }])).toEqual([]);
  });
  it('every kind of failure has its word on what warns of it, or none', () => {
    expect(Object.keys(WARNED_BY).toSorted()).toEqual([...FAILURE_KINDS].toSorted());
  });
});
