import { Refusal } from '../../document';
import { INCH } from '../../units';
import { requirePositive } from './parts';
import { lengthOf, numberOf, type Pattern } from './pattern';
import { ROW_MEASURES, rowOf, sizesOf, woodOf } from './sizes';
import { draftOf, finish, panelStage, trimStage } from './stages';

/** An L of two legs: each mitred at half the measured corner, stripes meeting at the joint. */
export const corner: Pattern = {
  id: 'corner',
  name: 'Mitred corner',
  group: 'Angles and blocks',
  about:
    'Two striped legs mitred at half the measured corner, so that every stripe meets its own at the joint.',
  moduleLabel: 'Strip width',
  sizeLabels: { length: 'First leg, outer length', width: 'Depth of both legs' },
  endGrain: false,
  measures: [
    { key: 'second', label: 'Second leg, outer length', kind: 'length', fallback: 34 * INCH },
    { key: 'angle', label: 'Corner as measured, degrees', kind: 'angle', fallback: 90, least: 60, most: 150 },
    ...ROW_MEASURES,
  ],
  start: {
    length: '46',
    width: '14',
    thickness: '1 1/8',
    module: '2 1/4',
    woods: ['oak_white', 'walnut_black'],
  },
  plan(order) {
    const { shop } = order;
    const a = shop.allowances;
    const [length, depth, thickness] = sizesOf(order, [46 * INCH, 14 * INCH, 1.125 * INCH]);
    const second = requirePositive('The second leg', lengthOf(order, 'second'));
    const angle = numberOf(order, 'angle');
    const runs = depth / Math.tan((angle * Math.PI) / 360);
    for (const leg of [length, second])
      if (leg <= runs)
        throw new Refusal([
          `The mitre of ${angle / 2} degrees runs `,
          { mm: runs },
          ' along a leg that is ',
          { mm: leg },
          ' long.',
        ]);
    const draft = draftOf(order);
    const { count, strip, exact } = rowOf(order, 'The strip', {
      total: depth + 2 * a.trimEdge.mm,
      finished: depth,
    });
    const legs = [length, second].map((outer, i) => {
      const tag = `leg-${i + 1}`;
      const panel = panelStage(draft, {
        tag,
        name: `Leg ${i + 1}`,
        strips: Array.from({ length: count }, (_, s) => ({
          wood: woodOf(order, s),
          mm: strip,
          exact,
        })),
        length: outer + 2 * a.trimEnd.mm,
        flat: thickness,
      });
      const square = trimStage(draft, panel.output, {
        from: [panel.length, panel.width],
        to: [outer, depth],
        name: {
          id: `square-${i + 1}`,
          output: `square-${i + 1}`,
          name: `Square leg ${i + 1}`,
        },
      });
      draft.build.steps.push({
        id: `mitre-${i + 1}`,
        kind: 'oblique',
        name: `Mitre leg ${i + 1}`,
        inputs: [square],
        output: `mitred-${i + 1}`,
        saw: draft.saw.id,
        tilt: 'mitre',
        angleDegrees: angle / 2,
        head: { mm: 0 },
        thickness: { mm: depth },
        count: 1,
        ends: i === 0 ? 'end' : 'start',
        long: 'near',
        corner: angle,
      });
      return { output: `mitred-${i + 1}`, piece: count > 1 ? `panel-${tag}` : `${tag}-strip-1` };
    });
    draft.build.steps.push({
      id: 'glue-corner',
      kind: 'glue',
      name: 'Glue the mitre',
      inputs: legs.map(({ output }) => output),
      output: 'piece',
      along: 'width',
      parts: [
        { piece: legs[0].piece, place: { x: { mm: 0 }, y: { mm: 0 } } },
        { piece: legs[1].piece, place: { x: { mm: length }, y: { mm: 0 }, angleDegrees: 180 - angle } },
      ],
    });
    const build = finish(draft, [length, second, thickness]);
    // The width of the whole is what the second leg makes it; away from the square neither leg is a side of the box.
    const [target] = build.targets;
    build.targets = [
      {
        ...target,
        length: angle === 90 ? target.length : { aim: 'free' },
        width: angle === 90 ? { aim: 'fixed', value: { mm: second } } : { aim: 'free' },
      },
    ];
    return build;
  },
};
