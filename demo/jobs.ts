import type { Brief, BuildDocument, Edit } from '../core/document';
import { mustEdit } from '../core/edit';
import { mustFit } from '../core/plan';
import type { Feature } from '../core/steps';
import { parseLength } from '../core/units';
import { demoShop } from './shop';
import { livingSteps } from './table';

const size = (text: string) => {
  const parsed = parseLength(text, 'inch', { minMm: -10_000 });
  if (!parsed.ok) throw new Error(parsed.reason);
  return parsed.length;
};
const fixed = (text: string) => ({ aim: 'fixed' as const, value: size(text) });

const base: Omit<Brief, 'pattern' | 'length' | 'width' | 'thickness' | 'woods' | 'module'> = {
  saw: 'table-full',
  flattenWith: 'planer',
  trimWith: { saw: 'table-full' },
  chequer: false,
  extraSlices: 0,
  sections: 0,
};

const job = (name: string, use: string, brief: Brief, ...edits: Edit[]): BuildDocument =>
  edits.reduce(mustEdit, mustFit(brief, demoShop, { name, use }));

/** Edge-glued, wider than the planer: three sections, ash with two walnut lines. */
const chartTable = job(
  'Chart-table top',
  'for the watch room, ash with two walnut lines',
  {
    ...base,
    pattern: 'panel',
    length: fixed('46'),
    width: fixed('27 1/2'),
    thickness: fixed('7/8'),
    woods: ['ash_white'],
    module: size('2 3/8'),
    // Too wide to carry over the table saw: the guided saw comes to it.
    trimWith: { saw: 'track' },
  },
  { do: 'setSlot', step: 'rip-1', strip: 'strip-3', change: { species: 'walnut_black' } },
  { do: 'setSlot', step: 'rip-3', strip: 'strip-10', change: { species: 'walnut_black' } },
  { do: 'turnPart', step: 'glue-1', piece: 'strip-2', turn: 'endForEnd' },
  { do: 'turnPart', step: 'glue-2', piece: 'strip-6', turn: 'rollOver' },
  {
    do: 'setSizes',
    sizes: [
      { id: 'height', name: 'table height', formula: '29 1/4' },
      { id: 'leg', name: 'leg', formula: 'table height - thickness' },
      {
        id: 'gap',
        name: 'gap to the wall',
        formula: '28 1/4 - width',
        wanted: { aim: 'atLeast', value: size('1/2') },
      },
    ],
  },
);

/** End grain, two glue-ups. */
const choppingBlock = job('Galley chopping block', 'end grain, for the keeper’s kitchen, food', {
  ...base,
  pattern: 'endGrain',
  chequer: true,
  length: fixed('16 1/2'),
  width: fixed('11'),
  thickness: fixed('1 3/4'),
  woods: ['walnut_black', 'maple_sugar'],
  module: size('1 3/8'),
});

/** A square board in a coloured wood; too wide for the planer, so the drum sander flattens it. */
const gamesBoard = job('Games board', 'end grain, eight by eight, for the keeper’s kitchen', {
  ...base,
  pattern: 'endGrain',
  chequer: true,
  flattenWith: 'drum',
  length: fixed('14'),
  width: fixed('14'),
  thickness: fixed('1 1/8'),
  woods: ['maple_sugar', 'purpleheart'],
  module: size('1 3/4'),
});

/** Strips ripped from two real boards, so that their figure runs on from strip to strip. */
const treadBoards: BuildDocument['boards'] = [
  {
    id: 'board-4',
    label: '4',
    species: 'oak_white',
    length: size('44'),
    width: size('7 1/2'),
    thickness: size('6/4'),
    log: 'tower oak',
  },
  {
    id: 'board-5',
    label: '5',
    species: 'oak_white',
    length: size('43'),
    width: size('6'),
    thickness: size('6/4'),
    log: 'tower oak',
  },
];
const stairTread = ((): BuildDocument => {
  const planned = job('Tower stair tread', 'replaces tread nine, white oak', {
    ...base,
    pattern: 'panel',
    length: fixed('38'),
    width: fixed('10 3/4'),
    thickness: fixed('1 1/8'),
    woods: ['oak_white'],
    module: size('2 1/8'),
  });
  const slots = planned.assemblies[0].slots.map((slot, i) => ({
    ...slot,
    thickness: size('1 3/8'),
    strip: { board: i < 3 ? 'board-4' : 'board-5' },
  }));
  return { ...planned, boards: treadBoards, assemblies: [{ ...planned.assemblies[0], slots }] };
})();

/** Typed in millimetres in an inch shop: shown converted, kept as typed. */
const shelf = job(
  'Lamp-room shelf',
  'from mixed offcuts',
  {
    ...base,
    pattern: 'panel',
    length: fixed('720 mm'),
    width: fixed('235 mm'),
    thickness: fixed('20 mm'),
    woods: [
      'cherry_black',
      'beech_american',
      'oak_northern_red',
      'pine_eastern_white',
      'mahogany_african',
      'wenge',
    ],
    module: size('39 mm'),
  },
  { do: 'moveStrip', step: 'glue', from: 5, to: 2 },
);

/** One piece wider than the planer: shows what Junta says and what can be done. */
const benchTop = job('Boathouse bench top', 'one wide piece in beech, as first asked for', {
  ...base,
  pattern: 'panel',
  sections: 1,
  length: fixed('54'),
  width: fixed('19 1/2'),
  thickness: fixed('1 5/8'),
  woods: ['beech_american'],
  module: size('3 1/4'),
});

/** Layers of two woods, tapered after gluing. */
const tiller = job(
  'Laminated tiller',
  'for the station boat, ash with walnut, tapered',
  {
    ...base,
    pattern: 'leg',
    length: fixed('43'),
    width: fixed('2 1/4'),
    thickness: fixed('2 1/2'),
    woods: ['ash_white', 'walnut_black'],
    module: size('1 1/4'),
    measures: { layers: 5, straight: size('9') },
  },
  { do: 'planGlue', step: 'glue', change: { adhesive: 'waterproof' } },
);

/** Stripes cut at an angle and rolled over in turn. */
const servingTray = job('Watch-room tray', 'zigzag in three woods', {
  ...base,
  pattern: 'chevron',
  length: fixed('17 1/2'),
  width: fixed('10 1/4'),
  thickness: fixed('5/8'),
  woods: ['walnut_black', 'maple_sugar', 'cherry_black'],
  module: size('1 3/4'),
  measures: { angle: 50, stripe: size('7/8') },
});

/** Nine strips from the offcut bin: an order is to be found for them. */
const mixedLid = job('Chart-chest lid', 'nine strips of mixed offcuts', {
  ...base,
  pattern: 'panel',
  length: fixed('30'),
  width: fixed('11 1/4'),
  thickness: fixed('13/16'),
  woods: [
    'cherry_black',
    'maple_sugar',
    'walnut_black',
    'oak_white',
    'beech_american',
    'ash_white',
    'mahogany_african',
    'wenge',
    'pine_eastern_white',
  ],
  module: size('1 1/4'),
});

const fromMiddle = (text: string) => ({ from: 'middle' as const, by: size(text) });
const fromFar = (text: string) => ({ from: 'high' as const, by: size(text) });

/** Five boards with two openings, a hole for a tap, a drip groove under its near edge, and rounded edges. */
const counter = job(
  'Wash-house counter',
  'beech, with a sink and a basin let in',
  {
    ...base,
    pattern: 'panel',
    length: fixed('57'),
    width: fixed('21 1/2'),
    thickness: fixed('1 1/4'),
    woods: ['beech_american'],
    module: size('4 3/8'),
    trimWith: { saw: 'track' },
  },
  {
    do: 'addStep',
    kind: 'feature',
    after: 'trim',
    settings: {
      edges: 'finished',
      features: [
        {
          id: 'drip',
          bit: 'straight',
          kind: 'groove',
          name: 'Drip groove',
          side: 'lower',
          u: fromMiddle('0'),
          v: { from: 'low', by: size('3/4') },
          runs: 'along',
          width: size('1/4'),
          depth: size('3/16'),
          floor: 'flat',
        },
        {
          id: 'tap',
          bit: 'forstner',
          kind: 'hole',
          name: 'Hole for the tap',
          side: 'upper',
          u: fromMiddle('-12'),
          v: fromFar('2'),
          diameter: size('1 3/8'),
        },
        {
          id: 'sink',
          bit: 'spiral',
          kind: 'opening',
          name: 'Opening for the sink',
          side: 'upper',
          u: fromMiddle('-12'),
          v: fromMiddle('-3/4'),
          shape: 'rectangle',
          length: size('18'),
          width: size('14'),
          radius: size('1'),
          cutter: size('1/2'),
        },
        {
          id: 'basin',
          bit: 'spiral',
          kind: 'opening',
          name: 'Opening for the basin',
          side: 'upper',
          u: fromMiddle('15'),
          v: fromMiddle('0'),
          shape: 'circle',
          length: size('11'),
          width: size('11'),
          radius: size('0'),
          cutter: size('1/2'),
        },
        {
          id: 'rim',
          bit: 'round-over',
          kind: 'edge',
          name: 'Rounded rim',
          side: 'upper',
          u: fromMiddle('0'),
          v: fromMiddle('0'),
          profile: 'roundOver',
          size: size('1/4'),
          which: 'all',
        },
      ] satisfies Feature[],
    },
  },
);

/** A wide top of white oak, followed until it stands in its room: ends across the grain, coats, a wall that is not straight. */
const table = job(
  'Signal-room table',
  'for the signal room, white oak with ends across the grain',
  {
    ...base,
    pattern: 'panel',
    length: fixed('62'),
    width: fixed('30 1/2'),
    thickness: fixed('1 1/8'),
    woods: ['oak_white'],
    module: size('4 1/2'),
    trimWith: { saw: 'track' },
  },
  ...livingSteps(size),
);

/** The jobs of the demo shop, newest last. All names, places and sizes are invented. */
export const demoJobs: readonly BuildDocument[] = [
  benchTop,
  shelf,
  stairTread,
  gamesBoard,
  choppingBlock,
  chartTable,
  tiller,
  mixedLid,
  counter,
  table,
  servingTray,
];
