import { type BuildDocument, makerOf, type Slot } from '../document';
import { extents, turnBlank } from '../solid';
import { assemblyOf, type Laid, type Timeline, type WorkPiece } from '../steps';
import { colourDifference } from '../wood';
import { type EdgeLook, endForEnd, type FaceLook, faceLook, type StripLook } from './faces';

/** Lines that differ by less run through for the eye, degrees; common practice has no number, this one is Junta's. */
export const THROUGH_DEGREES = 8;

/** Most parts a lay-up is read for. */
export const MOST_READ = 120;

/** What a joint between two neighbours shows, from the far one to the near one. */
export interface JointReading {
  between: [string, string];
  /** Where it lies across the width in the glue-up's frame, mm. */
  at: number;
  /** Colours on both sides, CIEDE2000: about 1 is just seen side by side. */
  difference: number;
  /** What meets: sapwood on both sides, on one, on none; undefined where nobody looked. */
  sap?: 'both' | 'one' | 'none';
  /** Direction of the lines on the far and the near side, degrees against the length. */
  figure?: { far: number; near: number; apart: number; through: boolean };
  rings: 'alternating' | 'alike' | 'unclear';
  planing: 'agree' | 'opposed' | 'unknown';
  /** Rings and planing of the far and the near strip, for drawing. */
  sides: [Pick<FaceLook, 'rings' | 'planing'>, Pick<FaceLook, 'rings' | 'planing'>];
  /** Both come from one board, or one bundle. */
  same?: 'board' | 'bundle';
  stepMm: number;
}

/** The angle between two lines, degrees from 0 to 90. */
export const lineAngle = (a: number, b: number): number => {
  const d = Math.abs(a - b) % 180;
  return Math.min(d, 180 - d);
};

/** What two faces make of the joint between them: the near edge of the far strip meets the far edge of the near one. */
export function readJoint(
  far: { look: FaceLook; strip: Pick<StripLook, 'board' | 'set' | 'thickness'> },
  near: { look: FaceLook; strip: Pick<StripLook, 'board' | 'set' | 'thickness'> },
): Omit<JointReading, 'between' | 'at'> {
  const [a, b] = [far.look.near, near.look.far];
  return {
    difference: colourDifference(a.lab, b.lab),
    ...sapOf(a, b),
    ...figureOf(a, b),
    rings:
      far.look.rings === 0 || near.look.rings === 0
        ? 'unclear'
        : far.look.rings === near.look.rings
          ? 'alike'
          : 'alternating',
    planing: planingOf(far.look.planing, near.look.planing),
    sides: [side(far.look), side(near.look)],
    ...(far.strip.board && far.strip.board === near.strip.board
      ? { same: 'board' as const }
      : far.strip.set && far.strip.set === near.strip.set
        ? { same: 'bundle' as const }
        : {}),
    stepMm: Math.abs(far.strip.thickness - near.strip.thickness),
  };
}

const side = ({ rings, planing }: FaceLook) => ({ rings, ...(planing === undefined ? {} : { planing }) });

function sapOf(a: EdgeLook, b: EdgeLook): Pick<JointReading, 'sap'> {
  if (a.sap === undefined || b.sap === undefined) return {};
  return { sap: a.sap && b.sap ? 'both' : a.sap || b.sap ? 'one' : 'none' };
}

function figureOf(a: EdgeLook, b: EdgeLook): Pick<JointReading, 'figure'> {
  if (a.figureDegrees === undefined || b.figureDegrees === undefined) return {};
  const apart = lineAngle(a.figureDegrees, b.figureDegrees);
  return {
    figure: { far: a.figureDegrees, near: b.figureDegrees, apart, through: apart <= THROUGH_DEGREES },
  };
}

function planingOf(a: number | undefined, b: number | undefined): JointReading['planing'] {
  if (a === undefined || b === undefined) return 'unknown';
  return a * b < 0 ? 'opposed' : 'agree';
}

/** The strips that a glue-up lays side by side, as they come to it; undefined for any other step. */
export function stripsOf(
  build: BuildDocument,
  timeline: Timeline,
  stepId: string,
): { laid: Laid[]; works: Map<string, WorkPiece>; slots: Map<string, Slot> } | undefined {
  const step = build.steps.find(({ id }) => id === stepId);
  const entry = timeline.steps.find(({ id }) => id === stepId);
  const assembly = assemblyOf(build, stepId);
  if (step?.kind !== 'glue' || step.along !== 'width' || step.rows || !entry?.laid || !assembly)
    return undefined;
  if (entry.laid.length < 2 || entry.laid.length > MOST_READ) return undefined;
  const makers = step.inputs.map((input) => makerOf(build, input)?.id);
  const works = new Map(
    timeline.steps
      .filter(({ id }) => makers.includes(id))
      .flatMap(({ pieces }) => pieces.map((piece) => [piece.id, piece] as const)),
  );
  const slots = new Map(assembly.slots.map((slot) => [slot.id, slot]));
  return entry.laid.every(({ piece }) => works.has(piece)) ? { laid: entry.laid, works, slots } : undefined;
}

/** What a strip shows either way up, before it is turned in the lay-up. */
export function stripLook(build: BuildDocument, work: WorkPiece, slot: Slot | undefined): StripLook {
  const board = build.boards.find(({ id }) => id === slot?.strip?.board);
  const [, width, thickness] = extents(work.blank);
  const notes = { ...(board ? { board } : {}), ...(slot ? { slot } : {}) };
  const good = board?.goodFace;
  const faceDown = slot?.strip?.faceDown ?? false;
  return {
    piece: work.id,
    species: slot?.species ?? work.blank.cells[0]?.origin.species ?? '',
    ...(board ? { board: board.id } : {}),
    ...(slot?.set ? { set: slot.set } : {}),
    width,
    thickness,
    up: faceLook(work.blank, notes),
    down: faceLook(turnBlank(work.blank, 'rollOver'), notes, -1),
    ...(good ? { goodFace: (good === 'up') !== faceDown ? ('up' as const) : ('down' as const) } : {}),
  };
}

/** What a strip shows as it is laid. */
export function laidFace(look: StripLook, laid: { endForEnd?: boolean; rollOver?: boolean }): FaceLook {
  const face = laid.rollOver ? look.down : look.up;
  return laid.endForEnd ? endForEnd(face) : face;
}

const known = new WeakMap<Timeline, Map<string, JointReading[]>>();

/**
 * Readings of all joints of a lay-up of strips, from the far edge to the near one; empty for any other step. Read once
 * for a run: the bench and the review ask for the same.
 */
export function jointReadings(build: BuildDocument, timeline: Timeline, stepId: string): JointReading[] {
  const ofRun = known.get(timeline) ?? new Map<string, JointReading[]>();
  known.set(timeline, ofRun);
  const readings = ofRun.get(stepId) ?? readAll(build, timeline, stepId);
  ofRun.set(stepId, readings);
  return readings;
}

function readAll(build: BuildDocument, timeline: Timeline, stepId: string): JointReading[] {
  const found = stripsOf(build, timeline, stepId);
  if (!found) return [];
  const { laid, works, slots } = found;
  const strips = laid.map((part) => {
    const strip = stripLook(build, works.get(part.piece) as WorkPiece, slots.get(part.piece));
    return { strip, look: laidFace(strip, part), part };
  });
  return strips.slice(1).map((near, i) => {
    const far = strips[i];
    return {
      between: [far.part.piece, near.part.piece],
      at: far.part.min[1],
      ...readJoint(far, near),
    };
  });
}
