import { sumOf } from '../units';
import type { Step, WorkSpell } from '../document';

/** Longer than this no hand is at one thing without a break: a stretch that was never ended counts so long, ms. */
export const LONGEST_SPELL_MS = 12 * 3_600_000;

const lasting = ({ from, to }: WorkSpell, now: number): number => {
  const begun = Date.parse(from);
  const ended = to === undefined ? Math.min(now, begun + LONGEST_SPELL_MS) : Date.parse(to);
  return Number.isFinite(begun) && Number.isFinite(ended) ? Math.max(0, ended - begun) : 0;
};

/** How long hands were on a step, ms, up to a moment. A stretch that was forgotten counts for half a day at most. */
export const handsOn = ({ work = [] }: Pick<Step, 'work'>, now: number): number =>
  sumOf(work, (spell) => lasting(spell, now));

/** Whether hands are on a step. */
export const isRunning = ({ work = [], done }: Pick<Step, 'work' | 'done'>): boolean =>
  !done && work.some(({ to }) => to === undefined);

/** When a step was begun; undefined where nobody said. */
export const begunAt = ({ work = [] }: Pick<Step, 'work'>): string | undefined => work[0]?.from;

/** Stretches of work with one more begun at a moment, by somebody; as they are where one goes on. */
export const started = (work: readonly WorkSpell[] = [], at: string, who?: string): WorkSpell[] =>
  work.some(({ to }) => to === undefined) ? [...work] : [...work, { from: at, ...(who ? { who } : {}) }];

/** Whose hands were on a step, each named once, in the order in which they began. */
export const whoDid = ({ work = [] }: Pick<Step, 'work'>): string[] => [
  ...new Set(work.flatMap(({ who }) => who ?? [])),
];

/** The same, with what goes on ended at a moment; a clock put back in between ends nothing before it began. */
export const ended = (work: readonly WorkSpell[] = [], at: string): WorkSpell[] =>
  work.map((spell) =>
    spell.to === undefined
      ? { ...spell, to: Date.parse(at) < Date.parse(spell.from) ? spell.from : at }
      : spell,
  );
