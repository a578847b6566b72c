import { Refusal } from '../../document';
import { asTrim } from '../../steps';
import { INCH } from '../../units';
import { chance } from '../../wood';
import { requirePositive, settable } from './parts';
import { lengthOf, numberOf, type Pattern } from './pattern';
import { sizesOf } from './sizes';
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
import { jointsOf, staggeredRows } from './staggered';

/** Random end-grain mosaic from offcuts: a few panels of random strips, whose slices follow one another in turn. */
export const mosaic: Pattern = {
  id: 'mosaic',
  name: 'Mosaic of offcuts',
  group: 'End grain',
  about:
    'Panels of random strips, sliced and laid in turn; seams of neighbouring rows keep apart, so no four corners meet.',
  moduleLabel: 'Row height, about',
  endGrain: true,
  batch: true,
  measures: [
    { key: 'shortest', label: 'Narrowest strip', kind: 'length', fallback: 0.75 * INCH },
    { key: 'longest', label: 'Widest strip', kind: 'length', fallback: 2.5 * INCH },
    { key: 'apart', label: 'Seams apart, at least', kind: 'length', fallback: 0.25 * INCH },
    { key: 'panels', label: 'Different panels', kind: 'count', fallback: 3, least: 2, most: 6 },
    { key: 'seed', label: 'Draw', kind: 'count', fallback: 1, least: 1, most: 999 },
  ],
  start: {
    length: '14',
    width: '10',
    thickness: '1 3/8',
    module: '1 1/8',
    woods: ['walnut_black', 'maple_sugar', 'cherry_black', 'oak_white'],
  },
  plan(order) {
    const { shop, brief } = order;
    const a = shop.allowances;
    const [length, width, thickness] = sizesOf(order);
    const rows = Math.max(
      2,
      Math.round((length + 2 * a.trimEnd.mm) / requirePositive('The row', brief.module.mm)),
    );
    const kinds = Math.min(rows, numberOf(order, 'panels'));
    const seed = numberOf(order, 'seed');
    const total = settable(shop, width + 2 * a.trimEdge.mm);
    const apart = lengthOf(order, 'apart');
    const rules = {
      total,
      shortest: requirePositive('The narrowest strip', lengthOf(order, 'shortest')),
      longest: requirePositive('The widest strip', lengthOf(order, 'longest')),
      apart,
      // Strips stay on the shop's step after milling, so that every panel is as wide as the next.
      step: shop.settingStep.mm,
      seed,
    };
    const drawn = ringOfRows(rules, kinds);
    const draft = draftOf(order);
    const quantity = brief.quantity ?? 1;
    const slice = settable(shop, thickness + a.flattenBlock.mm);
    const flat = settable(shop, (length + 2 * a.trimEnd.mm) / rows);
    const needed = (k: number) => Math.ceil((rows - k) / kinds) * quantity;
    const cuts = drawn.map((widths, k) => {
      const share = shareSlices(draft, needed(k), slice);
      const panel = panelStage(draft, {
        tag: String.fromCharCode(97 + k),
        name: `Panel ${k + 1}`,
        strips: widths.map((mm, i) => ({
          wood: brief.woods[Math.floor(chance(seed + 31 * k, i) * brief.woods.length) % brief.woods.length],
          mm,
        })),
        length: share.length,
        flat,
        copies: share.copies,
      });
      return {
        panel,
        cut: sliceStage(draft, panel, { tag: String.fromCharCode(97 + k), sliceMm: slice, each: share.each }),
      };
    });
    const parts = Array.from({ length: quantity }, (_, b) =>
      Array.from({ length: rows }, (_, r) => {
        const k = r % kinds;
        return { piece: cuts[k].cut.ids[b * Math.ceil((rows - k) / kinds) + Math.floor(r / kinds)] };
      }),
    ).flat();
    draft.build.steps.push(
      rowsGlue(
        cuts.map(({ cut }) => cut.output),
        { parts, ...(quantity > 1 ? { blanks: quantity } : {}) },
      ),
    );
    // Rows lie flush at the near edge; panels of different strips are rounded up by different amounts at the far one.
    const widths = cuts.map(({ panel }) => panel.width);
    const [narrowest, widest] = [Math.min(...widths), Math.max(...widths)];
    const size = [rows * flat, narrowest] as const;
    const done = flattenBlockStage(draft, 'block', [...size, slice], thickness);
    trimStage(draft, done, { from: size, to: [length, width] });
    const trim = asTrim(draft.build.steps.at(-1));
    if (trim && widest > narrowest) {
      trim.far = { mm: trim.far.mm + widest - narrowest };
      trim.uneven = true;
    }
    return finish(draft, [length, width, thickness]);
  },
};

/** Rows of which each keeps its distance from the next, and the last from the first, since they follow in a ring. */
function ringOfRows(rules: Omit<Parameters<typeof staggeredRows>[0], 'rows'>, kinds: number): number[][] {
  for (let turn = 0; turn < 200; turn++) {
    const rows = staggeredRows({ ...rules, rows: kinds, seed: rules.seed * 1009 + turn });
    const [first, last] = [jointsOf(rows[0]), jointsOf(rows[kinds - 1])];
    const clash = kinds > 2 && first.some((p) => last.some((q) => Math.abs(p - q) < rules.apart - 1e-9));
    if (!clash) return rows;
  }
  throw new Refusal([
    `No ${kinds} panels were found whose seams keep `,
    { mm: rules.apart },
    ' apart all the way round: allow narrower strips, or seams nearer to each other.',
  ]);
}
