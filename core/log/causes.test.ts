import { describe, expect, it } from 'vitest';
import { FAILURE_KINDS } from '../document';
import { causesOf, WARNERS } from '.';

const line = (cause: 'crack' | 'lostSlice', job: string, at: string, lostMinor = 0) =>
  ({ cause, job, at, struck: 1, lostMinor }) as const;

describe('what goes wrong', () => {
  it('is counted by how often or by what it cost, with its jobs and its last time', () => {
    const lines = [
      { ...line('lostSlice', 'a', '2026-01-03', 100), warned: [] },
      { ...line('lostSlice', 'a', '2026-01-01', 100), warned: ['margin-below-tolerance'] },
      { ...line('lostSlice', 'b', '2026-01-02', 100), warned: [] },
      line('crack', 'c', '2026-01-01', 900),
    ];
    expect(causesOf(lines)).toEqual([
      {
        cause: 'lostSlice',
        times: 3,
        jobs: 2,
        pieces: 3,
        looked: 3,
        warned: 1,
        costMinor: 300,
        last: '2026-01-03',
      },
      {
        cause: 'crack',
        times: 1,
        jobs: 1,
        pieces: 1,
        looked: 0,
        warned: 0,
        costMinor: 900,
        last: '2026-01-01',
      },
    ]);
    expect(causesOf(lines, 'cost').map(({ cause }) => cause)).toEqual(['crack', 'lostSlice']);
    expect(causesOf([{ job: 'a', at: '2026-01-01' }])).toEqual([]);
  });
  it('what warns of a kind of failure is said in words where there are findings, and not where there are none', () => {
    expect(Object.keys(WARNERS).toSorted()).toEqual([...FAILURE_KINDS].toSorted());
    for (const { words, codes } of Object.values(WARNERS)) expect(words !== undefined).toBe(codes.length > 0);
  });
});
