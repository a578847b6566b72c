import { Refusal } from '../../document';
import { INCH } from '../../units';
import { requirePositive } from './parts';
import { lengthOf, type Pattern } from './pattern';
import { ROW_MEASURES, rowOf, sizesOf, woodOf } from './sizes';
import { draftOf, finish, panelStage, trimStage } from './stages';

/** A strip of its own wood in the middle, and two sides alike: trimmed alike on both, it stays in the middle. */
export const centred: Pattern = {
  id: 'centred',
  name: 'Centre strip',
  group: 'Panels',
  about:
    'A strip of the first wood in the middle and equal sides of the others, mirrored; both edges are trimmed alike.',
  moduleLabel: 'Strip of a side',
  endGrain: false,
  measures: [
    ...ROW_MEASURES.map((field) =>
      field.key === 'strips' ? { ...field, label: 'Strips a side, 0 for any number' } : field,
    ),
    { key: 'centre', label: 'Centre strip', kind: 'length', fallback: 2 * INCH, least: 1 },
  ],
  start: {
    length: '26',
    width: '12',
    thickness: '7/8',
    module: '1 3/4',
    woods: ['walnut_black', 'ash_white'],
  },
  plan(order) {
    const [length, width, thickness] = sizesOf(order);
    const { trimEdge, trimEnd } = order.shop.allowances;
    const centre = requirePositive('The centre strip', lengthOf(order, 'centre'));
    const side = (width - centre) / 2;
    if (side <= 0)
      throw new Refusal([
        'The centre strip of ',
        { mm: centre },
        ' leaves no sides in a width of ',
        { mm: width },
        '.',
      ]);
    const { count, strip, exact } = rowOf(order, 'The strip', { total: side + trimEdge.mm, finished: side });
    const { woods } = order.brief;
    const others = { ...order, brief: { ...order.brief, woods: woods.length > 1 ? woods.slice(1) : woods } };
    // From the middle outwards, the same on both sides.
    const outwards = Array.from({ length: count }, (_, i) => ({ wood: woodOf(others, i), mm: strip, exact }));
    const draft = draftOf(order);
    const panel = panelStage(draft, {
      tag: '',
      name: 'Lay-up',
      strips: [...outwards.toReversed(), { wood: woods[0], mm: centre, exact: true }, ...outwards],
      length: length + 2 * trimEnd.mm,
      flat: thickness,
    });
    trimStage(draft, panel.output, { from: [panel.length, panel.width], to: [length, width] });
    return finish(draft, [length, width, thickness]);
  },
};
