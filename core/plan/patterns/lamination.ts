import { type Step, Refusal } from '../../document';
import type { GlueStep } from '../../steps';
import { countNeeded, INCH, sumOf } from '../../units';
import { half, requirePositive, settable, slot, roughFor } from './parts';
import { lengthOf, numberOf, type Order, type Pattern, wordOf } from './pattern';
import { sizesOf, woodOf } from './sizes';
import { type Draft, draftOf, finish, panelMachine, ripAndMill, sawReaching, trimStage } from './stages';
import { staggeredRows } from './staggered';

/** A stack of dressed layers: how thick each is, how many, and what is left to dress. All mm. */
export interface Stack {
  layers: number;
  each: number;
  surplus: number;
}

/** Layers of a given dressed thickness for a height, with the least that dressing needs. The surplus is what comes off. */
export function stackFor(height: number, layer: number, dress: number): Stack {
  const layers = Math.max(1, countNeeded((height + dress) / layer));
  return { layers, each: layer, surplus: layers * layer - height };
}

/** Rows of pieces for every layer: whole boards, or pieces with butt joints staggered from layer to layer. */
function layerRows(order: Order, layers: number, total: number, stock: number): number[][] {
  const apart = lengthOf(order, 'apart');
  if (total <= stock + 1e-9) return Array.from({ length: layers }, () => [total]);
  return staggeredRows({
    rows: layers,
    total,
    shortest: Math.min(stock, Math.max(apart, stock / 4)),
    longest: stock,
    apart,
    step: order.shop.settingStep.mm,
    seed: 1,
  });
}

/** Lays layers face to face or on edge and dresses the surplus off; used by laminations and legs. */
export function laminate(
  draft: Draft,
  order: Order,
  {
    size,
    stack,
    face,
    rows,
  }: { size: readonly [number, number, number]; stack: Stack; face: boolean; rows: number[][] },
): { output: string; length: number; width: number } {
  const { shop } = order;
  const a = shop.allowances;
  const total = sumOf(rows[0]);
  const [, width, thickness] = size;
  const sawn = settable(
    shop,
    (face ? width + 2 * a.trimEdge.mm : thickness + a.flattenPanel.mm) + 2 * a.millEdge.mm,
  );
  const dressed = sawn - 2 * a.millEdge.mm;
  const rough = roughFor(shop, stack.each);
  ripAndMill(draft, {
    tag: '',
    name: 'Layers',
    slots: rows
      .flatMap((row, r) => row.map((mm) => ({ mm, wood: woodOf(order, r) })))
      .map(({ mm, wood }, i) => slot(`layer-${i + 1}`, wood, { length: mm, width: sawn, thickness: rough })),
    dressed: stack.each,
  });
  const steps: Step[] = [];
  if (!face)
    steps.push({ id: 'on-edge', kind: 'turn', inputs: ['milled'], output: 'edges', turn: 'tipOnEdge' });
  const butted = rows.some((row) => row.length > 1);
  const across = face ? 'thickness' : 'width';
  const glue: GlueStep = {
    id: 'glue',
    kind: 'glue',
    inputs: [face ? 'milled' : 'edges'],
    output: 'stack',
    along: butted ? 'length' : across,
    ...(butted ? { rows: { counts: rows.map((row) => row.length), across } } : {}),
  };
  const high = stack.layers * stack.each;
  const [wide, thick] = face ? [dressed, high] : [high, dressed];
  steps.push(glue, {
    id: 'flatten',
    kind: 'flatten',
    name: face ? 'Dress to thickness' : 'Flatten',
    inputs: ['stack'],
    output: 'flat',
    machine: panelMachine(draft, [total, wide, thick]),
    top: half(thick - thickness),
    bottom: half(thick - thickness),
  });
  draft.build.steps.push(...steps);
  return { output: 'flat', length: total, width: wide };
}

/** Boards face to face to a thickness, or on edge to a width, with butt joints staggered where boards are too short. */
export const lamination: Pattern = {
  id: 'lamination',
  name: 'Lamination',
  group: 'Layers',
  about: 'Boards glued face to face to a thickness, or on edge to a width; the surplus is dressed off.',
  moduleLabel: 'One layer, dressed',
  endGrain: false,
  measures: [
    {
      key: 'lay',
      label: 'Layers lie',
      kind: 'choice',
      fallback: 'face',
      options: [
        { value: 'face', label: 'Face to face' },
        { value: 'edge', label: 'On edge' },
      ],
    },
    { key: 'stock', label: 'Longest board', kind: 'length', fallback: 96 * INCH },
    { key: 'apart', label: 'Butt joints apart, at least', kind: 'length', fallback: 12 * INCH },
  ],
  start: {
    length: '52',
    width: '3 1/2',
    thickness: '2 3/4',
    module: '3/4',
    woods: ['ash_white', 'walnut_black'],
  },
  plan(order) {
    const { shop } = order;
    const a = shop.allowances;
    const size = sizesOf(order, [52 * INCH, 3.5 * INCH, 2.75 * INCH]);
    const layer = requirePositive('A layer', order.brief.module.mm);
    const face = wordOf(order, 'lay') === 'face';
    const stack = face
      ? stackFor(size[2], layer, a.flattenPanel.mm)
      : stackFor(size[1], layer, 2 * a.trimEdge.mm);
    const total = settable(shop, size[0] + 2 * a.trimEnd.mm);
    const draft = draftOf(order);
    const stock = requirePositive('The longest board', lengthOf(order, 'stock'));
    const rows = layerRows(order, stack.layers, total, stock);
    const made = laminate(draft, order, { size, stack, face, rows });
    trimStage(draft, made.output, { from: [made.length, made.width], to: [size[0], size[1]] });
    return finish(draft, size);
  },
};

/** Legs and beams of two to nine layers, with a taper sawn afterwards. */
export const leg: Pattern = {
  id: 'leg',
  name: 'Leg or beam',
  group: 'Layers',
  about: 'Two to nine layers face to face, squared, then tapered on all four sides if wanted.',
  moduleLabel: 'Foot after the taper; as wide as the top for none',
  endGrain: false,
  measures: [
    { key: 'layers', label: 'Layers', kind: 'count', fallback: 3, least: 2, most: 9 },
    { key: 'straight', label: 'Straight before the taper begins', kind: 'length', fallback: 5 * INCH },
  ],
  start: { length: '28', width: '2 3/4', thickness: '2 3/4', module: '1 3/4', woods: ['oak_white'] },
  plan(order) {
    const { shop, brief } = order;
    const a = shop.allowances;
    const size = sizesOf(order, [28 * INCH, 2.75 * INCH, 2.75 * INCH]);
    const layers = numberOf(order, 'layers');
    const each = settable(shop, (size[2] + a.flattenPanel.mm) / layers);
    const stack: Stack = { layers, each, surplus: layers * each - size[2] };
    const total = settable(shop, size[0] + 2 * a.trimEnd.mm);
    const draft = draftOf(order);
    const rows = Array.from({ length: layers }, () => [total]);
    const made = laminate(draft, order, { size, stack, face: true, rows });
    const foot = requirePositive('The foot', brief.module.mm);
    if (foot >= Math.min(size[1], size[2]) - 1e-9) {
      trimStage(draft, made.output, { from: [made.length, made.width], to: [size[0], size[1]] });
      return finish(draft, size);
    }
    const straight = lengthOf(order, 'straight');
    if (straight >= size[0])
      throw new Refusal([
        'The taper would begin ',
        { mm: straight },
        ' from the top of a leg ',
        { mm: size[0] },
        ' long.',
      ]);
    const squared = trimStage(draft, made.output, {
      from: [made.length, made.width],
      to: [size[0], size[1]],
      name: {
        id: 'square',
        output: 'squared',
        name: 'Cut to size',
      },
    });
    const outline = (wide: number) =>
      [
        [0, 0],
        [straight, 0],
        [size[0], (wide - foot) / 2],
        [size[0], (wide + foot) / 2],
        [straight, wide],
        [0, wide],
      ].map(([x, y]) => ({ x: { mm: x }, y: { mm: y } }));
    const saw = sawReaching(draft, Math.max(size[1], size[2])).id;
    draft.build.steps.push(
      {
        id: 'taper-faces',
        kind: 'shape',
        name: 'Taper two sides',
        inputs: [squared],
        output: 'tapered',
        saw,
        seen: 'face',
        outline: outline(size[1]),
      },
      {
        id: 'taper-edges',
        kind: 'shape',
        name: 'Taper the other two',
        inputs: ['tapered'],
        output: 'piece',
        saw,
        seen: 'edge',
        outline: outline(size[2]),
      },
    );
    return finish(draft, size);
  },
};
