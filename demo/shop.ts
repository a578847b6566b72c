import {
  clampsAlike,
  DEFAULT_GLUE_PRACTICE,
  defaultShop,
  typed,
  type Adhesive,
  type ClampSet,
  type ShopSnapshot,
} from '../core/kit';

const clamps: ClampSet[] = [
  clampsAlike('long', 'Parallel-jaw clamps, long', 'parallel_jaw', 8, '40', 4000),
  clampsAlike('short', 'Parallel-jaw clamps, short', 'parallel_jaw', 10, '24', 4000),
  clampsAlike('pipe', 'Pipe clamps', 'pipe_three_quarter', 6, '52', 4500),
  clampsAlike('bar', 'Bar clamps', 'f_heavy', 14, '12', 4000),
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

/** The invented shop that restores a disused lighthouse and its outbuildings on an invented island; two work in it. */
export const demoShop: ShopSnapshot = {
  ...defaultShop('North Slip shop'),
  clamps,
  adhesives,
  climate: { temperatureC: 19, humidityPct: 46 },
  gluing: {
    ...DEFAULT_GLUE_PRACTICE,
    hands: 2,
    paid: { maxWidth: typed('43'), days: 9, priceMinor: 6500 },
  },
};
