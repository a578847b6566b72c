import { type BuildDocument, DIMENSIONS, type Edit, type Phrase } from '../../document';
import { mustEdit } from '../../edit';
import { AID_KINDS, climateOf, glueTimes, gluingOf, machineFacts, type WideWay } from '../../kit';
import { flatteners } from '../../plan';
import { run } from '../../run';
import { blankVolume, extents } from '../../solid';
import {
  flattenAfter,
  glueUps,
  machineOfStep,
  noiseOf,
  roomOf,
  stepName,
  type Timeline,
  type TimelineStep,
} from '../../steps';
import { counted, countNeeded, roundUpToStep, sumOf } from '../../units';
import { gatesOf } from '../adhesive';
import { layAids } from '../aids';
import { adhesiveFor, planClamps } from '../clampplan';
import { type GlueUp, glueUpsOf } from '../glueup';
import { crewOf, rehearse } from '../pace';
import { aidsOf, splitEdit } from './machining';
import { conflictsOf, type Panel, panelOf, type SplitReason, splitReasons } from './reasons';
import { evenCounts, jointsOf, splitStrips } from './split';

/** One sensible way to glue up a wide panel. */
export interface StageWay {
  way: WideWay | 'asOne';
  name: string;
  /** Strips in each glue-up of the first stage. */
  counts: number[];
  joints: number[];
  glueUps: number;
  days: number;
  clamps: number;
  /** Area flattened by hand or with a sled, mm2. */
  handMm2: number;
  /** Wood jointed away between sections and flattened off the joined panel, mm3. */
  lostMm3: number;
  /** The greatest share of the glue's time any of its glue-ups uses. */
  timeShare: number;
  /** Joints that no machine of the shop can make flush any more. */
  notFlush: number;
  /** Lifts above the shop's limit, kg of the heaviest. */
  heaviestKg: number;
  tooHeavy: boolean;
  priceMinor?: number;
  /** What stands against it, with numbers; a way with a wall cannot be done here. */
  walls: Phrase[][];
  edit?: Edit;
}

/** The ways a panel of strips can be glued up, and why it should be split at all. */
export interface Staging {
  reasons: SplitReason[];
  ways: StageWay[];
  /** Wishes that exclude one another, with the ways out. */
  conflicts: Phrase[][];
}

/** Either side of a joint that is not flush a band is planed by hand, mm in all (common practice). */
const STEP_BAND = 60;
const DAY_H = 24;
/** Less wood than this is the noise of arithmetic, mm3. */
const LEAST_LOSS_MM3 = 1;

/** Days a way takes: each stage waits for its clamps and, before it is machined, for the joint to settle. */
function daysOf(stages: number, glueUps: number, panel: Panel, extra: number): number {
  const { shop, glueUp } = panel;
  const facts = adhesiveFor(glueUp, shop);
  const gates = gatesOf(facts && glueTimes(facts, climateOf(shop)), shop);
  const benches = Math.max(1, gluingOf(shop).benches);
  const rounds = countNeeded(glueUps / benches);
  return (stages * gates.surfaceH + Math.max(0, rounds - 1) * gates.unclampH) / DAY_H + extra;
}

/** A way before it is played: what it is called, where it splits, and the edit that carries it out. */
interface Plan {
  way: StageWay['way'];
  name: string;
  counts: number[];
  edit?: Edit;
}

/** Wood that a played build loses: what goes in, less the piece and what no step used. mm3. */
const lossOf = (timeline: Timeline): number =>
  timeline.woodInMm3 - sumOf(timeline.finished?.pieces ?? [], ({ blank }) => blankVolume(blank));

/** The glue-ups of a build that another one has not, and the one that both have. */
const ownGlueUps = (
  build: BuildDocument,
  timeline: Timeline,
  before: BuildDocument,
  join: string,
): GlueUp[] => {
  const old = new Set(before.steps.map(({ id }) => id));
  return glueUpsOf(build, timeline).filter(({ step }) => step.id === join || !old.has(step.id));
};

/** What a machine cannot take of what enters its step, in words with the numbers. */
function limitsOf(build: BuildDocument, entry: TimelineStep): Phrase[][] {
  const step = build.steps.find(({ id }) => id === entry.id);
  const machining = step && roomOf(step).machining;
  if (!step || !machining || machining.over === 'both') return [];
  const machine = machineOfStep(step, build);
  if (!machine) return [];
  const sizes = entry.entered.map(({ blank }) => extents(blank));
  const widest = Math.max(...sizes.map(([, w]) => w));
  const shortest = Math.min(...sizes.map(([l]) => l));
  const out: Phrase[][] = [];
  if (machining.over === 'faces' && machine.maxWidth.mm > 0 && widest > machine.maxWidth.mm)
    out.push([
      `${stepName(step)}: `,
      { mm: widest },
      ` wide, and ${machine.name} takes `,
      { mm: machine.maxWidth.mm },
      '.',
    ]);
  if (shortest < machine.minLength.mm)
    out.push([
      `${stepName(step)}: `,
      { mm: shortest },
      ` long, and ${machine.name} needs `,
      { mm: machine.minLength.mm },
      '.',
    ]);
  return out;
}

/** Area that is flattened by hand or with a sled: whole faces, or with planes only beside joints of flat sections. */
function byHand(build: BuildDocument, timeline: Timeline, glueUp: GlueUp, joints: number): number {
  const own = timeline.steps.find(({ id }) => id === flattenAfter(build, glueUp.step)?.id);
  const step = build.steps.find(({ id }) => id === own?.id);
  const machine = step && machineOfStep(step, build);
  const byHand = machine && machineFacts(machine).byHand;
  if (!own || !byHand) return 0;
  if (byHand === 'places' && joints > 0) return 2 * joints * STEP_BAND * glueUp.lengthMm;
  return 2 * sumOf(own.entered, ({ blank }) => extents(blank)[0] * extents(blank)[1]);
}

/** Plays a way forward and reads its column off what comes: a way, once chosen, is what it promised. */
function playWay(panel: Panel, build: BuildDocument, before: Timeline, plan: Plan): StageWay {
  const { glueUp, shop, widths } = panel;
  const after = plan.edit ? mustEdit(build, plan.edit) : build;
  const timeline = plan.edit ? run(after, before) : before;
  const glueUps = ownGlueUps(after, timeline, build, glueUp.step.id);
  const joined = glueUps.find(({ step }) => step.id === glueUp.step.id) ?? glueUp;
  const split = plan.counts.length > 1;
  const clamps = glueUps.map((each) => planClamps(each, shop));
  const shares = glueUps.map((each, i) => {
    const { openShare, closedShare } = rehearse(each, clamps[i], layAids(after, timeline, each), shop);
    return Math.max(openShare, closedShare);
  });
  const timeShare = Math.max(0, ...shares);
  const lift = gluingOf(shop).liftKg * crewOf(glueUp, shop).hands;
  const wide = sumOf(widths) > panel.planerMm + 1e-6;
  const handMm2 =
    plan.way === 'paid' ? 0 : byHand(after, timeline, joined, split ? plan.counts.length - 1 : 0);
  const flat = flattenAfter(after, joined.step);
  const last = shop.machines.find(({ id }) => id === flat?.machine);
  const walls: Phrase[][] = [];
  if (plan.way !== 'paid')
    walls.push(
      // The steps that came with the way, and the one that flattens what it gives.
      ...timeline.steps
        .filter(({ id }) => id === flat?.id || !build.steps.some((step) => step.id === id))
        .flatMap((entry) => limitsOf(after, entry)),
    );
  const stopped = timeline.problems.find(({ severity }) => severity === 'stop');
  if (stopped) walls.push(stopped.message);
  walls.push(...sizeLost(build, before, timeline));
  if (timeShare > 1)
    walls.push([`The longest glue-up takes ${Math.round(timeShare * 100)} % of what the glue gives.`]);
  const short = clamps.find(({ missing }) => missing > 0);
  if (short)
    walls.push([`${counted(short.clamps.length, 'clamp')} wanted, ${short.longEnough} long enough.`]);
  const lost = lossOf(timeline) - lossOf(before);
  const heaviestKg = Math.max(...glueUps.map(({ massKg }) => massKg), 0);
  return {
    way: plan.way,
    name: plan.name,
    counts: plan.counts,
    joints: jointsOf(plan.counts),
    glueUps: glueUps.length,
    days: daysOf(
      split ? 2 : 1,
      glueUps.length,
      panel,
      plan.way === 'paid' ? (gluingOf(shop).paid?.days ?? 7) : 0,
    ),
    clamps: Math.max(0, ...clamps.map((each) => each.clamps.length)),
    handMm2,
    lostMm3: lost < LEAST_LOSS_MM3 ? 0 : lost,
    timeShare,
    notFlush:
      wide && plan.way !== 'paid' && (!flat || (last && machineFacts(last).byHand === 'places'))
        ? split
          ? plan.counts.length - 1
          : glueUp.lines.length
        : 0,
    heaviestKg,
    tooHeavy: heaviestKg > lift,
    walls,
    ...(plan.edit ? { edit: plan.edit } : {}),
  };
}

/** A way that makes the piece smaller than it would be now says by how much. */
function sizeLost(build: BuildDocument, before: Timeline, after: Timeline): Phrase[][] {
  if (!before.finished || !after.finished) return [];
  const noise = noiseOf(build.shop);
  return DIMENSIONS.flatMap((name, a) => {
    const less = (before.finished?.least[a] ?? 0) - (after.finished?.least[a] ?? 0);
    return less > noise ? [[`The ${name} comes out `, { mm: less }, ' less.']] : [];
  });
}

/**
 * Compares the ways to glue up strips laid along the width: all at once with a router sled or hand planes, sections
 * that pass the planer, pairs that are joined with aids, and a paid wide machine. Splits fall on joints. Every way is
 * played forward and its column read off it. Undefined for a glue-up of other things or of fewer than three strips.
 */
export function stagingOf(build: BuildDocument, timeline: Timeline, glueUp: GlueUp): Staging | undefined {
  if (glueUp.axes.press !== 1 || glueUp.courses.length < 3 || glueUp.askew) return undefined;
  const panel = panelOf(build, timeline, glueUp);
  const { widths, planerMm, shop } = panel;
  const reasons = splitReasons(panel);
  const n = widths.length;
  const whole = asOne(build, glueUp, n);
  const plans: Plan[] = [whole];
  // What jointing takes is added to the outer strips of a section: it must pass the planer with that.
  const edge = 2 * roundUpToStep(panel.edgeLossMm, shop.settingStep.mm);
  const counts = planerMm > edge ? splitStrips(widths, planerMm - edge) : undefined;
  if (counts && counts.length > 1 && counts.some((count) => count > 1))
    plans.push({
      way: 'sections',
      name: `${counts.length} sections through the planer, then join`,
      counts,
      edit: splitEdit(shop, glueUp, jointsOf(counts), { machined: true }),
    });
  if (n >= 4) {
    const pairs = evenCounts(n, Math.ceil(n / 2));
    const aids = aidsOf(shop);
    plans.push({
      way: 'pairs',
      name: `Pairs, then join with ${AID_KINDS.find(({ id }) => id === aids)?.name.toLowerCase() ?? aids}`,
      counts: pairs,
      // Joined it is as wide as it was: what flattens it must take that, as it must all at once.
      edit: {
        do: 'many',
        edits: [
          splitEdit(shop, glueUp, jointsOf(pairs), { machined: false, aids }),
          ...(whole.edit ? [whole.edit] : []),
        ],
      },
    });
  }
  const glues = (each: BuildDocument) => glueUps(each).length;
  const canSplit = ({ edit, counts: runs }: Plan) =>
    !edit || runs.length < 2 || glues(mustEdit(build, edit)) > glues(build);
  const ways = plans.filter(canSplit).map((plan) => playWay(panel, build, timeline, plan));
  const { paid } = gluingOf(shop);
  if (paid && sumOf(widths) > planerMm) {
    const way = playWay(panel, build, timeline, {
      way: 'paid',
      name: 'All at once, paid wide machine',
      counts: [n],
    });
    if (sumOf(widths) > paid.maxWidth.mm)
      way.walls.push([
        'It is ',
        { mm: sumOf(widths) },
        ' wide; that machine takes ',
        { mm: paid.maxWidth.mm },
        '.',
      ]);
    ways.push({ ...way, priceMinor: paid.priceMinor, notFlush: 0 });
  }
  return { reasons, ways, conflicts: conflictsOf(panel, counts) };
}

/** All at once: as it is planned, or with the first machine of the shop that takes the whole of it. */
function asOne(build: BuildDocument, glueUp: GlueUp, parts: number): Plan {
  const { shop } = build;
  const flat = flattenAfter(build, glueUp.step);
  const size = [glueUp.lengthMm, glueUp.widthMm, glueUp.heightMm] as const;
  const endGrain = glueUp.courses.some(({ grain }) => grain === 'upright');
  const now = shop.machines.find(({ id }) => id === flat?.machine);
  const takers = flatteners(shop, [...size], endGrain);
  const taker = now && takers.includes(now) ? now : (takers[0] ?? now);
  const name = `All at once${taker ? `, ${taker.name.toLowerCase()}` : ''}`;
  const plan: Plan = { way: 'sled', name, counts: [parts] };
  if (!flat || !taker || taker.id === flat.machine) return plan;
  return { ...plan, edit: { do: 'useMachine', step: flat.id, machine: taker.id } };
}
