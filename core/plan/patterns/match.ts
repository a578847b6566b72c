import { type LaidPart, Refusal } from '../../document';
import { INCH } from '../../units';
import { half, requirePositive, settable, slot } from './parts';
import { numberOf, type Pattern, wordOf } from './pattern';
import { sizesOf } from './sizes';
import { draftOf, finish, panelMachine, ripAndMill, sawReaching, trimStage } from './stages';

/** Leaves from one board: book (every other rolled), slip (all alike), four-way (rolled and turned about one point). */
export const match: Pattern = {
  id: 'match',
  name: 'Matched leaves',
  group: 'Panels',
  about:
    'One thick board resawn into leaves that are laid like a book, side by side, or four about one point.',
  moduleLabel: 'Board thickness on the rack',
  endGrain: false,
  measures: [
    {
      key: 'kind',
      label: 'Match',
      kind: 'choice',
      fallback: 'book',
      options: [
        { value: 'book', label: 'Book' },
        { value: 'slip', label: 'Slip' },
        { value: 'four', label: 'Four-way' },
      ],
    },
    { key: 'leaves', label: 'Leaves, book and slip', kind: 'count', fallback: 2, least: 2, most: 12 },
  ],
  start: { length: '21', width: '13', thickness: '5/16', module: '1 1/4', woods: ['walnut_black'] },
  plan(order) {
    const { shop, brief } = order;
    const a = shop.allowances;
    const [length, width, thickness] = sizesOf(order, [21 * INCH, 13 * INCH, 0.3125 * INCH]);
    const kind = wordOf(order, 'kind');
    const leaves = kind === 'four' ? 4 : numberOf(order, 'leaves');
    if (kind === 'book' && leaves % 2)
      throw new Refusal([`A book match needs an even number of leaves; ${leaves} is odd.`]);
    const draft = draftOf(order);
    const [across, along] = kind === 'four' ? [2, 2] : [leaves, 1];
    const leafWidth = settable(shop, (width + 2 * a.trimEdge.mm) / across + 2 * a.millEdge.mm);
    const leafLength = settable(shop, (length + 2 * a.trimEnd.mm) / along);
    // The saw asked for, where it cuts as high as the board stands; else the one that cuts deepest, and the review says so.
    const resaw = sawReaching(draft, leafWidth - 2 * a.millEdge.mm);
    const rough = requirePositive('The board', brief.module.mm);
    const milled = rough - 2 * a.millFace.mm;
    const leaf = (milled - (leaves - 1) * resaw.kerf.mm) / leaves;
    const least = thickness + a.flattenPanel.mm;
    if (leaf < least - 1e-6)
      throw new Refusal([
        `${leaves} leaves of `,
        { mm: least },
        ', ',
        { mm: resaw.kerf.mm },
        ' of kerf between them and ',
        { mm: 2 * a.millFace.mm },
        ' of milling take a board ',
        { mm: leaves * least + (leaves - 1) * resaw.kerf.mm + 2 * a.millFace.mm },
        ' thick; the one on the rack is ',
        { mm: rough },
        '.',
      ]);
    ripAndMill(draft, {
      tag: '',
      name: 'Board to resaw',
      slots: [slot('board-1', brief.woods[0], { length: leafLength, width: leafWidth, thickness: rough })],
      dressed: milled,
    });
    const part = (n: number, turn: Partial<LaidPart>): LaidPart => ({ piece: `board-1.${n}`, ...turn });
    const parts =
      kind === 'four'
        ? [
            part(1, {}),
            part(2, { rollOver: true, endForEnd: true }),
            part(3, { rollOver: true }),
            part(4, { endForEnd: true }),
          ]
        : Array.from({ length: leaves }, (_, i) =>
            part(i + 1, kind === 'book' && i % 2 ? { rollOver: true } : {}),
          );
    draft.build.steps.push(
      { id: 'resaw', kind: 'resaw', inputs: ['milled'], output: 'leaves', saw: resaw.id, leaves },
      {
        id: 'glue',
        kind: 'glue',
        inputs: ['leaves'],
        output: 'panel',
        along: kind === 'four' ? 'length' : 'width',
        parts,
        ...(kind === 'four' ? { rows: { counts: [2, 2], across: 'width' as const } } : {}),
      },
    );
    const size = [along * leafLength, across * (leafWidth - 2 * a.millEdge.mm), leaf] as const;
    draft.build.steps.push({
      id: 'flatten',
      kind: 'flatten',
      inputs: ['panel'],
      output: 'flat',
      machine: panelMachine(draft, size),
      top: half(leaf - thickness),
      bottom: half(leaf - thickness),
    });
    trimStage(draft, 'flat', { from: [size[0], size[1]], to: [length, width] });
    return finish(draft, [length, width, thickness]);
  },
};
