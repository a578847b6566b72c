import { clamped, sumOf } from '../../units';
import {
  adhesiveFacts,
  adhesivesOf,
  clampKind,
  clampsOf,
  gluingOf,
  pickClamps,
  type Adhesive,
  type AdhesiveFacts,
  type ClampPick,
  type ClampSchool,
  type ClampSet,
  type GluePractice,
  type ShopSnapshot,
  type Tightening,
} from '../../kit';
import { elasticOf, findSpecies, isSoftwood } from '../../wood';
import { planeOfCourse, type GlueUp } from '../glueup';
import { caulCamber } from './cauls';
import {
  clampsByForce,
  clampsBySpacing,
  clampsBySpread,
  elasticPlaces,
  evenMiddles,
  reachPlaces,
} from './counts';
import { clampsByElastic, type ElasticStack } from './elastic';
import { tighteningOrder } from './order';

/** What decided how many clamps there are. */
export type Governs = 'spread' | 'force' | 'largest spacing' | 'hand';

/** What one school asks for. */
export interface SchoolCount {
  school: ClampSchool;
  spread: number;
  count: number;
  governs: Governs;
  /** Middles of the stations, mm from the left end of the piece. */
  places: number[];
  /** Board widths its pressure reaches; undefined under the elastic school. */
  reach?: number;
}

/** One clamp of the plan. Where two stand one behind the other on a deep joint, `row` tells them apart. */
export interface PlannedClamp {
  id: string;
  at: number;
  row: number;
  side: 'above' | 'below';
  forceN: number;
  set?: ClampSet;
  order: number;
}

/** Where each clamp goes, what it does, and whether the rack has it. */
export interface ClampPlan {
  school: ClampSchool;
  schools: SchoolCount[];
  byHand: boolean;
  /** Pressure wanted on the joints and why, MPa. */
  wantedMPa: number;
  wantedFrom: 'typed' | 'firm' | 'even' | 'contact';
  /** From the pad to the first joint, mm; and the caul's part of it. */
  wayMm: number;
  edgeCaulMm: number;
  /** Clamps without cauls and with the shop's, by this school's spread: why there are cauls. */
  bareCount: number;
  cauledCount: number;
  stations: number;
  rows: number;
  clamps: PlannedClamp[];
  governs: Governs;
  /** By force alone, with the clamps that are long enough; undefined without any. */
  byForce?: number;
  /** The joint with the most area, and the force it needs, N. */
  worstJoint: number;
  neededN: number;
  totalN: number;
  tightening: Tightening;
  openingMm: number;
  longEnough: number;
  longestMm: number;
  /** How many blanks alike the rack holds in clamps at once; the rest wait for them. */
  atOnce: number;
  missing: number;
  picks: ClampPick[];
  perJoint: { joint: number; mpa: number }[];
  /** A pad of the clamps taken, along the joint, mm; and what the hardest does to the wood, MPa. */
  padMm: number;
  padMPa: number;
  strengthMPa: number;
  strengthFrom: 'table' | 'regression';
  crossCauls: { pairs: number; at: number[]; camberMm: number; lengthMm: number };
}

/** Pressure on epoxy and the like, MPa: the middle of 0.03 to 0.2 (trade practice, from memory). */
const CONTACT_MPA = 0.1;
/** Just enough for even squeeze-out, MPa: the handbook's least, about 100 psi (Wood Handbook chapter 10, from memory). */
const EVEN_MPA = 0.69;
/** Firm pressures by specific gravity, MPa: the upper end of trade practice; 250 psi for the densest (from memory). */
const FIRM = [
  { below: 0.42, mpa: 1.03 },
  { below: 0.55, mpa: 1.21 },
  { below: Infinity, mpa: 1.72 },
] as const;

/** What a glue-up is pressed with, MPa: just enough, and firmly from the lightest woods to the densest. */
export const PRESSURES_MPA = { even: EVEN_MPA, firm: [FIRM[0].mpa, FIRM[FIRM.length - 1].mpa] } as const;

/** Pressure wanted for woods, the densest of them deciding, MPa. */
export function pressureFor(species: readonly string[], practice: GluePractice['pressure']): number {
  if (practice === 'even') return EVEN_MPA;
  const densest = Math.max(0, ...species.map((id) => findSpecies(id)?.specificGravity12 ?? 0.6));
  return (FIRM.find(({ below }) => densest < below) ?? FIRM[2]).mpa;
}

/** The bottle a glue-up uses: the one chosen, or the first on the shelf. */
export function bottleFor({ step }: GlueUp, shop: ShopSnapshot): Adhesive | undefined {
  const shelf = adhesivesOf(shop);
  return shelf.find(({ id }) => id === step.plan?.adhesive) ?? shelf[0];
}

/** What holds for that bottle. */
export function adhesiveFor(glueUp: GlueUp, shop: ShopSnapshot): AdhesiveFacts | undefined {
  const bottle = bottleFor(glueUp, shop);
  return bottle && adhesiveFacts(bottle);
}

function reachOf(school: ClampSchool, glueUp: GlueUp, practice: GluePractice): number | undefined {
  if (school === 'elastic') return undefined;
  if (school === 'fan') return 1;
  const soft = [glueUp.courses[0], glueUp.courses.at(-1)].some((c) => c && isSoftwood(c.species));
  return soft ? practice.reachSoft : practice.reachHard;
}

/** The way from the pads to the first joints, the shorter of both sides. */
const outerWay = ({ courses }: GlueUp): number =>
  Math.min(...[courses[0], courses[courses.length - 1]].map(({ from, to }) => to - from));

/** Boards and cauls in the direction of the clamps, and which of the lines between them are glued. */
export function elasticStack(glueUp: GlueUp, caulMm: number, caulSpecies: string, pad: number): ElasticStack {
  const boards = glueUp.courses.map((course) => ({
    width: course.to - course.from,
    wood: planeOfCourse(course),
  }));
  const caul = {
    width: caulMm,
    wood: planeOfCourse({ ...glueUp.courses[0], species: caulSpecies, grain: 'along' }),
  };
  const lead = caulMm > 0 ? 1 : 0;
  return {
    length: glueUp.lengthMm,
    thickness: glueUp.heightMm,
    boards: lead ? [caul, ...boards, caul] : boards,
    lines: glueUp.lines.map(({ joint }) => joint - 1 + lead),
    pad,
  };
}

function schoolCount(
  school: ClampSchool,
  glueUp: GlueUp,
  {
    practice,
    caulMm,
    byForce,
    pad,
  }: { practice: GluePractice; caulMm: number; byForce: number; pad: number },
): SchoolCount {
  const way = outerWay(glueUp) + caulMm;
  const length = glueUp.lengthMm;
  const reach = reachOf(school, glueUp, practice);
  const spread =
    reach === undefined
      ? clampsByElastic(elasticStack(glueUp, caulMm, practice.cauls.species, pad))
      : clampsBySpread(length, way, reach);
  const spaced = practice.mostSpacing.mm > 0 ? clampsBySpacing(length, practice.mostSpacing.mm) : 1;
  const count = Math.max(spread, byForce, spaced);
  const governs: Governs = spread === count ? 'spread' : byForce === count ? 'force' : 'largest spacing';
  const places =
    school === 'fan'
      ? evenMiddles(count, length)
      : school === 'reach'
        ? reachPlaces(count, length, way)
        : elasticPlaces(count, length);
  return { school, spread, count, governs, places, ...(reach === undefined ? {} : { reach }) };
}

/**
 * Plans the clamps of a glue-up under every school, and lays out the one in force: how many and why, where, above or
 * below, in which order, from which rack, and what each joint and each pad gets of it. Clamps put by hand stay where
 * they are. `schools` names the others to be counted beside it.
 */
export function planClamps(
  glueUp: GlueUp,
  shop: ShopSnapshot,
  schools: readonly ClampSchool[] = [],
): ClampPlan {
  const practice = gluingOf(shop);
  const { plan } = glueUp.step;
  const school = plan?.school ?? practice.school;
  const facts = adhesiveFor(glueUp, shop);
  const wantedFrom =
    plan?.wantedMPa !== undefined ? 'typed' : facts?.contactOnly ? 'contact' : practice.pressure;
  const wantedMPa =
    plan?.wantedMPa ?? (facts?.contactOnly ? CONTACT_MPA : pressureFor(glueUp.species, practice.pressure));
  const worst = glueUp.lines.reduce(
    (most, line) => (line.areaMm2 > most.areaMm2 ? line : most),
    glueUp.lines[0],
  );
  const neededN = wantedMPa * (worst?.areaMm2 ?? 0);
  const stock = practice.cauls.height.mm;
  const way = outerWay(glueUp);
  const reach = reachOf(school === 'elastic' ? 'fan' : school, glueUp, practice) ?? 1;
  const bareCount = clampsBySpread(glueUp.lengthMm, way, reach);
  const cauledCount = clampsBySpread(glueUp.lengthMm, way + stock, reach);
  const edgeCaulMm = plan?.edgeCaul?.mm ?? (stock > 0 && bareCount > 1.5 * cauledCount ? stock : 0);
  const openingMm = glueUp.widthMm + 2 * edgeCaulMm;
  const owned = clampsOf(shop);
  const fit = pickClamps(owned, 1, openingMm).picks[0]?.set;
  const pad = fit?.padLength.mm ?? clampKind('f_heavy').padMm[0];
  const padAcross = fit?.padWidth.mm ?? clampKind('f_heavy').padMm[1];
  const rows = glueUp.heightMm <= Math.max(2 * reach * (way + edgeCaulMm), padAcross) ? 1 : 2;
  const byForce = fit ? clampsByForce(wantedMPa, worst?.areaMm2 ?? 0, fit.forceN * rows) : undefined;
  const wantedSchools = [...new Set([school, ...schools])];
  const counts = wantedSchools.map((each) =>
    schoolCount(each, glueUp, { practice, caulMm: edgeCaulMm, byForce: byForce ?? 1, pad }),
  );
  const inForce = counts[0];
  const tightening = plan?.edges?.some(({ shape }) => shape === 'sprung')
    ? 'middle'
    : (plan?.tightening ?? practice.tightening);
  const byHand = plan?.clamps !== undefined;
  const count = (byHand ? (plan?.clamps?.length ?? 0) : inForce.count * rows) * glueUp.blanks;
  const { picks, missing, longEnough } = pickClamps(owned, count, openingMm);
  const clamps = byHand
    ? handClamps(glueUp, owned, tightening)
    : laidClamps(inForce.places, rows, { picks, practice, tightening, lengthMm: glueUp.lengthMm, neededN });
  const totalN = sumOf(clamps, ({ forceN }) => forceN);
  const outer = [glueUp.courses[0], glueUp.courses[glueUp.courses.length - 1]].map((c) =>
    elasticOf(c.species),
  );
  const weakest = outer.reduce((a, b) => (b.compressionMPa < a.compressionMPa ? b : a));
  return {
    school,
    schools: counts,
    byHand,
    wantedMPa,
    wantedFrom,
    wayMm: way + edgeCaulMm,
    edgeCaulMm,
    bareCount,
    cauledCount,
    stations: byHand ? clamps.length : inForce.count,
    rows,
    clamps,
    governs: byHand ? 'hand' : inForce.governs,
    ...(byForce === undefined ? {} : { byForce }),
    worstJoint: worst?.joint ?? 1,
    neededN,
    totalN,
    tightening,
    openingMm,
    longEnough,
    atOnce: clamps.length > 0 ? Math.floor(longEnough / clamps.length) : 0,
    longestMm: Math.max(0, ...owned.filter(({ count: n }) => n > 0).map(({ opening }) => opening.mm)),
    missing,
    picks,
    perJoint: glueUp.lines.map(({ joint, areaMm2 }) => ({ joint, mpa: areaMm2 > 0 ? totalN / areaMm2 : 0 })),
    padMm: pad,
    padMPa: padPressure(clamps, { caulMm: edgeCaulMm, heightMm: glueUp.heightMm, pad, across: padAcross }),
    strengthMPa: weakest.compressionMPa,
    strengthFrom: weakest.compressionFrom,
    crossCauls: crossCauls(glueUp, practice, fit),
  };
}

/** Clamps the maker put: each with the set it names, or one that could be it. */
function handClamps(glueUp: GlueUp, owned: readonly ClampSet[], tightening: Tightening): PlannedClamp[] {
  const placed = glueUp.step.plan?.clamps ?? [];
  const order = tighteningOrder(
    placed.map(({ at }) => at.mm),
    glueUp.lengthMm,
    tightening,
  );
  return placed.map((clamp, i) => ({
    id: clamp.id,
    at: clamp.at.mm,
    row: 0,
    side: clamp.side,
    forceN: clamp.forceN,
    ...(owned.find(({ id }) => id === clamp.set) ? { set: owned.find(({ id }) => id === clamp.set) } : {}),
    order: order[i],
  }));
}

/** Clamps by the school: tightened no harder than the worst joint needs, nor than the hand can. */
function laidClamps(
  places: readonly number[],
  rows: number,
  {
    picks,
    practice,
    tightening,
    lengthMm,
    neededN,
  }: {
    picks: readonly ClampPick[];
    practice: GluePractice;
    tightening: Tightening;
    lengthMm: number;
    neededN: number;
  },
): PlannedClamp[] {
  const sets = picks.flatMap(({ set, count }) => Array.from({ length: count }, () => set));
  const order = tighteningOrder(places, lengthMm, tightening);
  const each = neededN / Math.max(1, places.length * rows);
  return places.flatMap((at, i) =>
    Array.from({ length: rows }, (_, row): PlannedClamp => {
      const set = sets[i * rows + row] ?? sets[0];
      return {
        id: `clamp-${i + 1}${row ? 'b' : ''}`,
        at,
        row,
        side: practice.faces === 'alternate' && i % 2 === 1 ? 'below' : 'above',
        forceN: Math.min(each, set?.forceN ?? each),
        ...(set ? { set } : {}),
        order: order[i],
      };
    }),
  );
}

/** Pressure of the hardest clamp on the wood: under the pad, or fanned out through the caul. */
function padPressure(
  clamps: readonly PlannedClamp[],
  { caulMm, heightMm, pad, across }: { caulMm: number; heightMm: number; pad: number; across: number },
): number {
  return Math.max(
    0,
    ...clamps.map(({ forceN, set }) => {
      const along = (set?.padLength.mm ?? pad) + 2 * caulMm;
      const high = caulMm > 0 ? heightMm : Math.min(set?.padWidth.mm ?? across, heightMm);
      return forceN / (along * high);
    }),
  );
}

/** Force on each end of a caul across, N: enough to hold faces flush, far from what a joint gets (common practice). */
const CAUL_END_N = 400;
/** A caul across stands over the edges by so much, for its clamps, mm. */
const CAUL_OVER = 30;
/** A pair of cauls across about every so far, mm (common practice). */
const CAUL_EVERY = 400;

function crossCauls(
  glueUp: GlueUp,
  practice: GluePractice,
  fit: ClampSet | undefined,
): ClampPlan['crossCauls'] {
  const { plan } = glueUp.step;
  const aids = plan?.aids?.kind ?? practice.aids;
  const lying = glueUp.axes.press === 1 || glueUp.axes.press === 0;
  const wanted =
    aids === 'cauls' && lying && practice.cauls.height.mm > 0
      ? Math.max(2, clampsBySpacing(glueUp.lengthMm, CAUL_EVERY))
      : 0;
  const pairs = clamped(plan?.crossCauls ?? wanted, 0, 40);
  const { height, width, species } = practice.cauls;
  const camberMm =
    pairs > 0 && height.mm > 0 && width.mm > 0
      ? caulCamber({
          spanMm: glueUp.widthMm,
          loadN: 2 * Math.min(CAUL_END_N, fit?.forceN ?? CAUL_END_N),
          heightMm: height.mm,
          widthMm: width.mm,
          modulusMPa: elasticOf(species).EL,
        })
      : 0;
  const lengthMm = glueUp.widthMm + 2 * CAUL_OVER;
  return { pairs, at: evenMiddles(pairs, glueUp.lengthMm), camberMm, lengthMm };
}
