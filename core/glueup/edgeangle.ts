import { sumOf } from '../units';
import { type BuildDocument, type EdgePairing, makersOf, sawIdOf, type Step } from '../document';
import { gluingOf } from '../kit';
import { machineOfStep, roomOf } from '../steps';
import type { GlueUp } from './glueup';

/** What an error of the fence or the blade makes of a glue-up, its joints all off the same way: the worst case. */
export interface EdgeAngles {
  /** The saw or machine that made the edges, and how far it may be off a right angle, degrees. */
  tool: string;
  errorDeg: number;
  /** Each joint, with how its edges were planed, and how far it turns the wood beside it, degrees. */
  joints: { joint: number; pairing: EdgePairing; deg: number }[];
  /** All joints together, degrees. */
  totalDeg: number;
  /** How far the middle then lies below or above the line from edge to edge, mm. */
  hollowMm: number;
}

/** A joint of two edges off by e turns by 2e; by nothing where the pair was folded or its faces opposed (common practice). */
export const jointDegrees = (errorDeg: number, pairing: EdgePairing): number =>
  pairing === 'single' ? 2 * errorDeg : 0;

/** How the edges of a joint are planed: as it was noted, or as the shop does. */
export const pairingOf = (
  { step }: Pick<GlueUp, 'step'>,
  joint: number,
  shop: BuildDocument['shop'],
): EdgePairing =>
  step.plan?.pairs?.find((each) => each.joint === joint)?.how ?? gluingOf(shop).pairing ?? 'single';

/** The step that made the edges that meet in a glue-up: the last before it that takes from the width, or cut it from wood. */
const edgesFrom = (build: BuildDocument, { step }: GlueUp): Step | undefined => {
  for (const each of makersOf(build, step.inputs[0] ?? '')) {
    const { takesOff, flow, sawing } = roomOf(each);
    const off = takesOff?.(each).find(({ dimension }) => dimension === 'width');
    if (off && off.min + off.max > 0) return each;
    if (flow.source || (sawing && flow.divides)) return each;
  }
  return undefined;
};

/**
 * How far a row of flat boards is hollow whose joints each turn the same way: the deepest of its corners below the line
 * from edge to edge, mm. `widths` in mm; `degrees` one less than widths.
 */
export function hollowOfTurns(widths: readonly number[], degrees: readonly number[]): number {
  // Laid out from the first board on, then turned until both edges lie on a line.
  let [x, y, tilt] = [0, 0, 0];
  const corners: [number, number][] = [[0, 0]];
  widths.forEach((width, i) => {
    x += width * Math.cos(tilt);
    y += width * Math.sin(tilt);
    corners.push([x, y]);
    tilt += ((degrees[i] ?? 0) * Math.PI) / 180;
  });
  const long = Math.hypot(x, y) || 1;
  return Math.max(0, ...corners.map(([cx, cy]) => Math.abs(cx * y - cy * x) / long));
}

/** What the edges' angle makes of a glue-up; undefined where nobody said how far the tool is off, or it has no joint. */
export function edgeAngles(build: BuildDocument, glueUp: GlueUp): EdgeAngles | undefined {
  const from = edgesFrom(build, glueUp);
  const tool = from && (machineOfStep(from, build) ?? build.shop.saws.find(({ id }) => id === sawIdOf(from)));
  const errorDeg = tool?.offSquare ?? 0;
  if (!tool || !(errorDeg > 0) || glueUp.lines.length === 0 || glueUp.axes.depth !== 2) return undefined;
  const joints = glueUp.lines.map(({ joint }) => {
    const pairing = pairingOf(glueUp, joint, build.shop);
    return { joint, pairing, deg: jointDegrees(errorDeg, pairing) };
  });
  return {
    tool: tool.name,
    errorDeg,
    joints,
    totalDeg: sumOf(joints, ({ deg }) => deg),
    hollowMm: hollowOfTurns(
      glueUp.courses.map(({ from: a, to: b }) => b - a),
      joints.map(({ deg }) => deg),
    ),
  };
}
