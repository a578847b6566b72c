import { Refusal } from '../../document';
import { glueUpAt } from '../../steps';
import { INCH, sumOf } from '../../units';
import { type Pattern, wordOf } from './pattern';
import { sizesOf } from './sizes';
import { draftOf, finish, panelStage, trimStage } from './stages';

/** A lay-up of the maker's own, kept with the shop: its strips are scaled to the width and repeated as often as wanted. */
export const ownRule: Pattern = {
  id: 'ownRule',
  name: 'Own lay-up',
  group: 'Panels',
  about:
    'A lay-up you have saved as your pattern, fitted to another width: woods, proportions, turns and marks as they were.',
  moduleLabel: 'One run of the rule, about',
  endGrain: false,
  measures: [{ key: 'rule', label: 'Rule', kind: 'words', fallback: '' }],
  start: { length: '22', width: '12', thickness: '7/8', module: '12', woods: ['maple_sugar'] },
  plan(order) {
    const { shop, brief } = order;
    const a = shop.allowances;
    const rules = shop.layUps ?? [];
    const rule = rules.find(({ id }) => id === wordOf(order, 'rule')) ?? rules[0];
    if (!rule)
      throw new Refusal([
        'No pattern of your own is saved yet: open a job, choose its glue-up and press “Save as my pattern”.',
      ]);
    const [length, width, thickness] = sizesOf(order, [22 * INCH, 12 * INCH, 0.875 * INCH]);
    const runs = Math.max(1, Math.round(width / brief.module.mm));
    const strips = Array.from({ length: runs }, () => rule.strips).flat();
    const share = sumOf(strips, (strip) => strip.share);
    const draft = draftOf(order);
    const panel = panelStage(draft, {
      tag: '',
      name: rule.name,
      strips: strips.map(({ species, share: own }, i) => ({
        wood: species,
        mm: (width * own) / share + (i === 0 || i === strips.length - 1 ? a.trimEdge.mm : 0),
      })),
      length: length + 2 * a.trimEnd.mm,
      flat: thickness,
    });
    const glue = glueUpAt(draft.build, 'glue');
    if (glue)
      glue.parts = strips.map(({ endForEnd, rollOver }, i) => ({
        piece: `strip-${i + 1}`,
        ...(endForEnd ? { endForEnd } : {}),
        ...(rollOver ? { rollOver } : {}),
      }));
    trimStage(draft, panel.output, { from: [panel.length, panel.width], to: [length, width] });
    return finish(draft, [length, width, thickness]);
  },
};
