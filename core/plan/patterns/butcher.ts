import { INCH } from '../../units';
import { half, requirePositive, settable, slot, roughFor } from './parts';
import { lengthOf, numberOf, type Pattern } from './pattern';
import { ROW_MEASURES, rowOf, sizesOf, woodOf } from './sizes';
import { draftOf, finish, panelMachine, ripAndMill, trimStage } from './stages';
import { staggeredRows } from './staggered';

/** Butcher block of random lengths: rows of strips butted end to end, the end joints of neighbours kept apart. */
export const butcher: Pattern = {
  id: 'butcher',
  name: 'Staggered lengths',
  group: 'Panels',
  about:
    'Rows of strips butted end to end, the end joints of neighbouring rows kept apart by a least distance.',
  moduleLabel: 'Row width',
  endGrain: false,
  measures: [
    { key: 'shortest', label: 'Shortest piece', kind: 'length', fallback: 12 * INCH },
    { key: 'longest', label: 'Longest piece', kind: 'length', fallback: 24 * INCH },
    { key: 'apart', label: 'End joints apart, at least', kind: 'length', fallback: 4 * INCH },
    { key: 'seed', label: 'Draw', kind: 'count', fallback: 1, least: 1, most: 999 },
    ...ROW_MEASURES,
  ],
  start: { length: '44', width: '21', thickness: '1 1/2', module: '1 5/8', woods: ['beech_american'] },
  plan(order) {
    const { shop } = order;
    const a = shop.allowances;
    const [length, width, thickness] = sizesOf(order, [40 * INCH, 20 * INCH, 1.5 * INCH]);
    const { count, strip, exact } = rowOf(order, 'The row width', {
      total: width + 2 * a.trimEdge.mm,
      finished: width,
    });
    const draft = draftOf(order);
    const total = settable(shop, length + 2 * a.trimEnd.mm);
    const rows = staggeredRows({
      rows: count,
      total,
      shortest: requirePositive('The shortest piece', lengthOf(order, 'shortest')),
      longest: requirePositive('The longest piece', lengthOf(order, 'longest')),
      apart: lengthOf(order, 'apart'),
      step: shop.settingStep.mm,
      seed: numberOf(order, 'seed'),
    });
    const rip = exact ? strip + 2 * a.millEdge.mm : settable(shop, strip + 2 * a.millEdge.mm);
    const across = count * (rip - 2 * a.millEdge.mm);
    const glued = settable(shop, thickness + a.flattenPanel.mm);
    const rough = roughFor(shop, glued);
    const milled = ripAndMill(draft, {
      tag: '',
      name: 'Lay-up',
      slots: rows
        .flat()
        .map((mm, i) =>
          slot(`strip-${i + 1}`, woodOf(order, i), { length: mm, width: rip, thickness: rough }),
        ),
      dressed: glued,
    });
    draft.build.steps.push(
      {
        id: 'glue',
        kind: 'glue',
        inputs: [milled],
        output: 'panel',
        along: 'length',
        rows: { counts: rows.map((row) => row.length), across: 'width' },
      },
      {
        id: 'flatten',
        kind: 'flatten',
        inputs: ['panel'],
        output: 'flat',
        machine: panelMachine(draft, [total, across, glued]),
        top: half(glued - thickness),
        bottom: half(glued - thickness),
      },
    );
    trimStage(draft, 'flat', { from: [total, across], to: [length, width] });
    return finish(draft, [length, width, thickness]);
  },
};
