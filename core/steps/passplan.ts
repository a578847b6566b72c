import type { BuildDocument, Step } from '../document';
import { limitOf, machineFacts } from '../kit';
import { countNeeded } from '../units';
import { extents } from '../solid';
import { machineOfStep, roomOf } from './list';
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
  /** Where the machine just touches the thickest piece, carrier and all, mm. */
  startMm: number;
  carrierMm: number;
  faces: FacePasses[];
  /** Pieces that are too thin to be touched on every face: their numbers among what goes in, and how much wood is missing, mm. */
  thin: { piece: number; missingMm: number }[];
}

/** Why there are no settings: one step of the dial is more than the machine takes in a pass, or so little comes off that nobody would. */
export interface NoPasses {
  stepMm: number;
  biteMm: number;
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
}

const onStep = (mm: number, step: number): number =>
  step > 0 ? Number((Math.round(mm / step) * step).toFixed(9)) : mm;
/** The nearest setting that takes no more: rounded up. */
const upStep = (mm: number, step: number): number =>
  step > 0 ? Number((countNeeded(mm / step) * step).toFixed(9)) : mm;

/**
 * Settings that take so much off one face, from where the machine touches: each takes no more than the bite, the last
 * what is left, within half a step of the dial of what was asked. Undefined where the finest step is more than a pass may take.
 */
export function passesDown(
  startMm: number,
  offMm: number,
  { biteMm, stepMm, roundMm = 0, pitchMm }: Dial,
): Pass[] | undefined {
  if (!(offMm > SAME_MM)) return [];
  // Where nobody said how fine it is set, the shop's own step counts, unless that is more than a pass.
  const between = stepMm > 0 ? stepMm : roundMm < biteMm ? roundMm : 0;
  const last = onStep(startMm - offMm, stepMm);
  const passes: Pass[] = [];
  let at = startMm;
  while (at > last + SAME_MM) {
    const next = biteMm > 0 ? Math.max(last, upStep(at - biteMm, between)) : last;
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
    biteMm: limitOf(machine, 'bite'),
    stepMm: limitOf(machine, 'dial'),
    roundMm: build.shop.settingStep.mm,
    pitchMm: limitOf(machine, 'turn'),
  };
  const thickness = entry.entered.map(({ blank }) => extents(blank)[2]);
  // What comes out is what the machine was set to last, whatever went in: from there the faces are counted back.
  const out = Math.max(...entry.pieces.map(({ blank }) => extents(blank)[2]));
  const thickest = Math.max(...thickness);
  const startMm = thickest + carrierMm;
  const all = thickest - out;
  const lower = Math.min(off.min, all);
  if (dial.biteMm > 0 && all / dial.biteMm > MOST_PASSES)
    return { stepMm: dial.stepMm, biteMm: dial.biteMm, most: MOST_PASSES };
  const faces: FacePasses[] = [];
  let at = startMm;
  for (const [face, mm] of [
    ['upper', all - lower],
    ['lower', lower],
  ] as const) {
    const passes = passesDown(at, mm, dial);
    if (!passes) return { stepMm: dial.stepMm, biteMm: dial.biteMm };
    if (passes.length > 0) faces.push({ face, passes });
    at = passes.at(-1)?.settingMm ?? at;
  }
  if (faces.length === 0) return undefined;
  return {
    machine: machine.name,
    startMm,
    carrierMm,
    faces,
    thin: thickness.flatMap((mm, i) =>
      mm < out + lower - SAME_MM ? [{ piece: i + 1, missingMm: out + lower - mm }] : [],
    ),
  };
}
