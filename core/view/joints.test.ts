import { describe, expect, it } from 'vitest';
import type { JointReading } from '../layup';
import { outlook } from '../review';
import { demoJobs } from '../../demo/jobs';
import { jointSentence } from './joints';

const reading: JointReading = {
  between: ['b', 'c'],
  at: 40,
  difference: 3.6,
  sap: 'one',
  figure: { far: 12.4, near: 8.2, apart: 4.2, through: true },
  rings: 'alternating',
  planing: 'opposed',
  sides: [{ rings: 1 }, { rings: -1 }],
  same: 'board',
  stepMm: 25.4 / 16,
};
const inches = { system: 'inch', fraction: 32 } as const;

describe('a joint in words', () => {
  it('says every sign that is drawn, with the numbers, in the reader’s units', () => {
    expect(jointSentence(reading, ['a', 'b', 'c'], inches)).toBe(
      'Strips 2 and 3: colours 4 apart; lines at 12° and 8° run through; rings the other way up; they plane against one another; sapwood against heartwood; both from one board; a step of 1/16 in.',
    );
    expect(jointSentence(reading, ['a', 'b', 'c'], { system: 'mm', fraction: 16 })).toContain(
      'a step of 1.6',
    );
  });
  it('leaves out what nobody looked at, and steps that nobody feels', () => {
    const { sap: _, same: __, figure: ___, ...bare } = reading;
    const said = jointSentence({ ...bare, stepMm: 0.02, planing: 'unknown' }, ['b', 'c'], inches);
    expect(said).toBe(
      'Strips 1 and 2: colours 4 apart; no lines looked at; rings the other way up; planing not looked at.',
    );
  });
  it('of the demo’s joints names strips that lie side by side', () => {
    for (const job of demoJobs) {
      const glue = job.steps.find(({ kind }) => kind === 'glue');
      const seen = glue && outlook(job, glue.id);
      const order = seen?.steps.find(({ id }) => id === glue?.id)?.laid?.map(({ piece }) => piece) ?? [];
      for (const [i, each] of (seen?.seams ?? []).entries())
        expect(jointSentence(each, order, job.shop.display)).toMatch(
          new RegExp(`^Strips ${i + 1} and ${i + 2}: colours \\d+ apart; .*\\.$`),
        );
    }
  });
});
