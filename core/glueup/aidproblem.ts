import type { Phrase } from '../document';

/** Wood that must stay between an aid and any face or later cut, mm. */
export const AID_COVER = 3;

/** What an aid runs into. */
export interface AidProblem {
  kind: 'cut' | 'end' | 'aid' | 'keepOut' | 'thin' | 'waste';
  /** The later step that would open it, by name. */
  step?: string;
  words: Phrase[];
  /** By how much there is too little wood, mm. */
  shortMm: number;
}
