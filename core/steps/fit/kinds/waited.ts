import { type FittingKind } from '../kind';
import type { FittingBase } from '../model';

/** Edges that were jointed some days ago, and the moisture since. */
export interface EdgesWaited extends FittingBase {
  kind: 'waited';
  days: number;
  /** Moisture then, and now, %. */
  thenPct: number;
  nowPct: number;
}

/** Edges are glued the day they were jointed; after this many days, or this much change of moisture, they are no longer straight (common practice). */
const MOST_DAYS = 1;
const MOST_PCT = 0.5;

export const waited: FittingKind<EdgesWaited> = {
  kind: 'waited',
  name: 'Edges that waited',
  says: 'Edges jointed some days before they are glued or fitted: straight then, not now.',
  fields: {
    days: { is: 'number', least: 0, most: 365, whole: true, label: 'Days since they were jointed' },
    thenPct: { is: 'number', least: 3, most: 25, label: 'Moisture then, %' },
    nowPct: { is: 'number', least: 3, most: 25, label: 'Moisture now, %' },
  },
  begin: ({ swing }) => ({ days: 0, thenPct: swing.fitted, nowPct: swing.fitted }),
  report: ({ days, thenPct, nowPct }) => {
    const change = Math.abs(nowPct - thenPct);
    const old = days > MOST_DAYS || change > MOST_PCT;
    return {
      problems: old
        ? [
            {
              code: 'edges-waited',
              severity: 'warning',
              message: [
                `The edges waited ${days} days, and the wood changed by ${Math.round(change * 10) / 10} %: more than ${MOST_DAYS} day or ${MOST_PCT} %. Joint them again before they are glued.`,
              ],
              numbers: { days, change },
              fixes: [{ label: 'They are jointed again', change: { days: 0, thenPct: nowPct } }],
            },
          ]
        : [],
      facts: [
        {
          name: 'Edges',
          says: [old ? 'to be jointed again' : 'good to be glued'],
          state: old ? 'broken' : 'met',
        },
      ],
    };
  },
};

declare module '../model' {
  interface FittingKinds {
    waited: EdgesWaited;
  }
}
