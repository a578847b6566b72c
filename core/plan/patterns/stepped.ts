import { Refusal } from '../../document';
import { countNeeded, INCH } from '../../units';
import { half, requirePositive, settable } from './parts';
import { lengthOf, type Pattern } from './pattern';
import { sizesOf, woodOf } from './sizes';
import { draftOf, finish, flattenBlockStage, panelStage, rowsGlue, shareSlices, sliceStage } from './stages';

/** End-grain stairs: every row is shifted by a step more, and begins anew after one whole run of woods. */
export const stepped: Pattern = {
  id: 'stepped',
  name: 'Stairs',
  group: 'End grain',
  about:
    'Rows of equal squares, each shifted by a step more than the last, so that the colours climb like stairs.',
  moduleLabel: 'Side of a square, about',
  endGrain: true,
  batch: true,
  spares: true,
  measures: [{ key: 'step', label: 'Step', kind: 'length', fallback: 0.5 * INCH }],
  start: {
    length: '15',
    width: '10',
    thickness: '1 3/8',
    module: '1 1/4',
    woods: ['walnut_black', 'cherry_black', 'maple_sugar'],
  },
  plan(order) {
    const { shop, brief } = order;
    const a = shop.allowances;
    const [length, width, thickness] = sizesOf(order);
    const about = requirePositive('The square', brief.module.mm);
    const step = requirePositive('The step', lengthOf(order, 'step'));
    const rows = Math.max(2, Math.round((length + 2 * a.trimEnd.mm) / about));
    const strip = settable(shop, about + 2 * a.millEdge.mm) - 2 * a.millEdge.mm;
    const run = strip * Math.max(1, brief.woods.length);
    if (step > run + 1e-9)
      throw new Refusal([
        'A step of ',
        { mm: step },
        ' is more than one run of all woods, ',
        { mm: run },
        ': it would climb as one of ',
        { mm: step % run },
        '.',
      ]);
    const most = Math.max(...Array.from({ length: rows }, (_, i) => (i * step) % run));
    const count = countNeeded((width + 2 * a.trimEdge.mm + most) / strip);
    const draft = draftOf(order);
    const quantity = brief.quantity ?? 1;
    const slice = settable(shop, thickness + a.flattenBlock.mm);
    const share = shareSlices(draft, rows * quantity + brief.extraSlices, slice);
    const panel = panelStage(draft, {
      tag: '',
      name: 'Lay-up',
      strips: Array.from({ length: count }, (_, i) => ({ wood: woodOf(order, i), mm: strip })),
      length: share.length,
      flat: settable(shop, (length + 2 * a.trimEnd.mm) / rows),
      copies: share.copies,
    });
    const cut = sliceStage(draft, panel, { tag: '', sliceMm: slice, each: share.each });
    draft.build.steps.push(
      rowsGlue([cut.output], {
        shifts: { by: { mm: step }, wrap: { mm: run }, every: 1, first: 2, except: [] },
        parts: cut.ids.slice(0, rows * quantity).map((piece) => ({ piece })),
        ...(quantity > 1 ? { blanks: quantity } : {}),
      }),
    );
    const long = rows * panel.thickness;
    const flat = flattenBlockStage(draft, 'block', [long, panel.width + most, slice], thickness);
    const over = (panel.width - most - width) / 2;
    draft.build.steps.push({
      id: 'trim',
      kind: 'trim',
      inputs: [flat],
      output: 'piece',
      cutter: brief.trimWith,
      start: half(long - length),
      end: half(long - length),
      near: { mm: most + over },
      far: { mm: most + over },
    });
    return finish(draft, [length, width, thickness]);
  },
};
