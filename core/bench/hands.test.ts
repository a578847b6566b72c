import { describe, expect, it } from 'vitest';
import { begunAt, ended, handsOn, isRunning, LONGEST_SPELL_MS, started, whoDid } from './hands';

const at = (time: string) => `2026-11-27T${time}:00.000Z`;
const ms = (time: string) => Date.parse(at(time));
const MINUTE = 60_000;

describe('hands on a step', () => {
  it('count from begin to pause, and on', () => {
    const first = ended(started(undefined, at('08:00')), at('08:20'));
    const second = started(first, at('09:00'));
    expect(handsOn({ work: second }, ms('09:05'))).toBe(25 * MINUTE);
    expect(isRunning({ work: second })).toBe(true);
    expect(isRunning({ work: second, done: true })).toBe(false);
    expect(isRunning({ work: ended(second, at('09:10')) })).toBe(false);
    expect(begunAt({ work: second })).toBe(at('08:00'));
    expect(begunAt({})).toBeUndefined();
  });
  it('begin once, however often it is pressed, and end once', () => {
    const work = started(started(undefined, at('08:00')), at('08:05'));
    expect(work).toEqual([{ from: at('08:00') }]);
    const over = ended(ended(work, at('08:30')), at('10:00'));
    expect(over).toEqual([{ from: at('08:00'), to: at('08:30') }]);
  });
  it('are no longer than half a day where nobody ended them', () => {
    const work = started(undefined, '2026-11-20T08:00:00.000Z');
    expect(handsOn({ work }, ms('08:00'))).toBe(LONGEST_SPELL_MS);
  });
  it('are somebody’s, named once, where they said so', () => {
    const first = ended(started(undefined, at('08:00'), 'Ada'), at('08:20'));
    const second = ended(started(first, at('09:00')), at('09:10'));
    const third = started(second, at('10:00'), 'Ada');
    expect(whoDid({ work: third })).toEqual(['Ada']);
    expect(whoDid({ work: ended(started(third, at('11:00'), 'Ben'), at('11:00')) })).toEqual(['Ada']);
    expect(whoDid({})).toEqual([]);
  });
  it('are never less than nothing, though a clock was put back or a time is none', () => {
    expect(handsOn({ work: ended(started(undefined, at('08:00')), at('07:00')) }, ms('09:00'))).toBe(0);
    expect(handsOn({ work: [{ from: at('08:00'), to: at('07:00') }] }, ms('09:00'))).toBe(0);
    expect(handsOn({ work: [{ from: 'never' }] }, ms('09:00'))).toBe(0);
  });
});
