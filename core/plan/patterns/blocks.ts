import { type LaidPart, Refusal } from '../../document';
import { asTrim } from '../../steps';
import { blankLengthForSlices, INCH } from '../../units';
import { requirePositive, settable } from './parts';
import { lengthOf, numberOf, type Order, type Pattern, wordOf } from './pattern';
import { sizesOf } from './sizes';
import {
  type Draft,
  draftOf,
  finish,
  flattenBlockStage,
  type Made,
  panelStage,
  sliceStage,
  trimStage,
} from './stages';

/** The picture as rows of letters; every letter is one of the woods. Throws Refusal, with the difference, where rows disagree. */
export function pictureOf(map: string, woods: number, pixel: number): number[][] {
  const lines = map
    .split(/[\n/]+/)
    .map((line) => line.trim().toLowerCase())
    .filter(Boolean);
  if (lines.length === 0)
    throw new Refusal(['Draw the picture: rows of letters such as aba / bab, a for the first wood.']);
  if (lines.length > 24 || Math.max(...lines.map((l) => l.length)) > 40)
    throw new Refusal(['A picture has at most 24 rows of 40 squares.']);
  for (const [i, line] of lines.entries()) {
    const off = line.length - lines[0].length;
    if (off)
      throw new Refusal([
        `Row ${i + 1} of the picture has ${line.length} squares and row 1 has ${lines[0].length}: its panel would be `,
        { mm: Math.abs(off) * pixel },
        ` ${off > 0 ? 'wider' : 'narrower'}.`,
      ]);
  }
  return lines.map((line, i) =>
    [...line].map((letter) => {
      const wood = letter.charCodeAt(0) - 97;
      if (wood < 0 || wood >= woods)
        throw new Refusal([
          `“${letter}” in row ${i + 1} is no wood of this job: there are ${woods}, a to ${String.fromCharCode(96 + woods)}.`,
        ]);
      return wood;
    }),
  );
}

/** A thin upright wall of end grain between blocks: a wide board, sliced, each slice a quarter turned. */
function separators(
  draft: Draft,
  order: Order,
  { width, length, slice, count }: { width: number; length: number; slice: number; count: number },
): { output: string; ids: string[] } {
  const { shop } = order;
  const a = shop.allowances;
  const strips = Math.max(1, Math.ceil(length / (6 * INCH)));
  const panel: Made = panelStage(draft, {
    tag: 'line',
    name: 'Separators',
    strips: Array.from({ length: strips }, () => ({
      wood: order.brief.woods[order.brief.woods.length - 1],
      mm: length / strips,
    })),
    length: blankLengthForSlices(count, slice, draft.saw.kerf.mm, {
      head: a.sliceHead.mm,
      remnant: a.sliceTail.mm,
    }),
    flat: width,
  });
  return sliceStage(draft, panel, { tag: 'line', sliceMm: slice, each: count });
}

/** Pictorial rows: a small picture of squares, made several times, mirrored in turn, blocks sharing one line. */
export const blocks: Pattern = {
  id: 'blocks',
  name: 'Picture blocks',
  group: 'Angles and blocks',
  about:
    'A picture of squares repeated in a row, every other block mirrored; neighbours share one separating line.',
  moduleLabel: 'Side of a square, about',
  endGrain: true,
  measures: [
    { key: 'map', label: 'Picture, a for the first wood', kind: 'words', fallback: 'aaba / abba / bbba' },
    { key: 'count', label: 'Blocks in the row', kind: 'count', fallback: 3, least: 1, most: 12 },
    {
      key: 'mirror',
      label: 'Every other block',
      kind: 'choice',
      fallback: 'yes',
      options: [
        { value: 'yes', label: 'Mirrored' },
        { value: 'no', label: 'Alike' },
      ],
    },
    { key: 'line', label: 'Separator, 0 for none', kind: 'length', fallback: 0.25 * INCH },
    {
      key: 'outside',
      label: 'Separator outside too',
      kind: 'choice',
      fallback: 'no',
      options: [
        { value: 'no', label: 'No' },
        { value: 'yes', label: 'Yes' },
      ],
    },
  ],
  start: {
    length: '5',
    width: '17',
    thickness: '1 1/4',
    module: '1 3/8',
    woods: ['maple_sugar', 'walnut_black', 'cherry_black'],
  },
  plan(order) {
    const { shop, brief } = order;
    const a = shop.allowances;
    const [length, width, thickness] = sizesOf(order);
    const count = numberOf(order, 'count');
    const line = count > 1 || wordOf(order, 'outside') === 'yes' ? lengthOf(order, 'line') : 0;
    const outside = line > 0 && wordOf(order, 'outside') === 'yes';
    const lines = line > 0 ? count - 1 + (outside ? 2 : 0) : 0;
    const about = requirePositive('The square', brief.module.mm);
    const picture = pictureOf(wordOf(order, 'map'), brief.woods.length, about);
    const columns = picture[0].length;
    const square = (width + 2 * a.trimEdge.mm - lines * line) / (count * columns);
    if (square <= 0)
      throw new Refusal([`${lines} separators of `, { mm: line }, ' leave no width for the squares.']);
    const draft = draftOf(order);
    const slice = settable(shop, thickness + a.flattenBlock.mm);
    const high = settable(shop, (length + 2 * a.trimEnd.mm) / picture.length);
    const kinds = [...new Set(picture.map((row) => row.join()))];
    const panels = kinds.map((kind, k) => {
      const rows = picture.filter((row) => row.join() === kind).length;
      const tag = `row-${k + 1}`;
      const panel = panelStage(draft, {
        tag,
        name: `Row ${k + 1}`,
        strips: kind.split(',').map((wood) => ({ wood: brief.woods[Number(wood)], mm: square })),
        length: blankLengthForSlices(rows * count, slice, draft.saw.kerf.mm, {
          head: a.sliceHead.mm,
          remnant: a.sliceTail.mm,
        }),
        flat: high,
      });
      return { panel, cut: sliceStage(draft, panel, { tag, sliceMm: slice, each: rows * count }), taken: 0 };
    });
    const parts = Array.from({ length: count }, () =>
      picture.map((row): LaidPart => {
        const from = panels[kinds.indexOf(row.join())];
        return { piece: from.cut.ids[from.taken++] };
      }),
    ).flat();
    draft.build.steps.push({
      id: 'glue-blocks',
      kind: 'glue',
      name: 'Glue the blocks',
      inputs: panels.map(({ cut }) => cut.output),
      output: 'blocks',
      along: 'length',
      parts,
      ...(count > 1 ? { blanks: count } : {}),
    });
    const long = picture.length * high;
    const wall =
      lines > 0 ? separators(draft, order, { width: line, length: long, slice, count: lines }) : undefined;
    const mirror = wordOf(order, 'mirror') === 'yes';
    const row = Array.from({ length: count }, (_, b): LaidPart[] => {
      const before = b > 0 ? b - 1 + (outside ? 1 : 0) : outside ? 0 : -1;
      return [
        ...(wall && before >= 0 ? [{ piece: wall.ids[before], quarter: true }] : []),
        { piece: count > 1 ? `blocks.${b + 1}` : 'blocks', ...(mirror && b % 2 ? { rollOver: true } : {}) },
        ...(wall && outside && b === count - 1 ? [{ piece: wall.ids[lines - 1], quarter: true }] : []),
      ];
    }).flat();
    let output = 'blocks';
    if (row.length > 1) {
      output = 'row';
      draft.build.steps.push({
        id: 'glue-row',
        kind: 'glue',
        name: 'Join the blocks',
        inputs: ['blocks', ...(wall ? [wall.output] : [])],
        output,
        along: 'width',
        parts: row,
      });
    }
    const wide = count * panels[0].panel.width + lines * line;
    // Separators are rounded up along the blocks and stand over at one end.
    const over = wall
      ? (draft.build.assemblies.at(-1)?.slots ?? []).reduce(
          (sum, s) => sum + s.width.mm - 2 * a.millEdge.mm,
          0,
        )
      : long;
    const size = [Math.max(long, over), wide] as const;
    const flat = flattenBlockStage(draft, output, [...size, slice], thickness);
    trimStage(draft, flat, { from: [long, wide], to: [length, width] });
    const trim = asTrim(draft.build.steps.at(-1));
    if (trim && size[0] > long) {
      trim.end = { mm: trim.end.mm + size[0] - long };
      trim.uneven = true;
    }
    return finish(draft, [length, width, thickness]);
  },
};
