import {
  clampsAlike,
  DEFAULT_GLUE_PRACTICE,
  defaultShop,
  typed,
  type Adhesive,
  type ClampSet,
  type Bit,
  type ShopSnapshot,
  type Supply,
  usualMachine,
} from '../core/kit';

const clamps: ClampSet[] = [
  clampsAlike('long', 'Parallel-jaw clamps, long', 'parallel_jaw', { count: 8, opening: '40', forceN: 4000 }),
  clampsAlike('short', 'Parallel-jaw clamps, short', 'parallel_jaw', {
    count: 10,
    opening: '24',
    forceN: 4000,
  }),
  clampsAlike('pipe', 'Pipe clamps', 'pipe_three_quarter', { count: 6, opening: '52', forceN: 4500 }),
  clampsAlike('bar', 'Bar clamps', 'f_heavy', { count: 14, opening: '12', forceN: 4000 }),
];
const adhesives: Adhesive[] = [
  {
    id: 'water-resistant',
    name: 'Water-resistant PVA',
    class: 'pva_crosslink_d3',
    leftG: 2200,
    expires: '2030-06-30',
    foodOk: true,
  },
  {
    id: 'waterproof',
    name: 'Waterproof-class PVA',
    class: 'pva_crosslink_d4',
    leftG: 900,
    expires: '2030-02-28',
  },
  { id: 'slow', name: 'Liquid hide glue', class: 'hide_liquid', leftG: 600, expires: '2029-12-31' },
  { id: 'epoxy', name: 'Epoxy, slow hardener', class: 'epoxy_rt', leftG: 400, openMin: 30, closedMin: 60 },
];

const bits: Bit[] = [
  {
    id: 'surfacing',
    name: 'Surfacing bit',
    kind: 'surfacing',
    diameter: typed('1 1/2'),
    cutting: typed('1/2'),
    shank: typed('1/2'),
  },
  {
    id: 'brad-8',
    name: 'Brad-point drill, 8 mm',
    kind: 'bradPoint',
    diameter: typed('8 mm'),
    shank: typed('8 mm'),
  },
  {
    id: 'core-box',
    name: 'Core-box bit',
    kind: 'coreBox',
    diameter: typed('1/2'),
    cutting: typed('3/8'),
    shank: typed('1/4'),
  },
  {
    id: 'straight',
    name: 'Straight bit, 1/4',
    kind: 'straight',
    diameter: typed('1/4'),
    cutting: typed('3/4'),
    shank: typed('1/4'),
  },
  {
    id: 'spiral',
    name: 'Spiral bit, 1/2',
    kind: 'spiral',
    diameter: typed('1/2'),
    cutting: typed('1 1/2'),
    shank: typed('1/2'),
  },
  {
    id: 'forstner',
    name: 'Forstner bit, 1 3/8',
    kind: 'forstner',
    diameter: typed('1 3/8'),
    shank: typed('3/8'),
  },
  {
    id: 'round-over',
    name: 'Round-over bit, 1/4',
    kind: 'roundOver',
    diameter: typed('1'),
    cutting: typed('1/2'),
    shank: typed('1/4'),
  },
];
const supplies: Supply[] = [
  { id: 'biscuits', name: 'Biscuits 56 x 23', kind: 'biscuit', size: '56 x 23', onHand: 140 },
  {
    id: 'dowels',
    name: 'Dowels 8 x 30',
    kind: 'dowel',
    size: '8 x 30',
    onHand: 12,
    priceMinor: 6,
    currency: 'EUR',
  },
  { id: 'sheets', name: 'Sanding sheets', kind: 'abrasive', size: 'P120', onHand: 25 },
  { id: 'sheets-150', name: 'Sanding sheets, finer', kind: 'abrasive', size: 'P150', onHand: 20 },
  { id: 'sheets-180', name: 'Sanding sheets, fine', kind: 'abrasive', size: 'P180', onHand: 20 },
  { id: 'oil', name: 'Board oil', kind: 'finish', onHand: 750 },
];

/** The invented shop that restores a disused lighthouse and its outbuildings on an invented island; two work in it. */
export const demoShop: ShopSnapshot = {
  ...defaultShop('North Slip shop'),
  machines: [
    ...defaultShop('').machines,
    usualMachine('drill press', 'drill'),
    usualMachine('router table', 'table'),
    usualMachine('biscuit cutter', 'biscuits'),
    { ...usualMachine('paid machine', 'paid'), maxWidth: typed('43'), days: 9, priceMinor: 6500 },
  ],
  bits,
  supplies,
  clamps,
  adhesives,
  climate: { temperatureC: 19, humidityPct: 46 },
  gluing: {
    ...DEFAULT_GLUE_PRACTICE,
    hands: 2,
  },
};
