import type { JointEdge, Phrase } from '../document';
import { gluingOf, type ShopSnapshot } from '../kit';
import { counted, falling, inTurn } from '../units';
import { type ClampPlan, elasticStack } from './clampplan';
import { type GlueUp, planeOfCourse } from './glueup';
import {
  evenLayout,
  forceToClose,
  gapOf,
  type LinePressure,
  type LineReading,
  placeOf,
  press,
  type PressCase,
  type Pressed,
  pressQuickly,
  pressureToClose,
  readLine,
  strokesTo,
} from './pressure';

/** Pressure along one glue line and what it means. */
export interface JointPressure extends LineReading {
  joint: number;
  x: number[];
  mpa: number[];
  /** What a maker would say of it. */
  phrase: Phrase[];
  /** What the measured gap of the edges eats up before anything presses: MPa along a wave, N for one hollow. */
  closing?: { mpa?: number; newtons?: number; sharePct: number };
  edge: Pick<JointEdge, 'shape'> & { depthMm: number };
}

/** Pressure along all lines of a glue-up under its clamps. */
export interface PressureAnswer {
  joints: JointPressure[];
  /** The joint with the least pressure over its mean. */
  worst?: number;
  coarse: boolean;
  settled: boolean;
  /** Answered by the quick model, while the solver is still at it. */
  quick: boolean;
  /** Even squeeze-out could be had by turning the order: wide boards outside. */
  wideOutside: boolean;
  /** The best even layout of as many clamps: its first clamp's place and worst least over mean. */
  best?: { first: number; places: number[]; leastOverMean: number };
}

/** The edges of a joint as noted, or as the shop makes them. */
export function edgeOf(glueUp: GlueUp, joint: number, shop: ShopSnapshot): JointEdge {
  const noted = glueUp.step.plan?.edges?.find((edge) => edge.joint === joint);
  const practice = gluingOf(shop);
  return (
    noted ??
    (practice.edges === 'sprung'
      ? { joint, shape: 'sprung', depth: practice.hollow }
      : { joint, shape: 'straight', depth: { mm: 0 } })
  );
}

/** The case the solver is given: boards and cauls, clamps with their pads, and the gaps of the edges. */
export function pressCase(
  glueUp: GlueUp,
  plan: ClampPlan,
  shop: ShopSnapshot,
): { given: PressCase; lead: number } {
  const practice = gluingOf(shop);
  const stack = elasticStack(glueUp, plan.edgeCaulMm, practice.cauls.species, plan.padMm);
  const lead = plan.edgeCaulMm > 0 ? 1 : 0;
  const gaps = Array.from({ length: stack.boards.length - 1 }, (_, l) => {
    if (!stack.lines.includes(l)) return undefined;
    const { shape, depth, wave } = edgeOf(glueUp, l - lead + 1, shop);
    return gapOf({ shape, depthMm: depth.mm, ...(wave ? { waveMm: wave.mm } : {}) }, glueUp.lengthMm);
  });
  // Two clamps one behind the other press as one on a deep joint: the plane has no depth of its own.
  const clamps = plan.clamps.map(({ at, forceN, set }) => ({
    at,
    force: forceN,
    pad: set?.padLength.mm ?? stack.pad,
  }));
  return {
    given: { length: stack.length, thickness: stack.thickness, boards: stack.boards, clamps, gaps },
    lead,
  };
}

const words: Record<LineReading['words'], string> = {
  even: 'even squeeze-out',
  'a little uneven': 'a little uneven',
  uneven: 'uneven squeeze-out',
  open: 'squeeze-out where it is closed',
};

/** What the ends of a joint are called, by the axis it runs along: as the bench shows the piece. */
const ENDS = [
  ['left', 'right'],
  ['near', 'far'],
  ['lower', 'upper'],
] as const;

/** In words first: how even, and where it is open or lean and for how long. */
export function pressurePhrase(
  reading: LineReading,
  length: number,
  ends: readonly [string, string] = ['left', 'right'],
): Phrase[] {
  const out: Phrase[] = [words[reading.words]];
  const named = reading.stretches
    .filter(({ from, to }) => to - from > 1)
    .toSorted(
      inTurn(
        falling(({ state }) => Number(state === 'open')),
        falling(({ from, to }) => to - from),
      ),
    );
  const { stretches } = reading;
  if (stretches.length > 4) {
    const open = named.filter(({ state }) => state === 'open');
    const list = open.length > 0 ? open : named;
    const total = list.reduce((sum, { from, to }) => sum + to - from, 0);
    return [
      ...out,
      `, ${open.length > 0 ? 'open' : 'lean'} in ${counted(list.length, 'place')}, `,
      { mm: total },
      ' in all',
    ];
  }
  for (const stretch of named.slice(0, 2)) {
    out.push(`, ${stretch.state === 'open' ? 'open' : 'lean'} for `, { mm: stretch.to - stretch.from });
    const place = placeOf(stretch, length, ends);
    if (place === 'between') out.push(' from ', { mm: stretch.from });
    else out.push(` ${place}`);
  }
  return out;
}

function closingOf(
  glueUp: GlueUp,
  joint: number,
  plan: ClampPlan,
  shop: ShopSnapshot,
): JointPressure['closing'] {
  const { shape, depth, wave } = edgeOf(glueUp, joint, shop);
  const [a, b] = [glueUp.courses[joint - 1], glueUp.courses[joint]];
  if (depth.mm <= 0 || shape === 'straight' || !a || !b) return undefined;
  const boards = [a, b].map((course) => ({ width: course.to - course.from, wood: planeOfCourse(course) }));
  const line = glueUp.lines.find((each) => each.joint === joint);
  const mean = line && line.areaMm2 > 0 ? plan.totalN / line.areaMm2 : 0;
  if (shape === 'wavy') {
    const mpa = pressureToClose(depth.mm / 2, wave?.mm ?? 200, boards[0], boards[1]);
    return { mpa, sharePct: mean > 0 ? (100 * mpa) / mean : 0 };
  }
  const newtons = forceToClose(depth.mm, glueUp.lengthMm, glueUp.heightMm, [boards[0], boards[1]]);
  return { newtons, sharePct: plan.totalN > 0 ? (100 * newtons) / plan.totalN : 0 };
}

function answer(
  glueUp: GlueUp,
  plan: ClampPlan,
  shop: ShopSnapshot,
  { lead, lines }: { lead: number; lines: readonly LinePressure[] },
): JointPressure[] {
  return glueUp.lines.map(({ joint }) => {
    const line = lines[joint - 1 + lead];
    const reading = readLine(line, plan.wantedMPa);
    const closing = closingOf(glueUp, joint, plan, shop);
    const { shape, depth } = edgeOf(glueUp, joint, shop);
    return {
      ...reading,
      joint,
      x: [...line.x],
      mpa: [...line.pressure],
      phrase: pressurePhrase(reading, glueUp.lengthMm, ENDS[glueUp.axes.run]),
      ...(closing ? { closing } : {}),
      edge: { shape, depthMm: depth.mm },
    };
  });
}

const worstJoint = (joints: readonly JointPressure[]): number | undefined =>
  joints.reduce<JointPressure | undefined>(
    (worst, each) => (worst && worst.leastOverMean <= each.leastOverMean ? worst : each),
    undefined,
  )?.joint;

/** Whether a course inside is clearly wider than one outside: then order would help. */
function wideOutside({ courses }: GlueUp): boolean {
  const widths = courses.map(({ from, to }) => to - from);
  const outer = Math.min(widths[0], widths[widths.length - 1]);
  return widths.length > 2 && Math.max(...widths.slice(1, -1)) > 1.15 * outer;
}

/** A quick picture while a clamp is dragged: milliseconds, peaks within 12 %. */
export function pressureQuickly(glueUp: GlueUp, plan: ClampPlan, shop: ShopSnapshot): PressureAnswer {
  const { given, lead } = pressCase(glueUp, plan, shop);
  const joints = answer(glueUp, plan, shop, { lead, lines: pressQuickly(given) });
  return {
    joints,
    ...(joints.length > 0 ? { worst: worstJoint(joints) } : {}),
    coarse: true,
    settled: true,
    quick: true,
    wideOutside: wideOutside(glueUp),
  };
}

/** The solver's answer; `start` is a former one of the same stack. With `best`, the best even layout is searched too. */
export function pressureOf(
  glueUp: GlueUp,
  plan: ClampPlan,
  shop: ShopSnapshot,
  { start, best = false }: { start?: Pressed; best?: boolean } = {},
): PressureAnswer & { pressed: Pressed } {
  const { given, lead } = pressCase(glueUp, plan, shop);
  const pressed = press(given, start);
  const joints = answer(glueUp, plan, shop, { lead, lines: pressed.lines });
  const { clamps: _, ...stack } = given;
  const lines = glueUp.lines.map(({ joint }) => joint - 1 + lead);
  return {
    joints,
    ...(joints.length > 0 ? { worst: worstJoint(joints) } : {}),
    coarse: pressed.coarse,
    settled: pressed.settled,
    quick: false,
    wideOutside: wideOutside(glueUp),
    ...(best && lines.length > 0
      ? { best: evenLayout({ ...stack, gaps: undefined }, Math.max(1, plan.stations), plan.padMm, lines) }
      : {}),
    pressed,
  };
}

/** How many strokes bring one edge's measured hollow to this shop's, and where they go; each edge does half the joint. */
export function strokesFor(measuredMm: number, shop: ShopSnapshot): ReturnType<typeof strokesTo> {
  const practice = gluingOf(shop);
  const wanted = practice.edges === 'sprung' ? practice.hollow.mm / 2 : 0;
  return strokesTo(measuredMm, wanted, practice.shaving.mm);
}
