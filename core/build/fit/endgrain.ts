import type { ShopSnapshot } from '../../kit';
import { INCH } from '../../units';
import { blankLengthForSlices } from '../arithmetic';
import type { Brief, BuildDocument } from '../document';
import { plainSize, wholeModules } from './aims';
import { flatteners } from './machines';
import { CannotFit, emptyBuild, half, millMachine, requirePositive, settable, slot, targetOf } from './parts';

/**
 * Plans an end-grain block backwards: N rows along the length, n columns across the width. The panel's thickness
 * becomes the row, the slice's thickness the block's. Settings are rounded up to the shop's step, trims and the
 * flattening take the rounding, the finished size stays exact. Throws CannotFit with the reason.
 */
export function fitEndGrain(brief: Brief, shop: ShopSnapshot, name: string, use: string): BuildDocument {
  const { allowances: a } = shop;
  const square = requirePositive('The square', brief.module.mm);
  const rows = wholeModules(brief.length, square, 12, false);
  const columns = wholeModules(brief.width, square, 8, brief.chequer);
  const length = requirePositive('The length', rows.sizeMm);
  const width = requirePositive('The width', columns.sizeMm);
  const thickness = requirePositive('The thickness', plainSize(brief.thickness, 1.5 * INCH));
  const saw = shop.saws.find(({ id }) => id === brief.saw);
  if (!saw) throw new CannotFit(`The kit has no saw “${brief.saw}”.`);
  const rowMm = settable(shop, (length + 2 * a.trimEnd.mm) / rows.count);
  const gluedMm = settable(shop, rowMm + a.flattenPanel.mm);
  const roughMm = settable(shop, gluedMm + 2 * a.millFace.mm);
  const column = width / columns.count;
  const ripOf = (index: number) => {
    const edges = (index === 0 ? a.trimEdge.mm : 0) + (index === columns.count - 1 ? a.trimEdge.mm : 0);
    return settable(shop, column + edges + 2 * a.millEdge.mm);
  };
  const rips = Array.from({ length: columns.count }, (_, i) => ripOf(i));
  const panelWidth = rips.reduce((sum, rip) => sum + rip - 2 * a.millEdge.mm, 0);
  const sliceMm = settable(shop, thickness + a.flattenBlock.mm);
  const slices = rows.count + brief.extraSlices;
  const panelLength = settable(
    shop,
    blankLengthForSlices(slices, sliceMm, saw.kerf.mm, a.sliceHead.mm, a.sliceTail.mm),
  );
  const blockLength = rows.count * rowMm;
  const mill = millMachine(shop);
  const [forBlock] = flatteners(shop, [blockLength, panelWidth, sliceMm], true);
  if (!forBlock)
    throw new CannotFit(
      'No machine of the kit may flatten end grain of this size; a router sled or hand planes would.',
    );
  const build = emptyBuild(brief, shop, name, use);
  build.assemblies = [
    {
      id: 'lay-up',
      name: 'Lay-up',
      repeat: 1,
      slots: rips.map((rip, i) =>
        slot(`strip-${i + 1}`, brief.woods[i % brief.woods.length], panelLength, rip, roughMm),
      ),
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
    { id: 'glue', kind: 'glue', inputs: ['milled'], output: 'panel', along: 'width' },
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
      ...(brief.extraSlices > 0
        ? { parts: Array.from({ length: rows.count }, (_, i) => ({ piece: `slice.${i + 1}` })) }
        : {}),
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
