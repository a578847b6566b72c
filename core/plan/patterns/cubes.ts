import { type LaidPart, Refusal } from '../../document';
import { countNeeded } from '../../units';
import { requirePositive, settable, slot, roughFor } from './parts';
import type { Pattern } from './pattern';
import { sizesOf, woodOf } from './sizes';
import {
  type Draft,
  draftOf,
  finish,
  flattenBlockStage,
  ripAndMill,
  rowsGlue,
  shareSlices,
  sliceStage,
  trimStage,
} from './stages';

const ROOT3 = Math.sqrt(3);

/** Thickness of the boards and rip pitch for rhombus sticks of side s with kerf k: s sqrt 3 / 2 and s + k / sin 60. mm. */
export const rhombus = (side: number, kerf: number): { thickness: number; pitch: number } => ({
  thickness: (side * ROOT3) / 2,
  pitch: side + (2 * kerf) / ROOT3,
});

/** Sticks of one wood: boards planed to the rhombus' height and ripped with the blade at 60 degrees. */
function sticks(
  draft: Draft,
  tag: string,
  { wood, side, count, length }: { wood: string; side: number; count: number; length: number },
): string {
  const { shop } = draft;
  const a = shop.allowances;
  const { thickness, pitch } = rhombus(side, draft.saw.kerf.mm);
  const rough = roughFor(shop, thickness);
  // Between the slanted edges of the first and the last stick there is half a side more.
  const width = settable(shop, (count - 1) * pitch + 1.5 * side + 2 * a.millEdge.mm);
  const milled = ripAndMill(draft, {
    tag,
    name: `Sticks ${tag.toUpperCase()}`,
    slots: [slot(`board-${tag}`, wood, { length, width, thickness: rough })],
    dressed: thickness,
  });
  draft.build.steps.push({
    id: `sticks-${tag}`,
    kind: 'oblique',
    name: 'Rip with the blade at 60°',
    inputs: [milled],
    output: `sticks-${tag}`,
    saw: draft.saw.id,
    tilt: 'ripBevel',
    angleDegrees: 60,
    head: { mm: 0 },
    thickness: { mm: thickness },
    count,
  });
  return `sticks-${tag}`;
}

/** Cubes that seem to stand out: three rhombus sticks make a hexagon, hexagons sliced and laid like honeycomb. */
export const cubes: Pattern = {
  id: 'cubes',
  name: 'Standing cubes',
  group: 'Angles and blocks',
  about:
    'Three rhombus sticks of three woods make a hexagonal log; its slices, laid like honeycomb, look like cubes.',
  moduleLabel: 'Side of a cube',
  endGrain: true,
  spares: true,
  measures: [],
  start: {
    length: '14',
    width: '10',
    thickness: '1 1/4',
    module: '1 1/8',
    woods: ['walnut_black', 'cherry_black', 'maple_sugar'],
  },
  plan(order) {
    const { shop, brief } = order;
    const a = shop.allowances;
    const [length, width, thickness] = sizesOf(order);
    const side = requirePositive('The side', brief.module.mm);
    const half60 = (side * ROOT3) / 2;
    const columns = Math.max(1, countNeeded((width + 2 * a.trimEdge.mm - side) / (1.5 * side)) + 1);
    const rows = Math.max(1, countNeeded((length + 2 * a.trimEnd.mm + half60) / (ROOT3 * side)));
    if (rows * columns > 400)
      throw new Refusal([
        `That would be ${rows * columns} cubes with sides of `,
        { mm: side },
        '; Junta plans up to 400.',
      ]);
    const draft = draftOf(order);
    const slice = settable(shop, thickness + a.flattenBlock.mm);
    const share = shareSlices(draft, rows * columns + brief.extraSlices, slice);
    const woods = ['a', 'b', 'c'].map((tag, i) =>
      sticks(draft, tag, { wood: woodOf(order, i), side, count: share.copies, length: share.length }),
    );
    const parts = Array.from({ length: share.copies }, (_, i) =>
      ['a', 'b', 'c'].map((tag, turn): LaidPart => {
        const angle = (turn * 2 * Math.PI) / 3;
        return {
          piece: `sticks-${tag}.${i + 1}`,
          place: {
            about: 'length',
            angleDegrees: turn * 120,
            // The corner of 120 degrees, one side from the stick's least corner, comes to lie on the log's middle.
            y: { mm: -side * Math.cos(angle) },
            z: { mm: -side * Math.sin(angle) },
          },
        };
      }),
    ).flat();
    draft.build.steps.push({
      id: 'glue-logs',
      kind: 'glue',
      name: 'Glue the hexagonal logs',
      inputs: woods,
      output: 'logs',
      along: 'width',
      parts,
      ...(share.copies > 1 ? { blanks: share.copies } : {}),
    });
    const logs = {
      output: 'logs',
      length: share.length,
      width: 2 * side,
      thickness: 2 * half60,
      strips: [],
      copies: share.copies,
    };
    const cut = sliceStage(draft, logs, { tag: '', sliceMm: slice, each: share.each });
    draft.build.steps.push(
      rowsGlue([cut.output], {
        parts: cut.ids.slice(0, rows * columns).map((piece, i) => {
          const [row, column] = [Math.floor(i / columns), i % columns];
          return {
            piece,
            place: {
              x: { mm: ROOT3 * side * row + (column % 2 ? half60 : 0) },
              y: { mm: 1.5 * side * column },
            },
          };
        }),
      }),
    );
    const size = [
      ROOT3 * side * rows + (columns > 1 ? half60 : 0),
      1.5 * side * (columns - 1) + 2 * side,
    ] as const;
    const flat = flattenBlockStage(draft, 'block', [...size, slice], thickness);
    trimStage(draft, flat, { from: size, to: [length, width] });
    return finish(draft, [length, width, thickness]);
  },
};
