import { describe, expect, it } from 'vitest';
import { mustEdit } from '../edit';
import { jobFormat } from '../exchange/job';
import { mayRun, type Person } from '../kit';
import { panelBrief, plannedFor, shopWith } from './briefs.fixture';
import { freeJob } from './free';

const people: Person[] = [
  { id: 'person-1', name: 'Wren', liftKg: 20, runs: ['table-full'] },
  { id: 'person-2', name: 'Alder' },
];
const shop = shopWith({ people });

describe('who works in a shop', () => {
  it('goes into no job: not planned, not begun without a pattern, not with another kit', () => {
    const planned = plannedFor(panelBrief(), shop);
    const jobs = [
      planned,
      freeJob(shop, { name: 'free', use: '' }),
      mustEdit(planned, { do: 'useShop', shop }),
      mustEdit(planned, { do: 'replan' }),
    ];
    for (const job of jobs) {
      expect(job.shop.people).toBeUndefined();
      expect(jobFormat.writes(job)).not.toContain('Wren');
    }
  });
  it('runs what is listed, and everything where nothing is', () => {
    expect(people.map((person) => mayRun(person, 'table-full'))).toEqual([true, true]);
    expect(people.map((person) => mayRun(person, 'planer'))).toEqual([false, true]);
    expect(mayRun({ runs: [] }, 'planer')).toBe(false);
  });
});
