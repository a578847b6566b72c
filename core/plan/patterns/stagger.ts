import { Refusal } from '../../document';
import { INCH } from '../../units';
import { requirePositive, settable } from './parts';
import { lengthOf, type Pattern, wordOf } from './pattern';
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

/** How far the seams of neighbouring rows lie apart, mm: the narrow strip modulo the others. */
export const staggerOf = (strip: number, narrow: number): number => narrow % strip;

/** The strip and narrow strip of the best stagger, half a strip, for a width of n strips and one narrow one. */
export const bestStagger = (width: number, n: number): { strip: number; narrow: number } => ({
  strip: width / (n + 0.5),
  narrow: width / (2 * n + 1),
});

/** End-grain stripes in stagger: n strips and one narrow one, every other slice end for end, so that seams never meet. */
export const stagger: Pattern = {
  id: 'stagger',
  name: 'Stripes in stagger',
  group: 'End grain',
  about:
    'Equal strips and one narrow one; every other slice is turned end for end, so that the seams of neighbouring rows do not meet.',
  moduleLabel: 'Strip width, about',
  endGrain: true,
  batch: true,
  spares: true,
  measures: [
    {
      key: 'hold',
      label: 'Narrow strip',
      kind: 'choice',
      fallback: 'best',
      options: [
        { value: 'best', label: 'Half a strip, the best stagger' },
        { value: 'given', label: 'As given below' },
      ],
    },
    { key: 'narrow', label: 'Narrow strip, if given', kind: 'length', fallback: 0.625 * INCH },
    { key: 'row', label: 'Row height, about', kind: 'length', fallback: 1.25 * INCH },
  ],
  start: {
    length: '16 1/2',
    width: '11',
    thickness: '1 1/2',
    module: '1 1/4',
    woods: ['cherry_black', 'maple_sugar'],
  },
  plan(order) {
    const [length, width, thickness] = sizesOf(order);
    const { allowances: a } = order.shop;
    const about = requirePositive('The strip width', order.brief.module.mm);
    const given = wordOf(order, 'hold') === 'given';
    const narrowGiven = lengthOf(order, 'narrow');
    const n = Math.max(1, Math.round(given ? (width - narrowGiven) / about : width / about - 0.5));
    const best = bestStagger(width, n);
    const strip = given ? (width - narrowGiven) / n : best.strip;
    const narrow = given ? narrowGiven : best.narrow;
    if (narrow <= 0 || strip <= 0 || staggerOf(strip, narrow) < 1e-6 || narrow > strip)
      throw new Refusal([
        'The narrow strip of ',
        { mm: narrow },
        ' must be narrower than the others, ',
        { mm: strip },
        ', and more than nothing: the stagger is what it leaves over, ',
        { mm: strip > 0 ? staggerOf(strip, narrow) : 0 },
        '.',
      ]);
    const rows = Math.max(1, Math.round(length / requirePositive('The row', lengthOf(order, 'row'))));
    const quantity = order.brief.quantity ?? 1;
    const draft = draftOf(order);
    const slice = settable(order.shop, thickness + a.flattenBlock.mm);
    const share = shareSlices(draft, rows * quantity + order.brief.extraSlices, slice);
    const widths = [...Array.from({ length: n }, () => strip), narrow];
    const panel = panelStage(draft, {
      tag: '',
      name: 'Lay-up',
      strips: widths.map((mm, i) => ({
        wood: woodOf(order, i),
        mm: mm + (i === 0 || i === n ? a.trimEdge.mm : 0),
      })),
      length: share.length,
      flat: settable(order.shop, (length + 2 * a.trimEnd.mm) / rows),
      copies: share.copies,
    });
    const cut = sliceStage(draft, panel, { tag: '', sliceMm: slice, each: share.each });
    const long = rows * panel.thickness;
    draft.build.steps.push(
      rowsGlue([cut.output], {
        turns: { turn: 'endForEnd', every: 2, first: 2, except: [] },
        parts: cut.ids.slice(0, rows * quantity).map((piece) => ({ piece })),
        ...(quantity > 1 ? { blanks: quantity } : {}),
      }),
    );
    const flat = flattenBlockStage(draft, 'block', [long, panel.width, slice], thickness);
    trimStage(draft, flat, { from: [long, panel.width], to: [length, width] });
    return finish(draft, [length, width, thickness]);
  },
};
