import { sumOf } from '../units';
import { type BuildDocument, makerOf, type Step } from '../document';
import type { Allowances } from '../kit';
import type { Outlook } from '../review';
import { CAUSES, type Cause, extents, type Vec3 } from '../solid';
import { asTrim, roomOf, type Timeline, turnedHow } from '../steps';

/** Pieces alike that a step cuts: how many, what they are called, and the size that was set, mm. */
export interface CutRow {
  step: string;
  count: number;
  words: string;
  mm: number;
}

/** The steps that cut pieces alike, with how many really came of each. */
export const cutRows = (build: BuildDocument, timeline: Timeline): CutRow[] =>
  build.steps.flatMap((step) => {
    const gives = roomOf(step).gives?.(step);
    if (!gives || gives.count < 2) return [];
    const made = timeline.steps.find(({ id }) => id === step.id)?.pieces.length;
    return [{ step: step.id, count: made ?? gives.count, words: gives.words, mm: gives.mm }];
  });

/** Panels that are sliced: what must pass the planer and lie on the saw, mm. */
export const slicedPanels = (
  build: BuildDocument,
  timeline: Timeline,
): { step: string; count: number; size: Vec3 }[] =>
  build.steps.flatMap((step) => {
    if (!roomOf(step).gives?.(step)?.fromPanel) return [];
    const maker = makerOf(build, step.inputs[0] ?? '');
    const made = timeline.steps.find(({ id }) => id === maker?.id);
    return made?.pieces[0]
      ? [{ step: step.id, count: made.pieces.length, size: extents(made.pieces[0].blank) }]
      : [];
  });

/** What rounding leaves over in a trim beside the shop's allowance, off ends and edges, mm; undefined where there is none. */
export function slackOf(step: Step, allowances: Allowances): { ends: number; edges: number } | undefined {
  const trim = asTrim(step);
  if (!trim) return undefined;
  const ends = Math.max(0, trim.start.mm + trim.end.mm - 2 * allowances.trimEnd.mm);
  const edges = Math.max(0, trim.near.mm + trim.far.mm - 2 * allowances.trimEdge.mm);
  return Math.max(ends, edges) > 0.005 ? { ends, edges } : undefined;
}

/** What the machine is set to where a carrier board lies under the piece, mm; undefined where none does. */
export function setWithCarrier(step: Step, thicknessMm: number): number | undefined {
  const carrier = (step as { carrier?: { mm: number } }).carrier?.mm ?? 0;
  return carrier > 0 ? thicknessMm + carrier : undefined;
}

/** What a job lost in all to each cause, mm3. */
export const lostInAll = (outlook: Outlook): Record<Cause, number> =>
  Object.fromEntries(
    CAUSES.map((cause) => [cause, sumOf(outlook.steps, ({ lost }) => lost[cause])]),
  ) as Record<Cause, number>;

/** Shares of a joined area by how the wood meets, % rounded, the greatest kinds of joint first as they are listed. */
export const jointShares = ({
  bySideMm2,
  finishedAreaMm2,
}: Outlook['joints']): { side: string; pct: number }[] =>
  Object.entries(bySideMm2)
    .filter(([, mm2]) => mm2 > 0)
    .map(([side, mm2]) => ({ side, pct: Math.round((100 * mm2) / finishedAreaMm2) }));

/** Which dimension each becomes in a step: length, width and thickness by their rows. Undefined where none changes. */
export function crossing(step: Step): readonly [number, number, number] | undefined {
  const how = turnedHow(step);
  if (how === 'onEnd') return [2, 1, 0];
  return how === 'onEdge' ? [0, 2, 1] : undefined;
}
