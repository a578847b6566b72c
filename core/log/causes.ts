import { falling, inTurn } from '../units';
import type { FailureKind, FindingCode } from '../document';
import type { LogLine } from './line';

/** What Junta points out beforehand of a kind of failure: in words, and by the codes of its findings. */
interface Warner {
  words?: string;
  codes: readonly FindingCode[];
}

/** Every kind of failure with what warns of it; of those without anything a rule of one's own can. */
export const WARNERS: Record<FailureKind, Warner> = {
  spoiltStrip: { codes: [] },
  wrongRip: { codes: [] },
  crack: {
    words: 'wood glued, or held, across the grain',
    codes: ['cross-grain-joint', 'wood-on-sheet', 'held-across-grain', 'relief-short', 'slot-short'],
  },
  openJoint: {
    words:
      'too few clamps, clamps that do not reach or press, edges that lie open or waited, joints of end grain, and a glue-up that takes longer than the glue stays open',
    codes: [
      'no-clamps',
      'too-few-clamps',
      'clamps-too-short',
      'clamps-one-side',
      'joint-open',
      'crowned-edge',
      'edges-waited',
      'end-grain-joint',
      'slower-than-glue',
    ],
  },
  lostSlice: {
    words: 'a blank with no more left over than the stop and the kerf may be off by: plan a spare slice',
    codes: ['slices-do-not-fit', 'margin-below-tolerance'],
  },
  wrongFeature: {
    words: 'features that meet a joint, an edge or each other',
    codes: [
      'feature-on-joint',
      'feature-beside',
      'feature-breaks-out',
      'feature-thin-wall',
      'feature-too-deep',
      'feature-thin-floor',
      'features-meet',
      'features-near',
    ],
  },
  tooThin: {
    words: 'a thickness with no more left over than the machines may be off by',
    codes: [
      'margin-below-tolerance',
      'thinner-than-machine',
      'face-short',
      'reserve-below-expected',
      'hollow-deeper-than-flattening',
    ],
  },
  skinnedGlue: {
    words: 'a glue-up that takes longer than the glue stays open, by its own minutes of each act',
    codes: ['slower-than-glue'],
  },
  other: { codes: [] },
};

/** One cause: how often, at how many jobs, how many pieces, and what it cost. */
export interface Cause {
  cause: FailureKind;
  times: number;
  jobs: number;
  pieces: number;
  /** How often somebody looked whether the plan had warned of it, and how often it had. */
  looked: number;
  warned: number;
  /** Minor units of the shop's currency; of wood alone, where its price is known. */
  costMinor: number;
  last: string;
}

const byCost = falling<Cause>(({ costMinor }) => costMinor);
const byTimes = falling<Cause>(({ times }) => times);

/** What goes wrong, the most frequent first; or the dearest first. */
export function causesOf(
  lines: readonly (Pick<LogLine, 'cause' | 'struck' | 'at' | 'lostMinor' | 'warned'> & { job: string })[],
  by: 'times' | 'cost' = 'times',
): Cause[] {
  const out = new Map<FailureKind, Cause & { own: Set<string> }>();
  for (const { cause, struck = 0, at, job, lostMinor = 0, warned } of lines) {
    if (!cause) continue;
    const there = out.get(cause) ?? {
      cause,
      times: 0,
      jobs: 0,
      pieces: 0,
      looked: 0,
      warned: 0,
      costMinor: 0,
      last: at,
      own: new Set(),
    };
    there.times += 1;
    there.pieces += struck;
    there.costMinor += lostMinor;
    if (warned) there.looked += 1;
    if (warned && warned.length > 0) there.warned += 1;
    there.own.add(job);
    if (at > there.last) there.last = at;
    out.set(cause, there);
  }
  return [...out.values()]
    .map(({ own, ...cause }) => ({ ...cause, jobs: own.size }))
    .toSorted(by === 'cost' ? inTurn(byCost, byTimes) : inTurn(byTimes, byCost));
}
