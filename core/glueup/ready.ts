import type { Phrase } from '../document';
import { APPLICATORS, type GlueAmount, gluingOf, held, missingWords, type ShopSnapshot } from '../kit';
import { counted } from '../units';
import type { AidLayout } from './aids';
import { aidNeeds } from './aidsizes';
import { adhesiveFor, type ClampPlan, TIGHTENING_WORDS } from './clampplan';
import type { GlueUp } from './glueup';
import { crewOf } from './pace';

/** One thing that must lie ready, or be read, before the bottle is opened. */
export interface ReadyItem {
  id: string;
  words: Phrase[];
  caution?: boolean;
}

const PROTECTION = { tape: 'taped', wax: 'waxed', paper: 'with paper under them' } as const;
/** Opened wider than the work by so much, a clamp slips over without knocking a strip out, mm (common practice). */
const SLIP = 15;
/** A camber below this is not worth planing, mm. */
const STRAIGHT = 0.4;

/** How a caul across is shaped, in words: the same on the list, the card and the sheet. */
export const camberPhrase = ({ camberMm }: { camberMm: number }): Phrase[] =>
  camberMm < STRAIGHT ? ['straight'] : ['cambered ', { mm: camberMm }];

/** What must lie ready before the bottle is opened, in the order in which it is laid out. */
export function readyList(
  glueUp: GlueUp,
  plan: ClampPlan,
  { aids, amount, shop }: { aids: AidLayout; amount: GlueAmount | undefined; shop: ShopSnapshot },
): ReadyItem[] {
  const practice = gluingOf(shop);
  const crew = crewOf(glueUp, shop);
  const facts = adhesiveFor(glueUp, shop);
  const out: ReadyItem[] = [];
  const add = (id: string, ...words: Phrase[]) => out.push({ id, words });
  for (const { set, count } of plan.picks)
    add(`clamps-${set.id}`, { count }, ` ${set.name.toLowerCase()}, opened to `, {
      mm: plan.openingMm + SLIP,
    });
  if (plan.missing > 0)
    add('missing', `${counted(plan.missing, 'clamp')} more, borrowed or in a second round`);
  const { protection } = practice.cauls;
  if (plan.edgeCaulMm > 0)
    add(
      'edge-cauls',
      `2 cauls for the edges, ${PROTECTION[protection]}, `,
      { mm: plan.edgeCaulMm },
      ' high, ',
      { mm: glueUp.lengthMm },
      ' long',
    );
  if (plan.crossCauls.pairs > 0) {
    const { lengthMm, pairs } = plan.crossCauls;
    add(
      'cross-cauls',
      { count: 2 * pairs },
      ` cauls across, ${PROTECTION[protection]}, `,
      ...camberPhrase(plan.crossCauls),
      ', ',
      { mm: lengthMm },
      ' long',
    );
  }
  if (aids.aids.length > 0) add('aids', `${aids.aids.length} × ${aids.size?.name}, tried dry`);
  for (const [i, need] of aidNeeds(aids).entries()) {
    const { have, short } = held(need, shop);
    if (short > 0)
      out.push({ id: `short-${i}`, words: missingWords({ need, have, short }, shop), caution: true });
  }
  if (facts && amount) add('glue', `${facts.name}, `, { grams: amount.toTakeG }, ', shaken or mixed');
  add(
    'applicator',
    `${APPLICATORS.find(({ id }) => id === crew.applicator)?.name ?? 'Applicator'}, and a spare`,
  );
  add('paper', 'Paper or film on the bench and under the bars: glue and iron stain wood black');
  add('straightedge', 'Straightedge and square; mallet with a block');
  add(
    'cloth',
    practice.squeezeOut === 'wet'
      ? 'Damp cloth, water, a dry cloth'
      : 'Damp cloth for fingers and bars; scraper for later',
  );
  if (glueUp.courses.length > 2) add('spacer', 'Spacers under the work, so that clamps below go on');
  add('marks', 'Read the marks: triangle or numbers, arrows all one way, show faces up');
  add('dry', 'A dry run with every clamp: joints close, clamps long enough, order known');
  add('order', `Tighten ${TIGHTENING_WORDS[plan.tightening]}; just until it beads evenly`);
  if (crew.hands === 2) add('helper', 'The helper knows who spreads and who lays');
  else if (glueUp.massKg > practice.liftKg)
    add('helper', 'A helper to lift: it weighs ', { kg: glueUp.massKg });
  add('place', 'A flat place to leave it, clear until it is unclamped');
  if (facts?.hazard)
    out.push({
      id: 'hazard',
      words: [`${facts.hazard}. Gloves, air; the label comes first.`],
      caution: true,
    });
  if (facts?.className.startsWith('Epoxy'))
    out.push({
      id: 'epoxy',
      words: ['Epoxy sensitises skin and heats in the pot: gloves, small batches, air.'],
      caution: true,
    });
  return out;
}
