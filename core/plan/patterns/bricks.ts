import { Refusal } from '../../document';
import { INCH } from '../../units';
import { half, requirePositive, settable, slot } from './parts';
import { lengthOf, numberOf, type Order, type Pattern, wordOf } from './pattern';
import { sizesOf } from './sizes';
import {
  type Draft,
  draftOf,
  finish,
  flattenBlockStage,
  panelMachine,
  panelStage,
  rowsGlue,
  shareSlices,
  sliceStage,
  type StripPlan,
} from './stages';

/** How many bricks to a row and how wide one is, so that after squaring off half a pitch the width is whole. mm. */
function rowOf(order: Order, width: number, mortar: number): { count: number; brick: number } {
  const about = requirePositive('The brick', order.brief.module.mm);
  const held = numberOf(order, 'perRow');
  const pitch = about + mortar;
  const needed = width + 2 * order.shop.allowances.trimEdge.mm + mortar;
  const count = held > 0 ? held : Math.max(2, Math.round(needed / pitch + 0.5));
  const brick = needed / (count - 0.5) - mortar;
  if (brick <= 0)
    throw new Refusal([
      `${count} bricks to a row leave no brick between mortar strips of `,
      { mm: mortar },
      '.',
    ]);
  return { count, brick };
}

/** Bricks, rows shifted by half a pitch, with or without thin mortar strips between them. */
export const bricks: Pattern = {
  id: 'bricks',
  name: 'Bricks',
  group: 'End grain',
  about:
    'Rows of bricks shifted by half a pitch; the first wood makes the bricks, the last the mortar between them.',
  moduleLabel: 'Brick, about',
  endGrain: true,
  batch: true,
  spares: true,
  measures: [
    { key: 'height', label: 'Brick height, about', kind: 'length', fallback: 0.875 * INCH },
    { key: 'mortar', label: 'Mortar, 0 for none', kind: 'length', fallback: 0.125 * INCH },
    { key: 'perRow', label: 'Bricks to a row, 0 for as many as fit', kind: 'count', fallback: 0, most: 100 },
    {
      key: 'grain',
      label: 'The face shows',
      kind: 'choice',
      fallback: 'end',
      options: [
        { value: 'end', label: 'End grain' },
        { value: 'face', label: 'Face grain' },
      ],
    },
  ],
  start: {
    length: '15',
    width: '9 1/2',
    thickness: '1 3/8',
    module: '1 7/8',
    woods: ['cherry_black', 'maple_sugar'],
  },
  plan(order) {
    const { shop } = order;
    const a = shop.allowances;
    const [length, width, thickness] = sizesOf(order);
    const mortar = lengthOf(order, 'mortar');
    const { count, brick } = rowOf(order, width, mortar);
    const high = requirePositive('The brick height', lengthOf(order, 'height'));
    const long = length + 2 * a.trimEnd.mm;
    const rows = Math.max(2, Math.round((long + mortar) / (high + mortar)));
    const row = settable(shop, (long + mortar) / rows - mortar);
    if (row <= 0)
      throw new Refusal([
        `${rows} rows with mortar strips of `,
        { mm: mortar },
        ' leave no height for a brick.',
      ]);
    const wood = (i: number) =>
      order.brief.woods[i % Math.max(1, order.brief.woods.length - (mortar > 0 ? 1 : 0))];
    const last = order.brief.woods[order.brief.woods.length - 1];
    const strips: StripPlan[] = Array.from({ length: count }, (_, i): StripPlan[] => [
      ...(i > 0 && mortar > 0 ? [{ wood: last, mm: mortar }] : []),
      { wood: wood(i), mm: brick },
    ]).flat();
    const draft = draftOf(order);
    const sizes = { rows, row, mortar, strips, last, length, width, thickness };
    return wordOf(order, 'grain') === 'face' ? faceBricks(draft, sizes) : endBricks(draft, sizes);
  },
};

interface Wall {
  rows: number;
  row: number;
  mortar: number;
  strips: StripPlan[];
  last: string;
  length: number;
  width: number;
  thickness: number;
}

/** End grain: a layer of mortar is glued under the panel before it is sliced, so that all grain stands upright. */
function endBricks(draft: Draft, wall: Wall) {
  const { shop } = draft;
  const a = shop.allowances;
  const { rows, row, mortar, thickness } = wall;
  const slice = settable(shop, thickness + a.flattenBlock.mm);
  const quantity = draft.brief.quantity ?? 1;
  const share = shareSlices(draft, rows * quantity + draft.brief.extraSlices, slice);
  const panel = panelStage(draft, {
    tag: '',
    name: 'Bricks',
    strips: wall.strips,
    length: share.length,
    flat: row,
    copies: share.copies,
  });
  let made = panel;
  let over = 0;
  if (mortar > 0) {
    const layer = panelStage(draft, {
      tag: 'mortar',
      name: 'Mortar layer',
      strips: [{ wood: wall.last, mm: panel.width }],
      length: share.length,
      flat: mortar,
      copies: share.copies,
    });
    const parts = Array.from({ length: share.copies }, (_, i) => [
      { piece: `mortar-strip-${i + 1}` },
      { piece: share.copies > 1 ? `panel.${i + 1}` : 'panel' },
    ]).flat();
    draft.build.steps.push({
      id: 'glue-mortar',
      kind: 'glue',
      name: 'Mortar under the bricks',
      inputs: [layer.output, panel.output],
      output: 'wall',
      along: 'thickness',
      parts,
      ...(share.copies > 1 ? { blanks: share.copies } : {}),
    });
    made = { ...panel, output: 'wall', thickness: row + mortar };
    over = layer.width - panel.width;
  }
  const cut = sliceStage(draft, made, { tag: '', sliceMm: slice, each: share.each });
  const shift = (panel.strips[0] + (mortar > 0 ? panel.strips[1] : 0)) / 2;
  draft.build.steps.push(
    rowsGlue([cut.output], {
      shifts: { by: { mm: shift }, every: 2, first: 2, except: [] },
      parts: cut.ids.slice(0, rows * quantity).map((piece) => ({ piece })),
      ...(quantity > 1 ? { blanks: quantity } : {}),
    }),
  );
  const long = rows * made.thickness;
  const flat = flattenBlockStage(draft, 'block', [long, panel.width + shift, slice], thickness);
  return squared(draft, flat, wall, { long, wide: panel.width, shift, outside: mortar, over });
}

/** A wall of shifted rows as glued, mm: `outside` is mortar past the last row, `over` what stands out at the far edge. */
interface Glued {
  long: number;
  wide: number;
  shift: number;
  outside: number;
  over: number;
}

/** Squares off the shifted rows and trims to size; the mortar outside the last row goes with the end. */
function squared(draft: Draft, input: string, wall: Wall, { long, wide, shift, outside, over }: Glued) {
  const { length, width, thickness } = wall;
  const across = wide - shift - width;
  const along = long - outside - length;
  if (across < -1e-6 || along < -1e-6)
    throw new Refusal([
      'After squaring off half a pitch the wall is ',
      { mm: wide - shift },
      ' by ',
      { mm: long - outside },
      ', less than the size asked for.',
    ]);
  draft.build.steps.push({
    id: 'trim',
    kind: 'trim',
    inputs: [input],
    output: 'piece',
    cutter: draft.brief.trimWith,
    ...(outside > 0 || over > 0 ? { uneven: true } : {}),
    // Standing on end, the under side of the panel comes to lie at the start of the length.
    start: { mm: Math.max(0, along) / 2 + outside },
    end: half(Math.max(0, along)),
    near: { mm: Math.max(0, across) / 2 + shift },
    far: { mm: Math.max(0, across) / 2 + shift + over },
  });
  return finish(draft, [length, width, thickness]);
}

/** Face grain: slices lie flat, and mortar strips go between the rows. */
function faceBricks(draft: Draft, wall: Wall) {
  const { shop } = draft;
  const a = shop.allowances;
  const { rows, row, mortar, thickness } = wall;
  const quantity = draft.brief.quantity ?? 1;
  const share = shareSlices(draft, rows * quantity + draft.brief.extraSlices, row);
  const thick = settable(shop, thickness + a.flattenPanel.mm);
  const panel = panelStage(draft, {
    tag: '',
    name: 'Bricks',
    strips: wall.strips,
    length: share.length,
    flat: thick,
    copies: share.copies,
  });
  const cut = sliceStage(draft, panel, { tag: '', sliceMm: row, each: share.each, stand: false });
  const shift = (panel.strips[0] + (mortar > 0 ? panel.strips[1] : 0)) / 2;
  const inputs = [cut.output];
  if (mortar > 0) {
    inputs.push('mortar-strips');
    draft.build.assemblies.push({
      id: 'lay-up-mortar',
      name: 'Mortar strips',
      repeat: 1,
      slots: Array.from({ length: (rows - 1) * quantity }, (_, i) =>
        slot(`mortar-${i + 1}`, wall.last, {
          length: settable(shop, panel.width + shift),
          width: mortar,
          thickness: thick,
        }),
      ),
    });
    draft.build.steps.push({
      id: 'rip-mortar',
      kind: 'rip',
      inputs: [],
      output: 'mortar-strips',
      assembly: 'lay-up-mortar',
      saw: draft.saw.id,
      fence: 'shared',
    });
  }
  const parts = cut.ids.slice(0, rows * quantity).flatMap((piece, i) => {
    const [wall, nth] = [Math.floor(i / rows), i % rows];
    const strip = { piece: `mortar-${wall * (rows - 1) + nth}`, quarter: true };
    return [...(nth > 0 && mortar > 0 ? [strip] : []), { piece }];
  });
  draft.build.steps.push(
    rowsGlue(inputs, {
      parts,
      shifts: { by: { mm: shift }, every: mortar > 0 ? 4 : 2, first: mortar > 0 ? 3 : 2, except: [] },
      ...(quantity > 1 ? { blanks: quantity } : {}),
    }),
  );
  const long = rows * row + (rows - 1) * mortar;
  const box = settable(shop, panel.width + shift);
  draft.build.steps.push({
    id: 'flatten-block',
    kind: 'flatten',
    inputs: ['block'],
    output: 'flat-block',
    machine: panelMachine(draft, [long, box, thick]),
    top: half(thick - thickness),
    bottom: half(thick - thickness),
  });
  // Mortar strips are rounded up and stand over at the far edge by as much.
  const over = mortar > 0 ? box - (panel.width + shift) : 0;
  return squared(draft, 'flat-block', wall, { long, wide: panel.width, shift, outside: 0, over });
}
