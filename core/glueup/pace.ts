import { inTurn, rising, sumOf } from '../units';
import type { PaceAct } from '../document';
import {
  adhesiveFacts,
  adhesivesOf,
  type Applicator,
  APPLICATORS,
  climateOf,
  glueTimes,
  type GlueTimes,
  gluingOf,
  type Pace,
  type ShopSnapshot,
} from '../kit';
import type { AidLayout } from './aids';
import { adhesiveFor, type ClampPlan } from './clampplan';
import type { GlueUp } from './glueup';

/** One act of a glue-up, in order. Minutes of the whole crew. */
export interface Act {
  act: PaceAct;
  /** The joint it belongs to, counted from 1; clamps and cauls belong to all. */
  joint?: number;
  words: string;
  minutes: number;
  /** When it begins, minutes after the first glue. */
  at: number;
}

/** The acts of a glue-up against the glue's times. */
export interface Rehearsal {
  acts: Act[];
  totalMin: number;
  spreadMin: number;
  placeMin: number;
  clampMin: number;
  /** Longest from spreading a joint to closing it, and from spreading it to the last clamp. */
  openUsedMin: number;
  closedUsedMin: number;
  times?: GlueTimes;
  /** Shares of the glue's times; above 1 it sets first. */
  openShare: number;
  closedShare: number;
  fits: boolean;
  hands: 1 | 2;
  applicator: Applicator;
  /** What would make it fit, each with the share of its time it would then use. */
  ways: PaceWay[];
}

/** A change that brings its acts nearer to fitting. */
export interface PaceWay {
  kind: 'hands' | 'applicator' | 'adhesive' | 'stages' | 'cooler';
  words: string;
  share: number;
  adhesive?: string;
  applicator?: Applicator;
  stages?: number;
  celsius?: number;
}

/** A second pair of hands takes off this much: two can spread and clamp, but only one lays a part (common practice). */
const TOGETHER: Record<PaceAct, number> = {
  spread: 0.55,
  place: 0.8,
  align: 0.7,
  aid: 0.6,
  clamp: 0.6,
  caul: 0.6,
};

interface Crew {
  pace: Pace;
  hands: 1 | 2;
  applicator: Applicator;
  faces: 1 | 2;
}

/** Minutes to spread one joint: metres of a joint 20 mm high, and on wider faces by area; a second face takes as long again. */
const spreadMinutes = ({ areaMm2 }: { areaMm2: number }, { pace, applicator, faces }: Crew): number => {
  const perM = APPLICATORS.find(({ id }) => id === applicator)?.minPerM ?? 0.5;
  // Broad faces go faster by area than edges do by length: half again for what is over 20 mm.
  const metres = areaMm2 / 1000 / 20;
  return pace.spreading * perM * faces * (metres <= 1 ? metres : 1 + (metres - 1) * 0.75);
};

/** The acts in their order: joint by joint, then cauls and clamps in the order of tightening. */
function actsOf(glueUp: GlueUp, plan: ClampPlan, aids: AidLayout, crew: Crew): Act[] {
  const out: Act[] = [];
  let at = 0;
  const add = (act: PaceAct, minutes: number, words: string, joint?: number) => {
    const whole = minutes * (crew.hands === 2 ? TOGETHER[act] : 1);
    if (whole <= 0) return;
    out.push({ act, words, minutes: whole, at, ...(joint === undefined ? {} : { joint }) });
    at += whole;
  };
  const { pace } = crew;
  for (const line of glueUp.lines) {
    const here = aids.aids.filter(({ joint }) => joint === line.joint).length;
    const parts = glueUp.courses[line.joint]?.parts.length ?? 1;
    add('spread', pace.jointMin + spreadMinutes(line, crew), `Spread joint ${line.joint}`, line.joint);
    if (here > 0) add('aid', here * pace.aidMin, `${here} aids into joint ${line.joint}`, line.joint);
    add('place', parts * pace.placeMin, `Lay part ${line.joint + 1}`, line.joint);
    add('align', pace.alignMin, `Bring joint ${line.joint} flush`, line.joint);
  }
  const { pairs } = plan.crossCauls;
  if (pairs > 0) add('caul', pairs * pace.caulMin, `${pairs} pairs of cauls`);
  const order = plan.clamps.toSorted(
    inTurn(
      rising(({ order: each }) => each),
      rising(({ row }) => row),
    ),
  );
  order.forEach((clamp, i) =>
    add(
      'clamp',
      pace.clampMin,
      `Clamp ${clamp.order}${clamp.row ? ', behind' : ''}${i === 0 ? ', the first' : ''}`,
    ),
  );
  return out;
}

function measure(acts: readonly Act[], times: GlueTimes | undefined) {
  const end = (act: Act) => act.at + act.minutes;
  const totalMin = acts.length > 0 ? end(acts[acts.length - 1]) : 0;
  const sum = (...kinds: PaceAct[]) =>
    sumOf(
      acts.filter(({ act }) => kinds.includes(act)),
      ({ minutes }) => minutes,
    );
  let openUsedMin = 0;
  let closedUsedMin = 0;
  for (const spread of acts.filter(({ act }) => act === 'spread')) {
    const laid = acts.find(({ act, joint }) => act === 'place' && joint === spread.joint);
    openUsedMin = Math.max(openUsedMin, laid ? end(laid) - spread.at : 0);
    closedUsedMin = Math.max(closedUsedMin, totalMin - spread.at);
  }
  const openShare = times ? openUsedMin / times.openMin : 0;
  const closedShare = times ? closedUsedMin / times.closedMin : 0;
  return {
    totalMin,
    spreadMin: sum('spread'),
    placeMin: sum('place', 'align', 'aid'),
    clampMin: sum('clamp', 'caul'),
    openUsedMin,
    closedUsedMin,
    openShare,
    closedShare,
    fits: Math.max(openShare, closedShare) <= 1,
  };
}

/** How a glue-up's crew is set: its own plan, else the shop's practice. */
export function crewOf(glueUp: GlueUp, shop: ShopSnapshot): Crew {
  const practice = gluingOf(shop);
  const { plan } = glueUp.step;
  return {
    pace: practice.pace,
    hands: plan?.hands ?? practice.hands,
    applicator: plan?.applicator ?? practice.applicator,
    faces: plan?.faces ?? practice.spreadFaces,
  };
}

/**
 * Plays the acts of a glue-up with this shop's minutes and holds it against the glue's open and closed time at the shop's
 * climate, the cautious end of each. Where it does not fit, the ways out are played too.
 */
export function rehearse(glueUp: GlueUp, plan: ClampPlan, aids: AidLayout, shop: ShopSnapshot): Rehearsal {
  const crew = crewOf(glueUp, shop);
  const facts = adhesiveFor(glueUp, shop);
  const times = facts && glueTimes(facts, climateOf(shop));
  const acts = actsOf(glueUp, plan, aids, crew);
  const measured = measure(acts, times);
  const ways = measured.fits || !times ? [] : waysOut(glueUp, plan, aids, { shop, crew });
  return {
    acts,
    ...measured,
    ...(times ? { times } : {}),
    hands: crew.hands,
    applicator: crew.applicator,
    ways,
  };
}

function waysOut(
  glueUp: GlueUp,
  plan: ClampPlan,
  aids: AidLayout,
  { shop, crew }: { shop: ShopSnapshot; crew: Crew },
): PaceWay[] {
  const facts = adhesiveFor(glueUp, shop);
  if (!facts) return [];
  const climate = climateOf(shop);
  const times = glueTimes(facts, climate);
  const worst = (other: Partial<Crew>, at: GlueTimes) => {
    const { openShare, closedShare } = measure(actsOf(glueUp, plan, aids, { ...crew, ...other }), at);
    return Math.max(openShare, closedShare);
  };
  const now = worst({}, times);
  const out: PaceWay[] = [];
  if (crew.hands === 1)
    out.push({ kind: 'hands', words: 'A second pair of hands', share: worst({ hands: 2 }, times) });
  const fastest = APPLICATORS.toSorted(rising((a) => a.minPerM))[0];
  if (fastest.id !== crew.applicator)
    out.push({
      kind: 'applicator',
      words: `${fastest.name} instead`,
      share: worst({ applicator: fastest.id }, times),
      applicator: fastest.id,
    });
  for (const bottle of adhesivesOf(shop)) {
    const other = glueTimes(adhesiveFacts(bottle), climate);
    if (other.closedMin > times.closedMin)
      out.push({ kind: 'adhesive', words: bottle.name, share: worst({}, other), adhesive: bottle.id });
  }
  if (glueUp.lines.length > 1) {
    const stages = Math.min(glueUp.lines.length, Math.ceil(now));
    out.push({
      kind: 'stages',
      words: `${stages} glue-ups of about ${Math.ceil(glueUp.lines.length / stages)} joints, then joined`,
      share: now / stages,
      stages,
    });
  }
  const cooler = Math.max(facts.leastC, climate.temperatureC - 8);
  if (cooler < climate.temperatureC - 1 && facts.cures !== 'gelling')
    out.push({
      kind: 'cooler',
      words: 'A cooler room',
      share: worst({}, glueTimes(facts, { ...climate, temperatureC: cooler })),
      celsius: cooler,
    });
  return out.filter(({ share }) => share < now - 1e-9).toSorted(rising((a) => a.share));
}
