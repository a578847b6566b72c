import { greatestSize } from './sizes';
import type { BuildDocument, Step } from '../document';
import { type DialReads, limitOf, machineFacts, paceOf } from '../kit';
import { countNeeded, roundToStep, roundUpToStep, sumOf } from '../units';
import { extents } from '../solid';
import { machineOfStep, roomOf } from './list';
import { biteOf, passesOf } from './passes';
import type { TimelineStep } from './timeline';

/** One pass: what the machine is set to, and what comes off then. */
export interface Pass {
  /** What its dial shows: the piece and the carrier under it, mm. */
  settingMm: number;
  /** Off the thickest piece, mm. */
  takesMm: number;
  /** How far its crank is turned from the pass before, or from where it touches; missing where nobody said what a turn moves. */
  turns?: number;
}

/** How one face is brought down. */
export interface FacePasses {
  face: 'upper' | 'lower';
  passes: Pass[];
}

/** The passes of a step that brings pieces to thickness on a machine that is set. */
export interface PassPlan {
  machine: string;
  /** How its scale reads; as the shop does if missing. */
  reads?: DialReads;
  /** Where the machine just touches the thickest piece, carrier and all, mm. */
  startMm: number;
  carrierMm: number;
  faces: FacePasses[];
  /** Pieces that are too thin to be touched on every face: their numbers among what goes in, and how much wood is missing, mm. */
  thin: { piece: number; missingMm: number }[];
  /** What its knives meet here, what they have met since they were fresh, and how much a set meets before it is worn, mm; missing where nobody said. */
  knives?: { meetsMm: number; ranMm: number; lastsMm: number };
}

/** Why there are no settings: one step of the dial is more than the machine takes in a pass, or so little comes off that nobody would. */
export interface NoPasses {
  stepMm: number;
  biteMm: number;
  /** How far a turn of the crank moves, mm; 0 where nobody said. */
  pitchMm: number;
  /** It would be more passes than this. */
  most?: number;
}
export const isNoPasses = (plan: PassPlan | NoPasses): plan is NoPasses => !('faces' in plan);

/** Settings nearer than this are one, mm. */
const SAME_MM = 1e-6;
/** The most passes that are listed: more are no plan for a planer. */
const MOST_PASSES = 400;

/** What a machine is set by. */
export interface Dial {
  /** Most it takes in a pass, mm; 0 where there is no limit. */
  biteMm: number;
  /** Finest step of its dial, mm; 0 where it goes anywhere. */
  stepMm: number;
  /** What the passes before the last are rounded to where it has no dial, mm. */
  roundMm?: number;
  /** What a turn of its crank moves, mm; 0 where nobody said. */
  pitchMm: number;
  /** It first goes through where it only touches. */
  touch?: boolean;
}

/**
 * Settings that take so much off one face, from where the machine touches: each takes no more than the bite, the last
 * what is left, within half a step of the dial of what was asked. Undefined where the finest step is more than a pass may take.
 */
export function passesDown(
  startMm: number,
  offMm: number,
  { biteMm, stepMm, roundMm = 0, pitchMm, touch }: Dial,
): Pass[] | undefined {
  if (!(offMm > SAME_MM)) return [];
  // Where nobody said how fine it is set, the shop's own step counts, unless that is more than a pass.
  const between = stepMm > 0 ? stepMm : roundMm < biteMm ? roundMm : 0;
  const last = roundToStep(startMm - offMm, stepMm);
  const passes: Pass[] = touch ? [{ settingMm: roundUpToStep(startMm, stepMm), takesMm: 0 }] : [];
  let at = startMm;
  while (at > last + SAME_MM) {
    const next = biteMm > 0 ? Math.max(last, roundUpToStep(at - biteMm, between)) : last;
    if (next > at - SAME_MM) return undefined;
    passes.push({
      settingMm: next,
      takesMm: at - next,
      ...(pitchMm > 0 ? { turns: (at - next) / pitchMm } : {}),
    });
    at = next;
  }
  return passes;
}

/**
 * The passes of a step as its machine is dialled, one face after the other; undefined for a step that sets no thickness, or on a
 * machine without a dial. The thickest piece that goes in decides where it begins.
 */
export function passPlan(
  step: Step,
  entry: TimelineStep,
  build: BuildDocument,
): PassPlan | NoPasses | undefined {
  const machine = machineOfStep(step, build);
  const off = roomOf(step)
    .takesOff?.(step)
    .find(({ dimension }) => dimension === 'thickness');
  if (!machine || !off || machineFacts(machine).limits.dial === undefined || entry.entered.length === 0)
    return undefined;
  const carrierMm = (step as { carrier?: { mm: number } }).carrier?.mm ?? 0;
  const dial: Dial = {
    biteMm: biteOf(step, machine, entry.entered),
    stepMm: limitOf(machine, 'dial'),
    roundMm: build.shop.settingStep.mm,
    pitchMm: limitOf(machine, 'turn'),
  };
  const none = { stepMm: dial.stepMm, biteMm: dial.biteMm, pitchMm: dial.pitchMm };
  const thickness = entry.entered.map(({ blank }) => extents(blank)[2]);
  // What comes out is what the machine was set to last, whatever went in: from there the faces are counted back.
  const out = greatestSize(entry.pieces, 'thickness');
  const thickest = Math.max(...thickness);
  const startMm = thickest + carrierMm;
  const all = thickest - out;
  const lower = Math.min(off.min, all);
  if (dial.biteMm > 0 && all / dial.biteMm > MOST_PASSES) return { ...none, most: MOST_PASSES };
  const faces: FacePasses[] = [];
  let at = startMm;
  // Both faces are counted from the size to leave: what the dial rounds on the first does not add up on the second.
  for (const [face, left] of [
    ['upper', startMm - (all - lower)],
    ['lower', startMm - all],
  ] as const) {
    const touch = faces.length === 0 && (step as { touch?: boolean }).touch === true;
    const passes = passesDown(at, at - left, { ...dial, touch });
    if (!passes) return none;
    if (passes.length > 0) faces.push({ face, passes });
    at = passes.at(-1)?.settingMm ?? at;
  }
  if (faces.length === 0) return undefined;
  const lastsMm = 1000 * (machine.knivesLastM ?? 0);
  const count = sumOf(faces, ({ passes }) => passes.length);
  return {
    ...(lastsMm > 0
      ? {
          knives: {
            meetsMm: count * sumOf(entry.entered, ({ blank }) => extents(blank)[0]),
            ranMm: 1000 * (machine.knivesRanM ?? 0),
            lastsMm,
          },
        }
      : {}),
    machine: machine.name,
    ...(machine.reads ? { reads: machine.reads } : {}),
    startMm,
    carrierMm,
    faces,
    thin: thickness.flatMap((mm, i) =>
      mm < out + lower - SAME_MM ? [{ piece: i + 1, missingMm: out + lower - mm }] : [],
    ),
  };
}

/** What becomes of a chamfer under the passes of one face: with which pass it is gone, and what is left of it, or lacks, mm. */
export interface ChamferLasts {
  goneWith?: number;
  overMm: number;
}

/** Whether a chamfer outlasts what passes take: it is gone with the pass that reaches its depth. */
export function chamferLasts(chamferMm: number, passes: readonly Pick<Pass, 'takesMm'>[]): ChamferLasts {
  let off = 0;
  let goneWith: number | undefined;
  passes.forEach(({ takesMm }, i) => {
    off += takesMm;
    if (goneWith === undefined && off >= chamferMm - SAME_MM) goneWith = i + 1;
  });
  return { ...(goneWith === undefined ? {} : { goneWith }), overMm: chamferMm - off };
}

/**
 * How often pieces go over the machine of a step as it was played: as its dial has it, or, where it has none, as the bite asks.
 * Undefined for a step that takes nothing off in passes.
 */
export function passCount(step: Step, entry: TimelineStep, build: BuildDocument): number | undefined {
  const plan = passPlan(step, entry, build);
  if (plan && !isNoPasses(plan)) return sumOf(plan.faces, ({ passes }) => passes.length);
  return passesOf(step, biteOf(step, machineOfStep(step, build), entry.entered));
}

/** Minutes to pack a piece for another shop and to look it over when it is back, a guess. */
const AWAY_MIN = 60;
/** Minutes at each pass beside the travel itself: setting, feeding, catching; a guess. */
const PASS_MIN = 0.5;
/** A surfacing bit of most small shops, mm; and the share of its width that is new wood on each track (common practice: two thirds). */
const USUAL_BIT_MM = 38;
const STEP_OVER = 2 / 3;

/** How a machine goes over the faces of a step's largest piece: tracks side by side, each so long, mm; the piece is so wide. */
export interface Travel {
  tracks: number;
  longMm: number;
  wideMm: number;
  /** From track to track, mm; of a bit, its diameter too. */
  stepMm: number;
  bitMm?: number;
  mmPerMin: number;
}

/** Tracks over a face, by the width of what cuts: undefined of a machine that says nothing of it, or a step that works no faces. */
export function travelOf(step: Step, entry: TimelineStep, build: BuildDocument): Travel | undefined {
  const machine = machineOfStep(step, build);
  const travel = machine && machineFacts(machine).travel;
  if (!travel || roomOf(step).machining?.work !== 'flatten' || entry.entered.length === 0) return undefined;
  const sizes = entry.entered.map(({ blank }) => extents(blank));
  const { runners = { mm: 0 }, ends = { mm: 0 } } = step as {
    runners?: { mm: number };
    ends?: { mm: number };
  };
  const longMm = Math.max(...sizes.map((size) => size[0])) + 2 * ends.mm;
  const wideMm = Math.max(...sizes.map((size) => size[1])) + 2 * runners.mm;
  const bits = (build.shop.bits ?? [])
    .filter(({ kind }) => kind === 'surfacing')
    .map(({ diameter }) => diameter.mm);
  const bitMm = Math.max(0, ...bits) || USUAL_BIT_MM;
  const stepMm =
    travel.wideMm === 'all' ? wideMm : travel.wideMm === 'bit' ? STEP_OVER * bitMm : travel.wideMm;
  return {
    tracks: Math.max(1, countNeeded(wideMm / stepMm)),
    longMm,
    wideMm,
    stepMm,
    ...(travel.wideMm === 'bit' ? { bitMm } : {}),
    mmPerMin: travel.mmPerMin,
  };
}

/** Minutes of one pass over one face; undefined where nothing is known of how the machine goes. */
function passMinutes(step: Step, entry: TimelineStep, build: BuildDocument): number | undefined {
  const travel = travelOf(step, entry, build);
  return travel && PASS_MIN + (travel.tracks * travel.longMm) / travel.mmPerMin;
}

/** Minutes that a step asks of hands for so many pieces, one pair of hands: set up once, each piece handled, and each pass. */
export function handMinutes(
  step: Step,
  entry: TimelineStep | undefined,
  { build, pieces, times }: { build: BuildDocument; pieces: number; times: number },
): number {
  const { setUp, each, pass, fixed, more, minutes: byPieces } = roomOf(step).labour;
  const own = entry && byPieces?.(step, entry.pieces);
  const pace = paceOf(build.shop, step.kind);
  if (own !== undefined) return pace * times * own;
  if (fixed) return pace * times * fixed(step);
  const machine = machineOfStep(step, build);
  if (machine && machineFacts(machine).away) return AWAY_MIN;
  const passing =
    entry && pass ? (passCount(step, entry, build) ?? 0) * (passMinutes(step, entry, build) ?? pass) : 0;
  return pace * (setUp + (each + (more?.(step) ?? 0) + passing) * pieces);
}
