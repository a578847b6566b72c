import type { Edit, Failure, FailureKind } from '../document';
import { asFeatures, asGlueUp } from '../steps';
import type { RemedyName } from './remedies';
import { jointsAt, type Where } from './where';

/** What is asked of whoever tells a failure. */
export type Asked = 'pieces' | 'joint' | 'band' | 'width' | 'thickness' | 'hole' | 'words';

/** A kind of failure: where it can happen, what is asked, what is true of the job then, and what can be done. */
export interface FailureRoom {
  at: (where: Where) => boolean;
  asks: (where: Where) => readonly Asked[];
  /** What is true whatever is done about it. */
  facts: (told: Failure, where: Where) => Edit[];
  ways: readonly RemedyName[];
}

const spoilt = ({ pieces = [] }: Failure, { step }: Where): Edit[] =>
  pieces
    .filter((piece) => !step.spoilt?.includes(piece))
    .map((piece) => ({ do: 'spoil', step: step.id, piece }));

const measured =
  (dimension: 'width' | 'thickness') =>
  ({ pieces, measured: size, at, who }: Failure, { step, entry }: Where): Edit[] => {
    if (!size) return [];
    const taken = { ...(at ? { taken: at } : {}), ...(who ? { who } : {}) };
    const one = { do: 'measure' as const, step: step.id, dimension, measured: size, ...taken };
    // Of several pieces each has its own reading; of one, the step has it.
    return entry.pieces.length > 1 && pieces ? pieces.map((piece) => ({ ...one, piece })) : [one];
  };

const isPart = ({ made, into }: Where) => (made === 'strips' || made === 'slices') && into !== undefined;
const nothing = (): Edit[] => [];
const whole = ['accept', 'startAgain'] as const;

/** Every kind of failure. One that is added to the document does not compile until it is here. */
export const FAILURES: Record<FailureKind, FailureRoom> = {
  spoiltStrip: {
    at: (where) => where.made === 'strips' && isPart(where),
    asks: () => ['pieces'],
    facts: spoilt,
    ways: ['spare', 'again', 'wider', 'accent', ...whole],
  },
  wrongRip: {
    at: (where) => where.made === 'strips' && isPart(where),
    asks: () => ['pieces', 'width'],
    facts: measured('width'),
    ways: ['again', 'wider', 'accent', ...whole],
  },
  crack: {
    at: ({ entry }) => entry.pieces.length > 0,
    asks: (where) => (isPart(where) ? ['pieces'] : where.made === 'glued' ? ['pieces', 'band'] : ['pieces']),
    facts: (told, where) => (where.made === 'glued' ? [] : spoilt(told, where)),
    ways: ['spare', 'moreSlices', 'spread', 'again', 'cutAccent', 'cutAway', 'accent', ...whole],
  },
  openJoint: {
    at: (where) => jointsAt(where).length > 0,
    asks: () => ['pieces', 'joint'],
    facts: nothing,
    ways: ['reglue', 'reglueAccent', ...whole],
  },
  lostSlice: {
    at: (where) => where.made === 'slices' && isPart(where),
    asks: () => ['pieces'],
    facts: spoilt,
    ways: ['spare', 'moreSlices', 'spread', 'again', 'accent', ...whole],
  },
  wrongFeature: {
    at: ({ step }) => asFeatures(step) !== undefined,
    asks: () => ['pieces', 'hole'],
    facts: nothing,
    ways: ['plug', 'again', 'startAgain'],
  },
  tooThin: {
    at: ({ entry }) => entry.pieces.length > 0,
    asks: () => ['pieces', 'thickness'],
    facts: measured('thickness'),
    ways: ['again', 'spread', ...whole],
  },
  skinnedGlue: {
    at: ({ step }) => asGlueUp(step) !== undefined,
    asks: () => [],
    facts: nothing,
    ways: ['scrapeAgain', ...whole],
  },
  other: {
    at: ({ entry }) => entry.pieces.length > 0,
    asks: () => ['words', 'pieces'],
    facts: (told, where) => (isPart(where) ? spoilt(told, where) : []),
    ways: ['spare', 'moreSlices', 'spread', 'again', 'wider', 'accent', ...whole],
  },
};
