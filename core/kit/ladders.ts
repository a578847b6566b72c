import { upwards } from '../units';
/** How a face came to be as it is, before it is sanded. */
export type LadderAfter = 'planed' | 'handPlaned' | 'sanded' | 'routed' | 'sawn' | 'endGrain';

/** What is known of how a face was made. */
export interface LadderFacts {
  name: string;
  /** How deep what must be sanded away is, mm: a guess until it is measured (common practice). */
  marksMm: number;
  /** Grits, coarse to fine (common practice, recalled from memory; docs/sources.md). */
  grits: readonly number[];
}

/** The ladders of grits by how a face was made. A new one is one entry here. */
export const LADDERS: Readonly<Record<LadderAfter, LadderFacts>> = {
  planed: { name: 'Planed by machine', marksMm: 0.05, grits: [120, 150, 180] },
  handPlaned: { name: 'Planed by hand', marksMm: 0.02, grits: [180, 220] },
  sanded: { name: 'From the drum or belt sander', marksMm: 0.06, grits: [80, 120, 180] },
  routed: { name: 'From the router', marksMm: 0.15, grits: [80, 120, 150, 180] },
  sawn: { name: 'From the saw', marksMm: 0.2, grits: [60, 80, 120, 180] },
  endGrain: { name: 'End grain', marksMm: 0.15, grits: [80, 120, 180, 220] },
};
export const LADDER_NAMES = Object.keys(LADDERS) as LadderAfter[];

/** A ladder of the shop's own. */
export interface OwnLadder {
  after: LadderAfter;
  grits: number[];
}

/** Mean size of the grains of a P grit, thousandths of a millimetre (FEPA 43-1 / ISO 6344, from memory). */
const GRAIN: Readonly<Record<number, number>> = {
  24: 764,
  30: 642,
  36: 538,
  40: 425,
  50: 336,
  60: 269,
  80: 201,
  100: 162,
  120: 125,
  150: 100,
  180: 82,
  220: 68,
  240: 58.5,
  280: 52.2,
  320: 46.2,
  360: 40.5,
  400: 35,
  500: 30.2,
  600: 25.8,
  800: 21.8,
  1000: 18.3,
};
/** The P grits there are, coarse to fine. */
export const GRITS = Object.keys(GRAIN).map(Number).toSorted(upwards);

/** Mean grain of a P grit, mm; of one between two, as of the coarser. */
export const grainMm = (grit: number): number =>
  (GRAIN[GRITS.findLast((each) => each <= grit) ?? GRITS[0]] ?? 0) / 1000;

/** Scratches are about half as deep as the grains that made them are wide (a guess; common practice). */
const SCRATCH = 0.5;

/** What each grit takes off a face, mm: the first what was there before, each finer one the scratches of the one before it. */
export const takesOf = (grits: readonly number[], marksMm: number): number[] =>
  grits.map((_, i) => (i === 0 ? marksMm : SCRATCH * grainMm(grits[i - 1])));

/** The shop's ladder for faces made in a way: its own, else the usual one. */
export const ladderFor = (
  { ladders }: { ladders?: readonly OwnLadder[] | undefined },
  after: LadderAfter,
): readonly number[] => ladders?.find((own) => own.after === after)?.grits ?? LADDERS[after].grits;

/** Minutes for a square metre at one grit, and square metres that a sheet lasts: guesses, end grain asks twice as much (common practice). */
export const SAND_MIN_PER_M2 = 10;
export const SHEET_M2 = 0.5;
export const END_GRAIN_TIMES = 2;
