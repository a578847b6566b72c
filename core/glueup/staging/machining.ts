import type { Edit, Machining } from '../../document';
import { type AidKind, gluingOf, machineFacts, machinesThat, type ShopSnapshot } from '../../kit';
import { flatteners } from '../../plan';
import { roundUpToStep, sumOf, upwards } from '../../units';
import type { GlueUp } from '../glueup';
import { runsOf } from './split';

/** The machines for sections and for what they are joined to. Undefined where no machine takes a section. */
export function machiningFor(
  shop: ShopSnapshot,
  glueUp: GlueUp,
  counts: readonly number[],
): Machining | undefined {
  const endGrain = glueUp.courses.some(({ grain }) => grain === 'upright');
  const widths = glueUp.courses.map(({ from, to }) => to - from);
  const edge = 2 * roundUpToStep(shop.allowances.jointEdge.mm, shop.settingStep.mm);
  const widest = Math.max(...runsOf(widths, counts).map((run) => sumOf(run))) + edge;
  const section = flatteners(shop, [glueUp.lengthMm, widest, glueUp.heightMm], endGrain)[0];
  const takers = flatteners(shop, [glueUp.lengthMm, glueUp.widthMm, glueUp.heightMm], endGrain);
  // Sections that are flat need a machine that takes them all, or a plane at their joints; the sled is the last resort.
  const joined =
    takers.find((each) => machineFacts(each).feeds) ??
    takers.find((each) => machineFacts(each).byHand === 'places') ??
    takers[0];
  const edges =
    machinesThat(shop, 'joint').find(({ minLength }) => minLength.mm <= glueUp.lengthMm) ?? section;
  if (!section || !joined || !edges) return undefined;
  return { sections: section.id, joined: joined.id, edges: edges.id };
}

/** The edit that splits a glue-up into runs of strips, each made true before they are joined, or glued as they are. */
export function splitEdit(
  shop: ShopSnapshot,
  glueUp: GlueUp,
  joints: readonly number[],
  { machined, aids }: { machined: boolean; aids?: AidKind },
): Edit {
  const ends = [0, ...joints.toSorted(upwards), glueUp.courses.length];
  const counts = ends.slice(1).map((end, i) => end - ends[i]);
  const machining = machined ? machiningFor(shop, glueUp, counts) : undefined;
  return {
    do: 'splitGlue',
    step: glueUp.step.id,
    joints: [...joints],
    ...(machining ? { machining } : {}),
    ...(aids ? { aids } : {}),
  };
}

/** Aids that are let into the joints; battens keep faces flush too, and are no aids in the joint. */
const LET_IN: readonly AidKind[] = ['biscuits', 'dowels', 'looseTenons', 'splines'];

/** What pairs are joined with: what this shop uses, or else biscuits. */
export const aidsOf = (shop: ShopSnapshot): AidKind => {
  const { aids } = gluingOf(shop);
  return LET_IN.includes(aids) ? aids : 'biscuits';
};
