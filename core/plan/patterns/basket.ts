import { countNeeded } from '../../units';
import { requirePositive, settable } from './parts';
import { numberOf, type Pattern } from './pattern';
import { sizesOf, woodOf } from './sizes';
import {
  draftOf,
  finish,
  flattenBlockStage,
  panelStage,
  rowsGlue,
  shareSlices,
  sliceStage,
  trimStage,
} from './stages';

/** Square end-grain tiles of a few strips each, every other a quarter turned. */
export const basket: Pattern = {
  id: 'basket',
  name: 'Basket weave',
  group: 'End grain',
  about: 'Square tiles of a few strips, every other one a quarter turned, all end grain.',
  moduleLabel: 'Tile, about',
  endGrain: true,
  batch: true,
  spares: true,
  measures: [{ key: 'perTile', label: 'Strips to a tile', kind: 'count', fallback: 3, least: 2, most: 12 }],
  start: {
    length: '15',
    width: '10',
    thickness: '1 3/8',
    module: '2 1/2',
    woods: ['walnut_black', 'maple_sugar', 'cherry_black'],
  },
  plan(order) {
    const { shop, brief } = order;
    const a = shop.allowances;
    const [length, width, thickness] = sizesOf(order);
    const per = numberOf(order, 'perTile');
    const long = length + 2 * a.trimEnd.mm;
    const columns = Math.max(1, Math.round(long / requirePositive('The tile', brief.module.mm)));
    const strip = settable(shop, long / columns / per + 2 * a.millEdge.mm) - 2 * a.millEdge.mm;
    const tile = per * strip;
    const rows = Math.max(1, countNeeded((width + 2 * a.trimEdge.mm) / tile));
    const draft = draftOf(order);
    const quantity = brief.quantity ?? 1;
    const slice = settable(shop, thickness + a.flattenBlock.mm);
    const share = shareSlices(draft, rows * columns * quantity + brief.extraSlices, slice);
    const panel = panelStage(draft, {
      tag: '',
      name: 'Lay-up',
      strips: Array.from({ length: per }, (_, i) => ({ wood: woodOf(order, i), mm: strip })),
      length: share.length,
      flat: tile,
      copies: share.copies,
    });
    const cut = sliceStage(draft, panel, { tag: '', sliceMm: slice, each: share.each });
    draft.build.steps.push(
      rowsGlue([cut.output], {
        rows: { counts: Array.from({ length: rows }, () => columns), across: 'width' },
        turns: { turn: 'quarter', every: 2, first: 2, except: [], rowOf: columns },
        parts: cut.ids.slice(0, rows * columns * quantity).map((piece) => ({ piece })),
        ...(quantity > 1 ? { blanks: quantity } : {}),
      }),
    );
    const size = [columns * tile, rows * tile] as const;
    const flat = flattenBlockStage(draft, 'block', [...size, slice], thickness);
    trimStage(draft, flat, { from: size, to: [length, width] });
    return finish(draft, [length, width, thickness]);
  },
};
