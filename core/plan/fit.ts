import { sumOf } from '../units';
import {
  attempt,
  type Brief,
  type BuildDocument,
  MOST_STRIPS,
  must,
  Refusal,
  type Refused,
} from '../document';
import { type ShopSnapshot, shopForJob } from '../kit';
import { roomOf } from '../steps';
import { materialOf, speciesName } from '../wood';
import { patternOf } from './patterns/patterns';

type About = { name: string; use: string };

/**
 * Plans a build backwards from a brief. Run forward, the build ends at exactly the size asked; or why, with the numbers,
 * no such build exists in this shop.
 */
export const fit = (brief: Brief, shop: ShopSnapshot, about: About): BuildDocument | Refused =>
  attempt(() => plan(brief, shop, about));

/** The same where it is known that there is one, as for the demo; throws, in words, where there is none. */
export const mustFit = (brief: Brief, shop: ShopSnapshot, about: About): BuildDocument =>
  must(fit(brief, shop, about), shop.display);

function plan(brief: Brief, usual: ShopSnapshot, about: About): BuildDocument {
  const shop = shopForJob(usual, brief.allowances);
  if (brief.woods.length === 0) throw new Refusal(['Choose at least one wood.']);
  for (const wood of brief.woods) {
    const { milled, instead } = materialOf(wood);
    if (!milled)
      throw new Refusal([
        `${speciesName(wood)} is not milled from rough boards${instead ? `: ${instead}` : ''}. Begin a line of its own with it, “What I have”, and lay it into a glue-up.`,
      ]);
  }
  const most = Math.max(brief.length.value?.mm ?? 0, brief.width.value?.mm ?? 0) / brief.module.mm;
  if (most > MOST_STRIPS)
    throw new Refusal([
      `That would be ${Math.ceil(most)} strips or slices; Junta plans up to ${MOST_STRIPS} in one piece.`,
    ]);
  const pattern = patternOf(brief.pattern);
  const build = brief.asTheyAre
    ? asTheyAre(pattern.plan({ brief, shop: unmilled(shop), pattern, ...about }), shop)
    : pattern.plan({ brief, shop, pattern, ...about });
  const parts = sumOf(build.assemblies, (assembly) => assembly.slots.length);
  if (parts > MOST_STRIPS)
    throw new Refusal([`That would be ${parts} strips; Junta plans up to ${MOST_STRIPS} in one piece.`]);
  return build;
}

const NOTHING = { mm: 0 };

/** The shop for strips that come planed: nothing is allowed for milling them. */
const unmilled = (shop: ShopSnapshot): ShopSnapshot => ({
  ...shop,
  allowances: { ...shop.allowances, millFace: NOTHING, millEdge: NOTHING },
});

/** A plan for strips that come planed, in its own shop: milling that would take nothing off is no step. */
function asTheyAre(build: BuildDocument, shop: ShopSnapshot): BuildDocument {
  const idle = build.steps.filter((step) => {
    const { machining, flow } = roomOf(step);
    return machining?.over === 'both' && !flow.joins && !machining.any(step);
  });
  const from = new Map(idle.map(({ output, inputs }) => [output, inputs]));
  return {
    ...build,
    shop,
    steps: build.steps
      .filter((step) => !idle.includes(step))
      .map((step) => ({ ...step, inputs: step.inputs.flatMap((input) => from.get(input) ?? [input]) })),
  };
}
