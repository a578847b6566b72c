import { Refusal } from '../../document';
import { INCH, sumOf } from '../../units';
import { requirePositive } from './parts';
import { lengthOf, type Pattern } from './pattern';
import { sizesOf, woodOf } from './sizes';
import { draftOf, finish, panelStage, trimStage } from './stages';

/** Strips whose widths grow or shrink evenly across the panel; outer strips carry the trim. */
export const graded: Pattern = {
  id: 'graded',
  name: 'Graded stripes',
  group: 'Panels',
  about: 'Edge-glued strips whose widths change evenly from one edge to the other.',
  moduleLabel: 'First strip, about',
  endGrain: false,
  measures: [{ key: 'last', label: 'Last strip, about', kind: 'length', fallback: 0.5 * INCH, least: 3 }],
  start: {
    length: '22',
    width: '10 1/2',
    thickness: '7/8',
    module: '2',
    woods: ['walnut_black', 'maple_sugar'],
  },
  plan(order) {
    const [length, width, thickness] = sizesOf(order);
    const first = requirePositive('The first strip', order.brief.module.mm);
    const last = requirePositive('The last strip', lengthOf(order, 'last'));
    const count = Math.max(2, Math.round((2 * width) / (first + last)));
    const shares = Array.from({ length: count }, (_, i) => first + ((last - first) * i) / (count - 1));
    const scale = width / sumOf(shares);
    const least = Math.min(...shares) * scale;
    if (least < 1) throw new Refusal(['The narrowest strip would be ', { mm: least }, ' wide.']);
    const draft = draftOf(order);
    const { trimEdge, trimEnd } = order.shop.allowances;
    const strips = shares.map((mm, i) => ({
      wood: woodOf(order, i),
      mm: mm * scale + (i === 0 || i === count - 1 ? trimEdge.mm : 0),
    }));
    const panel = panelStage(draft, {
      tag: '',
      name: 'Lay-up',
      strips,
      length: length + 2 * trimEnd.mm,
      flat: thickness,
    });
    trimStage(draft, panel.output, { from: [panel.length, panel.width], to: [length, width] });
    return finish(draft, [length, width, thickness]);
  },
};
