import { type BuildDocument, Refusal } from '../../document';
import { blankLengthForSlices, INCH } from '../../units';
import { plainSize } from '../aims';
import { flatteners } from '../machines';
import { emptyBuild, half, millMachine, requirePositive, settable, slot, targetOf, roughFor } from './parts';
import { numberOf, type Order, type Pattern } from './pattern';
import { heldModules } from './sizes';
import { draftOf, shareSlices } from './stages';

/**
 * Plans an end-grain block backwards: N rows along the length, n columns across the width. The panel's thickness
 * becomes the row, the slice's thickness the block's. Settings are rounded up to the shop's step, trims and the
 * flattening take the rounding, the finished size stays exact. Throws Refusal with the reason.
 */
function planEndGrain(order: Order): BuildDocument {
  const { brief, shop, name, use } = order;
  const { allowances: a } = shop;
  const square = requirePositive('The square', brief.module.mm);
  const rows = heldModules(brief.length, square, { usual: 12, even: false, held: numberOf(order, 'rows') });
  const columns = heldModules(brief.width, square, {
    usual: 8,
    even: brief.chequer,
    held: numberOf(order, 'columns'),
  });
  const length = requirePositive('The length', rows.sizeMm);
  const width = requirePositive('The width', columns.sizeMm);
  const thickness = requirePositive('The thickness', plainSize(brief.thickness, 1.5 * INCH));
  const saw = shop.saws.find(({ id }) => id === brief.saw);
  if (!saw) throw new Refusal([`The kit has no saw “${brief.saw}”.`]);
  const rowMm = settable(shop, (length + 2 * a.trimEnd.mm) / rows.count);
  const gluedMm = settable(shop, rowMm + a.flattenPanel.mm);
  const roughMm = roughFor(shop, gluedMm);
  const column = width / columns.count;
  const ripOf = (index: number) => {
    const edges = (index === 0 ? a.trimEdge.mm : 0) + (index === columns.count - 1 ? a.trimEdge.mm : 0);
    return settable(shop, column + edges + 2 * a.millEdge.mm);
  };
  const rips = Array.from({ length: columns.count }, (_, i) => ripOf(i));
  const panelWidth = rips.reduce((sum, rip) => sum + rip - 2 * a.millEdge.mm, 0);
  const sliceMm = settable(shop, thickness + a.flattenBlock.mm);
  const quantity = brief.quantity ?? 1;
  const wanted = rows.count * quantity + brief.extraSlices;
  // One block is cut from one panel; several share their panels, so that head, tail and kerf are lost once for all.
  const {
    copies,
    each: slices,
    length: panelLength,
  } = quantity > 1
    ? shareSlices(draftOf(order), wanted, sliceMm)
    : {
        copies: 1,
        each: wanted,
        length: settable(
          shop,
          blankLengthForSlices(wanted, sliceMm, saw.kerf.mm, {
            head: a.sliceHead.mm,
            remnant: a.sliceTail.mm,
          }),
        ),
      };
  const cut = (i: number) =>
    copies > 1 ? `slice.${Math.floor(i / slices) + 1}.${(i % slices) + 1}` : `slice.${i + 1}`;
  const blockLength = rows.count * rowMm;
  const mill = millMachine(shop);
  const [forBlock] = flatteners(shop, [blockLength, panelWidth, sliceMm], true);
  if (!forBlock)
    throw new Refusal([
      'No machine of the kit may flatten end grain of this size; a router sled or hand planes would.',
    ]);
  const build = emptyBuild(brief, shop, name, use);
  build.assemblies = [
    {
      id: 'lay-up',
      name: 'Lay-up',
      repeat: 1,
      slots: Array.from({ length: copies }, (_, c) =>
        rips.map((rip, i) =>
          slot(`strip-${c * rips.length + i + 1}`, brief.woods[i % brief.woods.length], {
            length: panelLength,
            width: rip,
            thickness: roughMm,
          }),
        ),
      ).flat(),
    },
  ];
  build.steps = [
    {
      id: 'rip',
      kind: 'rip',
      inputs: [],
      output: 'strips',
      assembly: 'lay-up',
      saw: brief.saw,
      fence: 'shared',
    },
    {
      id: 'mill',
      kind: 'mill',
      inputs: ['strips'],
      output: 'milled',
      machine: mill.id,
      face: half(roughMm - gluedMm),
      edge: a.millEdge,
    },
    {
      id: 'glue',
      kind: 'glue',
      inputs: ['milled'],
      output: 'panel',
      along: 'width',
      ...(copies > 1 ? { blanks: copies } : {}),
    },
    {
      id: 'flatten',
      kind: 'flatten',
      inputs: ['panel'],
      output: 'flat',
      machine: brief.flattenWith,
      top: half(gluedMm - rowMm),
      bottom: half(gluedMm - rowMm),
    },
    {
      id: 'slice',
      kind: 'slice',
      inputs: ['flat'],
      output: 'slices',
      saw: brief.saw,
      head: a.sliceHead,
      thickness: { mm: sliceMm },
      count: slices,
      hold: a.sliceTail,
    },
    { id: 'stand', kind: 'turn', inputs: ['slices'], output: 'standing', turn: 'standOnEnd' },
    {
      id: 'glue-block',
      kind: 'glue',
      name: 'Second glue-up',
      inputs: ['standing'],
      output: 'block',
      along: 'length',
      ...(brief.chequer ? { turns: { turn: 'endForEnd' as const, every: 2, first: 2, except: [] } } : {}),
      ...(copies * slices > rows.count
        ? { parts: Array.from({ length: rows.count * quantity }, (_, i) => ({ piece: cut(i) })) }
        : {}),
      ...(quantity > 1 ? { blanks: quantity } : {}),
    },
    {
      id: 'flatten-block',
      kind: 'flatten',
      inputs: ['block'],
      output: 'flat-block',
      machine: forBlock.id,
      top: half(sliceMm - thickness),
      bottom: half(sliceMm - thickness),
    },
    {
      id: 'trim',
      kind: 'trim',
      inputs: ['flat-block'],
      output: 'piece',
      cutter: brief.trimWith,
      start: half(blockLength - length),
      end: half(blockLength - length),
      near: half(panelWidth - width),
      far: half(panelWidth - width),
    },
  ];
  build.targets = [targetOf(brief, 'piece', [length, width, thickness], use || name)];
  return build;
}

/** Squares of end grain, every other slice turned: the chequer. */
export const endGrain: Pattern = {
  id: 'endGrain',
  name: 'End-grain chequer',
  group: 'End grain',
  about:
    'A striped panel is sliced, the slices stood on end and every other one turned: a board of end-grain squares.',
  moduleLabel: 'Side of a square, about',
  endGrain: true,
  batch: true,
  spares: true,
  measures: [
    { key: 'rows', label: 'Rows held, 0 for as many as suit', kind: 'count', fallback: 0, most: 200 },
    { key: 'columns', label: 'Columns held, 0 for as many as suit', kind: 'count', fallback: 0, most: 200 },
  ],
  start: {
    length: '15',
    width: '10',
    thickness: '1 5/8',
    module: '1 1/4',
    woods: ['walnut_black', 'maple_sugar'],
  },
  plan: planEndGrain,
};
