import type { Format } from './format';
import { type BuildDocument, phraseText } from '../document';
import { compareTarget, findingsOf } from '../review';
import { run } from '../run';
import { type Axis, blankVolume, CAUSES, compensatedSum, extents, lostTo } from '../solid';
import { type Sources, toleranceOf, type WorkPiece } from '../steps';

/** A size with how far it may be off, mm: nine times in ten, and at worst. */
export interface PredictedSize {
  mm: number;
  likely90Mm: number;
  worstMm: number;
}

const sizeOf = (piece: WorkPiece, axis: Axis, sources: Sources): PredictedSize => {
  const tolerance = toleranceOf(piece.errors[axis], sources);
  return { mm: extents(piece.blank)[axis], likely90Mm: tolerance.likelyMm, worstMm: tolerance.worstMm };
};

const pieceOf = (piece: WorkPiece, sources: Sources) => ({
  id: piece.id,
  length: sizeOf(piece, 0, sources),
  width: sizeOf(piece, 1, sources),
  thickness: sizeOf(piece, 2, sources),
  cells: piece.blank.cells.length,
});

/**
 * The prediction of a build as plain data, for files and other programs: every step with its pieces, tolerances and
 * losses, then the finished size, the ledger in mm3, the joints and the findings. Documented in docs/format.md.
 */
export function predict(build: BuildDocument) {
  const timeline = run(build);
  const { sources, ledger } = timeline;
  const finished = timeline.finished
    ? compensatedSum(timeline.finished.pieces.map((p) => blankVolume(p.blank)))
    : 0;
  const lost = Object.fromEntries(CAUSES.map((cause) => [cause, lostTo(ledger, cause)])) as Record<
    (typeof CAUSES)[number],
    number
  >;
  const accounted = compensatedSum([finished, timeline.leftOverMm3, ...Object.values(lost)]);
  return {
    format: 'junta-timeline' as const,
    version: 1,
    name: build.name,
    complete: timeline.steps.length === build.steps.length,
    steps: timeline.steps.map((step) => ({
      id: step.id,
      kind: step.kind,
      name: step.name,
      pieces: step.pieces.map((piece) => pieceOf(piece, sources)),
      lostMm3: Object.fromEntries(CAUSES.map((cause) => [cause, lostTo(step.lost, cause)])),
      ...(step.glue ? { joints: step.glue.joints, glueAreaMm2: step.glue.areaMm2 } : {}),
    })),
    finished: timeline.finished?.pieces.map((piece) => pieceOf(piece, sources)) ?? null,
    target: compareTarget(build, timeline) ?? null,
    ledgerMm3: {
      woodIn: timeline.woodInMm3,
      finished,
      kerf: lost.kerf,
      shavings: lost.shaving,
      chips: lost.chips,
      offcuts: lost.offcut,
      dust: lost.dust,
      leftOver: timeline.leftOverMm3,
      difference: timeline.woodInMm3 - accounted,
    },
    joints: timeline.joints,
    tolerances: [...sources.values()].map(({ id, label, likelyMm, worstMm, basis }) => ({
      id,
      label,
      likely90Mm: likelyMm,
      worstMm,
      basis,
    })),
    findings: findingsOf(build, timeline).map(({ code, step, severity, message, numbers, caution }) => ({
      code,
      step,
      severity,
      message: phraseText(message, build.shop.display),
      numbers,
      ...(caution ? { caution } : {}),
    })),
  };
}

/** The prediction of a job for other programs. */
export const timelineFormat: Format<BuildDocument> = {
  id: 'timeline',
  name: 'Timeline',
  extension: 'timeline.json',
  media: 'application/json',
  says: 'What a job comes to, step by step: sizes, tolerances, losses, joints and findings.',
  reads: false,
  writes: (build) => `${JSON.stringify(predict(build), null, 2)}\n`,
};
