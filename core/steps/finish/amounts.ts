import { sumOf } from '../../units';
import type { BuildDocument, StepBase } from '../../document';
import {
  END_GRAIN_DRINKS,
  FINISH_KINDS,
  type FinishFacts,
  type FinishKind,
  type FinishUse,
  middleOf,
} from '../../kit';
import { FACE_PLACES, faceAreas, type FacePlace } from '../faces';
import type { WorkPiece } from '../timeline';

/** Puts on coats and lets each dry. */
export interface FinishStep extends StepBase {
  kind: 'finish';
  finish?: FinishKind | 'unsaid';
  /** What the piece must stand. */
  use?: FinishUse | 'unsaid';
  hours?: number;
  /** Coats where nothing else is said of a place. */
  coats?: number;
  upper?: number;
  lower?: number;
  edges?: number;
  ends?: number;
  /** What is lost on rag, brush or gun, %. */
  lossPct?: number;
  cureDays?: number;
}

/** Minutes to put on a coat and hours it dries, rough guesses (common practice). */
export const COAT_MIN = 20;
export const COAT_WAIT_H = 12;

/** What is known of the finish of a step; undefined where nobody said which. */
export const finishOf = ({ finish }: Pick<FinishStep, 'finish'>): FinishFacts | undefined =>
  finish && finish !== 'unsaid' ? FINISH_KINDS[finish] : undefined;

/** Coats on a place. */
export const coatsOn = (step: FinishStep, place: FacePlace): number =>
  step[place] ?? Math.max(1, step.coats ?? 1);
/** The coats that the place with most of them gets: so often the work is done. */
export const mostCoats = (step: FinishStep): number =>
  Math.max(1, ...FACE_PLACES.map(({ place }) => coatsOn(step, place)));
/** Hours each coat dries: as set, else the middle of what its finish needs. */
export const dryHours = (step: FinishStep): number => {
  const facts = finishOf(step);
  return step.hours ?? (facts ? middleOf(facts.recoatH) : COAT_WAIT_H);
};
/** Days until it has hardened: as set, else the middle of what is usual. */
export const cureDaysOf = (step: FinishStep): number =>
  step.cureDays ?? Math.ceil(middleOf(finishOf(step)?.cureDays ?? [0, 0]));
/** What is lost on rag, brush or gun, %: as set, else what is usual. */
export const lossOf = (step: FinishStep): number => step.lossPct ?? finishOf(step)?.lossPct ?? 0;

/** One place of the pieces with what goes on it. */
export interface FinishRow {
  place: FacePlace;
  name: string;
  mm2: number;
  coats: number;
  endGrain: number;
  /** With what is lost, ml. */
  ml: number;
}

/** What goes on every place of pieces, ml: area by coats over what a litre covers, end grain for as much as it drinks, and the loss. */
export function finishRows(step: FinishStep, pieces: readonly WorkPiece[]): FinishRow[] {
  const facts = finishOf(step);
  const areas = faceAreas(pieces);
  return FACE_PLACES.map(({ place, name }) => {
    const { mm2, endGrain } = areas[place];
    const coats = coatsOn(step, place);
    if (!facts) return { place, name, mm2, coats, endGrain, ml: 0 };
    const { times, every } = END_GRAIN_DRINKS[facts.goes];
    // The first coat drinks; a film drinks only then.
    const thirsty = every ? coats : Math.min(1, coats);
    const layers = coats + thirsty * (times - 1) * endGrain;
    const ml = ((mm2 / 1e6) * layers * 1000 * (1 + lossOf(step) / 100)) / middleOf(facts.m2PerL);
    return { place, name, mm2, coats, endGrain, ml };
  });
}

/** What goes on pieces in all, ml. */
export const amountOf = (step: FinishStep, pieces: readonly WorkPiece[]): number =>
  sumOf(finishRows(step, pieces), ({ ml }) => ml);

/** What a piece must stand: as set, else what the job says of it, else worn. */
export function standsWhat(
  { use }: FinishStep,
  { uses = [] }: Pick<BuildDocument, 'uses'>,
): FinishUse | undefined {
  if (use && use !== 'unsaid') return use;
  return uses.includes('outdoors')
    ? 'outdoors'
    : uses.includes('food')
      ? 'served'
      : uses.includes('wet')
        ? 'wet'
        : undefined;
}
