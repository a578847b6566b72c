import type { BuildDocument, Phrase } from '../../document';
import { climateOf, glueTimes, gluingOf, type ShopSnapshot, widestMilled } from '../../kit';
import type { Timeline } from '../../steps';
import { counted, sumOf } from '../../units';
import { layAids } from '../aids';
import { adhesiveFor, planClamps } from '../clampplan';
import type { GlueUp } from '../glueup';
import { crewOf, rehearse } from '../pace';

/** Why a piece is glued up in more than one stage, each with its number. */
export interface SplitReason {
  kind: 'planer' | 'openTime' | 'clamps' | 'weight' | 'shorter';
  words: Phrase[];
}

/** What is known of the strips and the shop before any way is played. */
export interface Panel {
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

/** Reads a glue-up and its shop; times of the whole crew in minutes, sizes in mm. */
export function panelOf(build: BuildDocument, timeline: Timeline, glueUp: GlueUp): Panel {
  const { shop } = build;
  const plan = planClamps(glueUp, shop);
  const rehearsal = rehearse(glueUp, plan, layAids(build, timeline, glueUp), shop);
  const facts = adhesiveFor(glueUp, shop);
  return {
    glueUp,
    shop,
    widths: glueUp.courses.map(({ from, to }) => to - from),
    planerMm: widestMilled(shop),
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
  const width = sumOf(panel.widths);
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
        `${counted(glueUp.lines.length, 'joint')} at this shop’s pace ${glueUp.lines.length === 1 ? 'takes' : 'take'} `,
        { minutes: needs },
        '; the glue gives ',
        { minutes: panel.closedMin },
        '.',
      ],
    });
  if (panel.clamps > panel.owned)
    out.push({
      kind: 'clamps',
      words: [
        `It wants ${counted(panel.clamps, 'clamp')}; ${panel.owned === 1 ? 'one is' : `${panel.owned} are`} long enough.`,
      ],
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

/** Wishes that cannot both be had. */
export function conflictsOf(panel: Panel, counts: number[] | undefined): Phrase[][] {
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
        `Sections that pass the planer leave ${counted(counts.length - 1, 'joint')} for the last glue-up, `,
        { minutes: join },
        ' of ',
        { minutes: panel.closedMin },
        ': join in two steps, use a slower glue, or a second pair of hands.',
      ]);
  }
  return out;
}
