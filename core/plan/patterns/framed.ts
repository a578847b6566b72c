import { type LaidPart, Refusal } from '../../document';
import { glueUps } from '../../steps';
import { INCH } from '../../units';
import { half, requirePositive, settable, slot, roughFor } from './parts';
import { lengthOf, type Pattern, wordOf } from './pattern';
import { ROW_MEASURES, rowOf, sizesOf, woodOf } from './sizes';
import { draftOf, finish, panelMachine, panelStage, ripAndMill, trimStage } from './stages';

/** A panel with a border: mitred, butted, or end caps alone. The review says where that goes against the grain. */
export const framed: Pattern = {
  id: 'framed',
  name: 'Frame or end caps',
  group: 'Angles and blocks',
  about: 'A panel of strips with a border of the last wood: mitred, butted, or end caps alone.',
  moduleLabel: 'Strip of the field',
  endGrain: false,
  measures: [
    { key: 'border', label: 'Border', kind: 'length', fallback: 1.5 * INCH },
    {
      key: 'corners',
      label: 'Corners',
      kind: 'choice',
      fallback: 'mitred',
      options: [
        { value: 'mitred', label: 'Mitred' },
        { value: 'butted', label: 'Butted' },
        { value: 'caps', label: 'End caps alone' },
      ],
    },
    ...ROW_MEASURES,
  ],
  start: {
    length: '24',
    width: '14',
    thickness: '7/8',
    module: '2',
    woods: ['maple_sugar', 'cherry_black', 'walnut_black'],
  },
  plan(order) {
    const { shop, brief } = order;
    const a = shop.allowances;
    const [length, width, thickness] = sizesOf(order, [24 * INCH, 14 * INCH, 0.875 * INCH]);
    const border = requirePositive('The border', lengthOf(order, 'border'));
    const corners = wordOf(order, 'corners');
    const sides = corners !== 'caps';
    const field = [length - 2 * border, sides ? width - 2 * border : width] as const;
    if (field[0] <= 0 || field[1] <= 0)
      throw new Refusal([
        'Two borders of ',
        { mm: border },
        ' leave no field in ',
        { mm: length },
        ' by ',
        { mm: width },
        '.',
      ]);
    const draft = draftOf(order);
    const inner = brief.woods.length > 1 ? brief.woods.length - 1 : 1;
    const edge = brief.woods[brief.woods.length - 1];
    const glued = settable(shop, thickness + a.flattenPanel.mm / 2);
    // Without borders along its sides the field keeps its edges until the last trim.
    const wide = sides ? field[1] : field[1] + 2 * a.trimEdge.mm;
    const { count, strip, exact } = rowOf(order, 'The strip', {
      total: wide + (sides ? 2 * a.trimEdge.mm : 0),
      finished: field[1],
    });
    const panel = panelStage(draft, {
      tag: 'field',
      name: 'Field',
      strips: Array.from({ length: count }, (_, i) => ({
        wood: woodOf({ ...order, brief: { ...brief, woods: brief.woods.slice(0, inner) } }, i),
        mm: strip,
        exact,
      })),
      length: field[0] + 2 * a.trimEnd.mm,
      flat: glued,
    });
    const squareWidth = sides ? field[1] : panel.width;
    const square = trimStage(draft, panel.output, {
      from: [panel.length, panel.width],
      to: [field[0], squareWidth],
      name: {
        id: 'square',
        output: 'square-field',
        name: 'Square the field',
      },
    });
    const rip = settable(shop, border + a.trimEdge.mm + 2 * a.millEdge.mm);
    const bar = rip - 2 * a.millEdge.mm;
    const rough = roughFor(shop, glued);
    const outer = [field[0] + 2 * bar, sides ? field[1] + 2 * bar : squareWidth] as const;
    const lengths = corners === 'mitred' ? [outer[1], outer[0]] : [squareWidth, outer[0]];
    const pieces = ['end-1', 'end-2', ...(sides ? ['side-1', 'side-2'] : [])];
    const bars = ripAndMill(draft, {
      tag: 'border',
      name: 'Border',
      slots: pieces.map((id, i) =>
        slot(id, edge, { length: lengths[i < 2 ? 0 : 1], width: rip, thickness: rough }),
      ),
      dressed: glued,
    });
    if (corners === 'mitred') {
      const place = (x: number, y: number, angleDegrees: number): LaidPart['place'] => ({
        x: { mm: x },
        y: { mm: y },
        angleDegrees,
      });
      draft.build.steps.push(
        {
          id: 'mitre',
          kind: 'oblique',
          name: 'Mitre the border',
          inputs: [bars],
          output: 'mitred',
          saw: draft.saw.id,
          tilt: 'mitre',
          angleDegrees: 45,
          head: { mm: 0 },
          thickness: { mm: bar },
          count: 1,
          ends: 'both',
          long: 'near',
        },
        {
          id: 'glue-frame',
          kind: 'glue',
          name: 'Glue the frame on',
          inputs: [square, 'mitred'],
          output: 'framed',
          along: 'width',
          parts: [
            { piece: 'panel-field', place: place(bar, bar, 0) },
            { piece: 'end-1', place: place(0, outer[1], 270) },
            { piece: 'end-2', place: place(outer[0], 0, 90) },
            { piece: 'side-1', place: place(0, 0, 0) },
            { piece: 'side-2', place: place(outer[0], outer[1], 180) },
          ],
        },
      );
    } else {
      const caps: LaidPart[] = [
        { piece: 'end-1', quarter: true },
        { piece: count > 1 ? 'panel-field' : 'field-strip-1' },
        { piece: 'end-2', quarter: true },
      ];
      draft.build.steps.push({
        id: 'glue-caps',
        kind: 'glue',
        name: 'Glue the end caps on',
        inputs: [square, bars],
        output: sides ? 'capped' : 'framed',
        along: 'length',
        parts: caps,
      });
      if (sides)
        draft.build.steps.push({
          id: 'glue-frame',
          kind: 'glue',
          name: 'Glue the sides on',
          inputs: ['capped', bars],
          output: 'framed',
          along: 'width',
          parts: [{ piece: 'side-1' }, { piece: 'capped' }, { piece: 'side-2' }],
        });
    }
    if (count === 1)
      for (const step of glueUps(draft.build))
        step.parts = step.parts?.map((part) =>
          part.piece === 'panel-field' ? { ...part, piece: 'field-strip-1' } : part,
        );
    draft.build.steps.push({
      id: 'flatten',
      kind: 'flatten',
      inputs: ['framed'],
      output: 'flat',
      machine: panelMachine(draft, [outer[0], outer[1], glued]),
      top: half(glued - thickness),
      bottom: half(glued - thickness),
    });
    trimStage(draft, 'flat', { from: outer, to: [length, width] });
    return finish(draft, [length, width, thickness]);
  },
};
