import type { FailureKind } from '../document';
import type { LogLine } from './line';

/** What Junta points out beforehand of what can fail, in words; of the others a rule of one's own can. */
export const WARNED_BY: Record<FailureKind, string | undefined> = {
  spoiltStrip: undefined,
  wrongRip: undefined,
  crack: 'wood glued across the grain',
  openJoint:
    'too few clamps, clamps that do not reach, and a glue-up that takes longer than the glue stays open',
  lostSlice: 'a blank with no more left over than the stop and the kerf may be off by: plan a spare slice',
  wrongFeature: 'features that meet a joint, an edge or each other',
  tooThin: 'a thickness with no more left over than the machines may be off by',
  skinnedGlue: 'a glue-up that takes longer than the glue stays open, by its own minutes of each act',
  other: undefined,
};

/** One cause: how often, at how many jobs, how many pieces, and what it cost. */
export interface Cause {
  cause: FailureKind;
  times: number;
  jobs: number;
  pieces: number;
  /** Minor units of the shop's currency; of wood alone, where its price is known. */
  costMinor: number;
  last: string;
}

/** What goes wrong, the most frequent first; or the dearest first. */
export function causesOf(
  lines: readonly (Pick<LogLine, 'cause' | 'struck' | 'at' | 'lostMinor'> & { job: string })[],
  by: 'times' | 'cost' = 'times',
): Cause[] {
  const out = new Map<FailureKind, Cause & { own: Set<string> }>();
  for (const { cause, struck = 0, at, job, lostMinor = 0 } of lines) {
    if (!cause) continue;
    const there = out.get(cause) ?? {
      cause,
      times: 0,
      jobs: 0,
      pieces: 0,
      costMinor: 0,
      last: at,
      own: new Set(),
    };
    there.times += 1;
    there.pieces += struck;
    there.costMinor += lostMinor;
    there.own.add(job);
    if (at > there.last) there.last = at;
    out.set(cause, there);
  }
  return [...out.values()]
    .map(({ own, ...cause }) => ({ ...cause, jobs: own.size }))
    .toSorted((a, b) =>
      by === 'cost'
        ? b.costMinor - a.costMinor || b.times - a.times
        : b.times - a.times || b.costMinor - a.costMinor,
    );
}
