import type { BuildDocument, Edit, Phrase, Timeline } from '../../build';
import { climateOf, glueTimes, gluingOf, type ShopSnapshot, type WideWay } from '../../kit';
import { countNeeded } from '../../units';
import { gatesOf } from '../adhesive';
import { layAids } from '../aids';
import { adhesiveFor, planClamps } from '../clampplan';
import type { GlueUp } from '../glueup';
import { crewOf, rehearse } from '../pace';
import { evenCounts, jointsOf, runsOf, splitStrips } from './split';

/** Why a piece is glued up in more than one stage, each with its number. */
export interface SplitReason {
  kind: 'planer' | 'openTime' | 'clamps' | 'weight' | 'shorter';
  words: Phrase[];
}

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

const sum = (values: readonly number[]): number => values.reduce((total, v) => total + v, 0);

/** What is known of the strips and the shop before any way is played. */
interface Panel {
  glueUp: GlueUp;
  shop: ShopSnapshot;
  widths: number[];
  planerMm: number;
  edgeLossMm: number;
  jointMin: number;
  fixedMin: number;
  closedMin: number;
  clamps: number;
  owned: number;
  kgPerMm: number;
}

function panelOf(build: BuildDocument, timeline: Timeline, glueUp: GlueUp): Panel {
  const { shop } = build;
  const plan = planClamps(glueUp, shop);
  const rehearsal = rehearse(glueUp, plan, layAids(build, timeline, glueUp), shop);
  const facts = adhesiveFor(glueUp, shop);
  const planers = shop.machines
    .filter(({ kind }) => kind === 'planer')
    .map(({ maxWidth }) => maxWidth.mm || Infinity);
  return {
    glueUp,
    shop,
    widths: glueUp.courses.map(({ from, to }) => to - from),
    planerMm: Math.max(0, ...planers),
    edgeLossMm: shop.allowances.jointEdge.mm,
    jointMin: (rehearsal.spreadMin + rehearsal.placeMin) / Math.max(1, glueUp.lines.length),
    fixedMin: rehearsal.clampMin,
    closedMin: facts ? glueTimes(facts, climateOf(shop)).closedMin : Infinity,
    clamps: plan.clamps.length,
    owned: plan.longEnough,
    kgPerMm: glueUp.massKg / glueUp.widthMm,
  };
}

/** Why a glue-up should be split, each with the number that says so. */
export function splitReasons(panel: Panel): SplitReason[] {
  const { glueUp, shop } = panel;
  const out: SplitReason[] = [];
  const width = sum(panel.widths);
  if (panel.planerMm > 0 && width > panel.planerMm && glueUp.axes.press === 1)
    out.push({
      kind: 'planer',
      words: ['It is ', { mm: width }, ' wide and the planer takes ', { mm: panel.planerMm }, '.'],
    });
  const needs = panel.jointMin * glueUp.lines.length + panel.fixedMin;
  if (needs > panel.closedMin)
    out.push({
      kind: 'openTime',
      words: [
        `${glueUp.lines.length} joints at this shop’s pace take `,
        { minutes: needs },
        '; the glue gives ',
        { minutes: panel.closedMin },
        '.',
      ],
    });
  if (panel.clamps > panel.owned)
    out.push({
      kind: 'clamps',
      words: [`It wants `, { count: panel.clamps }, ' clamps; ', { count: panel.owned }, ' are long enough.'],
    });
  out.push(...shorterStrip(glueUp));
  const { liftKg } = gluingOf(shop);
  const { hands } = crewOf(glueUp, shop);
  if (glueUp.massKg > liftKg * hands)
    out.push({
      kind: 'weight',
      words: ['It weighs ', { kg: glueUp.massKg }, '; this shop lifts ', { kg: liftKg * hands }, '.'],
    });
  return out;
}

/** A strip that ends farther short of the others than this gets no pressure at its end from theirs, mm. */
const SHORT = 20;

/** A strip that is shorter than its neighbours: its end wants clamps of its own, once the rest is glued. */
function shorterStrip({ lines, lengthMm }: GlueUp): SplitReason[] {
  const short = lines.reduce((most, { from, to }) => Math.max(most, lengthMm - (to - from)), 0);
  if (short <= SHORT) return [];
  return [
    {
      kind: 'shorter',
      words: [
        'A strip ends ',
        { mm: short },
        ' short of the others: glued in later, its end gets clamps of its own.',
      ],
    },
  ];
}

/** Either side of a joint that is not flush a band is planed by hand, mm in all (common practice). */
const STEP_BAND = 60;
const DAY_H = 24;

/** Days a way takes: each stage waits for its clamps and, before it is machined, for the joint to settle. */
function daysOf(stages: number, glueUps: number, panel: Panel, extra: number): number {
  const { shop, glueUp } = panel;
  const facts = adhesiveFor(glueUp, shop);
  const gates = gatesOf(facts && glueTimes(facts, climateOf(shop)), shop);
  const benches = Math.max(1, gluingOf(shop).benches);
  const rounds = countNeeded(glueUps / benches);
  return (stages * gates.surfaceH + Math.max(0, rounds - 1) * gates.unclampH) / DAY_H + extra;
}

function wayOf(
  panel: Panel,
  way: StageWay['way'],
  name: string,
  counts: number[],
  replans: boolean,
): StageWay {
  const { glueUp, shop, widths } = panel;
  const sections = runsOf(widths, counts).map(sum);
  const split = counts.length > 1;
  const machined = way === 'sections' || way === 'pairs';
  const joints = jointsOf(counts);
  // Planned anew, sections are flattened and their edges jointed again; split as they are, they keep theirs.
  const lost =
    replans && split ? joints.length * 2 * panel.edgeLossMm * glueUp.lengthMm * glueUp.heightMm : 0;
  const most = Math.max(...counts);
  const stage1 = (most - 1) * panel.jointMin + panel.fixedMin;
  const stage2 = split ? (counts.length - 1) * panel.jointMin + panel.fixedMin : 0;
  const wide = sum(widths) > panel.planerMm + 1e-6;
  const byHand = way === 'sled' || way === 'asOne';
  const hand =
    wide && way !== 'paid' ? (byHand ? 2 * sum(widths) : 2 * joints.length * STEP_BAND) * glueUp.lengthMm : 0;
  const { liftKg } = gluingOf(shop);
  const limit = liftKg * crewOf(glueUp, shop).hands;
  const walls: Phrase[][] = [];
  const tooWide = machined && split ? sections.filter((w) => w > panel.planerMm + 1e-6) : [];
  if (tooWide.length > 0)
    walls.push([
      'A section of ',
      { mm: Math.max(...tooWide) },
      ' does not pass the planer’s ',
      { mm: panel.planerMm },
      '.',
    ]);
  const share = Number.isFinite(panel.closedMin) ? Math.max(stage1, stage2) / panel.closedMin : 0;
  if (share > 1)
    walls.push([
      'The longest glue-up takes ',
      { minutes: Math.max(stage1, stage2) },
      ' of ',
      { minutes: panel.closedMin },
      '.',
    ]);
  if (panel.clamps > panel.owned)
    walls.push([{ count: panel.clamps }, ' clamps wanted, ', { count: panel.owned }, ' long enough.']);
  const stages = split ? 2 : 1;
  const glueUps = split ? counts.length + 1 : 1;
  return {
    way,
    name,
    counts,
    joints,
    glueUps,
    days: daysOf(stages, glueUps, panel, way === 'paid' ? (gluingOf(shop).paid?.days ?? 7) : 0),
    clamps: panel.clamps,
    handMm2: hand,
    lostMm3: lost,
    timeShare: share,
    notFlush: wide && way !== 'paid' && way !== 'sled' ? (split ? joints.length : glueUp.lines.length) : 0,
    heaviestKg: glueUp.massKg,
    tooHeavy: glueUp.massKg > limit,
    walls,
    ...(split
      ? {
          edit: replans
            ? { do: 'replan', change: { sections: counts.length } }
            : { do: 'splitGlue', step: glueUp.step.id, joints },
        }
      : {}),
  };
}

/**
 * Compares the ways to glue up strips laid along the width: all at once with a router sled or hand planes, sections
 * that pass the planer, pairs that are joined with aids, and a paid wide machine. Splits fall on joints. Undefined for
 * a glue-up of other things or of fewer than three strips.
 */
export function stagingOf(build: BuildDocument, timeline: Timeline, glueUp: GlueUp): Staging | undefined {
  if (glueUp.axes.press !== 1 || glueUp.courses.length < 3 || glueUp.askew) return undefined;
  const panel = panelOf(build, timeline, glueUp);
  const { widths, planerMm, shop } = panel;
  const practice = gluingOf(shop);
  const reasons = splitReasons(panel);
  const n = widths.length;
  const replans =
    build.brief?.pattern === 'panel' &&
    build.brief.sections <= 1 &&
    build.steps.filter(({ kind }) => kind === 'glue').length === 1;
  const ways: StageWay[] = [wayOf(panel, 'sled', 'All at once, router sled or hand planes', [n], false)];
  const counts = planerMm > 0 ? splitStrips(widths, planerMm) : undefined;
  if (counts && counts.length > 1)
    ways.push(
      wayOf(panel, 'sections', `${counts.length} sections through the planer, then join`, counts, replans),
    );
  if (n >= 4)
    ways.push(wayOf(panel, 'pairs', 'Pairs, then join with aids', evenCounts(n, Math.ceil(n / 2)), false));
  const { paid } = practice;
  if (paid && sum(widths) > planerMm) {
    const way = wayOf(panel, 'paid', 'All at once, paid wide machine', [n], false);
    if (sum(widths) > paid.maxWidth.mm)
      way.walls.push([
        'It is ',
        { mm: sum(widths) },
        ' wide; that machine takes ',
        { mm: paid.maxWidth.mm },
        '.',
      ]);
    ways.push({ ...way, priceMinor: paid.priceMinor, handMm2: 0, notFlush: 0 });
  }
  return { reasons, ways, conflicts: conflictsOf(panel, counts) };
}

/** Wishes that cannot both be had. */
function conflictsOf(panel: Panel, counts: number[] | undefined): Phrase[][] {
  const out: Phrase[][] = [];
  const widest = Math.max(...panel.widths);
  if (panel.planerMm > 0 && widest > panel.planerMm)
    out.push([
      'A strip of ',
      { mm: widest },
      ' is itself wider than the planer’s ',
      { mm: panel.planerMm },
      ': no split on joints helps. Rip it, use the router sled, or a paid wide machine.',
    ]);
  if (counts && counts.length > 1 && gluingOf(panel.shop).wide === 'sections') {
    const join = (counts.length - 1) * panel.jointMin + panel.fixedMin;
    if (join > panel.closedMin)
      out.push([
        'Sections that pass the planer leave ',
        { count: counts.length - 1 },
        ' joints for the last glue-up, ',
        { minutes: join },
        ' of ',
        { minutes: panel.closedMin },
        ': join in two steps, use a slower glue, or a second pair of hands.',
      ]);
  }
  return out;
}
