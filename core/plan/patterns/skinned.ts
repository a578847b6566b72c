import { Refusal } from '../../document';
import { INCH, sumOf } from '../../units';
import { half, requirePositive, settable } from './parts';
import { lengthOf, type Pattern, wordOf } from './pattern';
import { ROW_MEASURES, rowOf, sizesOf } from './sizes';
import { draftOf, finish, type Made, panelMachine, panelStage, type StripPlan, trimStage } from './stages';

/** A hardwood skin on one or both faces of a core. Skins and core are glued up as panels first, then face to face. */
export const skinned: Pattern = {
  id: 'skinned',
  name: 'Skin on a core',
  group: 'Layers',
  about:
    'A panel in the first wood glued face to face on a core in the second; a skin on both faces keeps it flat.',
  moduleLabel: 'Strip width',
  endGrain: false,
  measures: [
    { key: 'skin', label: 'Skin, finished', kind: 'length', fallback: 0.25 * INCH },
    {
      key: 'faces',
      label: 'Skin on',
      kind: 'choice',
      fallback: 'both',
      options: [
        { value: 'both', label: 'Both faces' },
        { value: 'top', label: 'The upper face' },
      ],
    },
    ...ROW_MEASURES,
  ],
  start: {
    length: '40',
    width: '15',
    thickness: '1 3/8',
    module: '3',
    woods: ['walnut_black', 'pine_eastern_white'],
  },
  plan(order) {
    const { shop, brief } = order;
    const a = shop.allowances;
    const [length, width, thickness] = sizesOf(order, [40 * INCH, 15 * INCH, 1.375 * INCH]);
    const skin = requirePositive('The skin', lengthOf(order, 'skin'));
    const both = wordOf(order, 'faces') === 'both';
    const core = thickness - (both ? 2 : 1) * skin;
    if (core <= 0)
      throw new Refusal([
        'The skins take ',
        { mm: (both ? 2 : 1) * skin },
        ' of ',
        { mm: thickness },
        ': nothing is left for the core.',
      ]);
    const draft = draftOf(order);
    const { count, strip, exact } = rowOf(order, 'The strip width', {
      total: width + 2 * a.trimEdge.mm,
      finished: width,
    });
    const strips = (wood: string): StripPlan[] =>
      Array.from({ length: count }, () => ({ wood, mm: strip, exact }));
    const long = length + 2 * a.trimEnd.mm;
    // What the last flattening takes comes off the outer faces, so the skins there are thicker by half of it.
    const dress = a.flattenPanel.mm / 2;
    const layer = (tag: string, name: string, wood: string, flat: number): Made =>
      panelStage(draft, { tag, name, strips: strips(wood), length: long, flat: settable(shop, flat) });
    const layers = [
      layer('core', 'Core', brief.woods[1] ?? brief.woods[0], core + (both ? 0 : dress)),
      layer('top', 'Upper skin', brief.woods[0], skin + dress),
    ];
    if (both) layers.unshift(layer('under', 'Lower skin', brief.woods[2] ?? brief.woods[0], skin + dress));
    const thick = sumOf(layers, (made) => made.thickness);
    draft.build.steps.push(
      {
        id: 'glue-faces',
        kind: 'glue',
        name: 'Glue face to face',
        inputs: layers.map(({ output }) => output),
        output: 'sandwich',
        along: 'thickness',
      },
      {
        id: 'flatten',
        kind: 'flatten',
        inputs: ['sandwich'],
        output: 'flat',
        machine: panelMachine(draft, [layers[0].length, layers[0].width, thick]),
        top: half(thick - thickness),
        bottom: half(thick - thickness),
      },
    );
    trimStage(draft, 'flat', { from: [layers[0].length, layers[0].width], to: [length, width] });
    return finish(draft, [length, width, thickness]);
  },
};
