import type { NewBoard } from '../contract/board';
import type { Fault, FaultKind, PricePer, SoldAs } from '../core/document';
import { typed } from '../core/kit';
import { INCH } from '../core/units';

/* The rack of the demo shop. All boards, prices and days are invented. */

type More = Partial<Omit<NewBoard, 'label' | 'species' | 'length' | 'width' | 'thickness'>>;

const fault = (
  kind: FaultKind,
  face: Fault['face'],
  x: number,
  y: number,
  length: number,
  width: number,
): Fault => ({
  id: `${kind}-${x}-${y}`,
  kind,
  face,
  x: x * INCH,
  y: y * INCH,
  length: length * INCH,
  width: width * INCH,
});
const price = (amount: number, per: PricePer = 'boardFoot') => ({
  minor: Math.round(amount * 100),
  currency: 'EUR',
  per,
});
const board = (label: string, species: string, sold: SoldAs, size: string, more: More = {}): NewBoard => {
  const [length, width, thickness] = size.split(' x ').map(typed);
  return { label, species, length, width, thickness, sold, ...more };
};

export const demoBoards: readonly NewBoard[] = [
  board('1', 'ash_white', 'rough', '97 x 8 1/4 x 6/4', {
    price: price(6.8),
    moisturePct: 8.5,
    arrived: '2026-09-14',
    grain: 'flat',
    pith: 'below',
    goodFace: 'up',
    log: 'ash A',
    faults: [fault('check', 'both', 0, 2.5, 3.5, 1.2), fault('knot', 'up', 61, 4.4, 2.2, 1.6)],
    warp: { cup: typed('1/16'), bow: typed('1/8') },
  }),
  board('2', 'ash_white', 'rough', '96 x 7 1/2 x 6/4', {
    price: price(6.8),
    moisturePct: 8.7,
    arrived: '2026-09-14',
    grain: 'flat',
    log: 'ash A',
    faults: [fault('check', 'both', 93, 1, 3, 1.5)],
  }),
  board('3', 'ash_white', 'rough', '84 x 6 3/8 x 6/4', {
    price: price(6.4),
    arrived: '2026-09-14',
    grain: 'rift',
    faults: [fault('stain', 'down', 20, 0, 14, 2), fault('knot', 'down', 50, 3, 1.8, 1.8)],
  }),
  board('4', 'ash_white', 'rough', '73 x 5 3/4 x 6/4', {
    price: price(6.4),
    warp: { crook: typed('3/16') },
    faults: [fault('wane', 'both', 40, 5, 33, 0.75)],
  }),
  board('5', 'ash_white', 'rough', '60 x 9 x 6/4', {
    price: price(6.8),
    moisturePct: 9.1,
    arrived: '2026-10-02',
    sapEdge: 'far',
  }),
  board('6', 'walnut_black', 'rough', '52 x 6 1/2 x 6/4', {
    price: price(11.5),
    moisturePct: 8.2,
    colour: '#6b4a35',
    log: 'walnut',
    sapEdge: 'near',
    faults: [fault('sapwood', 'both', 0, 0, 52, 0.9), fault('knot', 'up', 33, 3.2, 1.5, 1.4)],
  }),
  board('7', 'walnut_black', 'rough', '66 x 7 1/4 x 8/4', {
    price: price(12.9),
    moisturePct: 8.4,
    colour: '#5f4331',
    log: 'walnut',
    faults: [fault('split', 'both', 0, 3, 6, 0.6)],
  }),
  board('8', 'walnut_black', 'offcut', '21 x 4 1/4 x 6/4', { colour: '#70513b', log: 'walnut' }),
  board('9', 'maple_sugar', 'rough', '71 x 7 x 8/4', {
    price: price(7.9),
    moisturePct: 8,
    arrived: '2026-08-20',
    grain: 'flat',
    colour: '#dcc09a',
  }),
  board('10', 'maple_sugar', 'rough', '70 x 6 1/4 x 8/4', {
    price: price(7.9),
    grain: 'flat',
    colour: '#d9bb93',
    faults: [fault('stain', 'up', 44, 1, 7, 2.4)],
  }),
  board('11', 'maple_sugar', 'surfaced', '48 x 5 1/2 x 1 3/4', { price: price(9.2), colour: '#e0c7a3' }),
  board('12', 'maple_sugar', 'offcut', '33 x 4 x 8/4', {}),
  board('13', 'oak_white', 'rough', '88 x 7 3/4 x 6/4', {
    price: price(8.6),
    grain: 'quarter',
    arrived: '2026-11-16',
    moisturePct: 11.5,
    log: 'tower oak',
  }),
  board('14', 'oak_white', 'rough', '50 x 8 1/2 x 6/4', {
    price: price(8.6),
    grain: 'quarter',
    log: 'tower oak',
    faults: [fault('knot', 'up', 12, 5.5, 1.6, 1.4)],
  }),
  board('15', 'oak_white', 'reclaimed', '63 x 6 x 6/4', {
    price: price(30, 'board'),
    faults: [
      fault('nail', 'both', 7, 2, 0.6, 0.6),
      fault('nail', 'both', 31, 3.5, 0.6, 0.6),
      fault('nail', 'both', 55, 2.2, 0.6, 0.6),
    ],
    warp: { cup: typed('1/8') },
  }),
  board('16', 'beech_american', 'rough', '100 x 8 3/4 x 8/4', { price: price(5.7), moisturePct: 8.8 }),
  board('17', 'beech_american', 'rough', '98 x 7 x 8/4', {
    price: price(5.7),
    faults: [fault('knot', 'both', 70, 2.5, 2, 2)],
  }),
  board('18', 'cherry_black', 'rough', '46 x 6 1/2 x 4/4', { price: price(8.1), colour: '#a5673f' }),
  board('19', 'cherry_black', 'offcut', '31 x 3 1/2 x 4/4', { colour: '#9c5f3a' }),
  board('20', 'pine_eastern_white', 'dressed', '96 x 5 1/2 x 1 1/2', {
    price: price(4.1, 'metre'),
    moisturePct: 15,
    arrived: '2026-11-09',
    faults: [
      fault('knot', 'both', 22, 1.5, 1.6, 1.6),
      fault('knot', 'both', 57, 3.4, 2, 1.5),
      fault('pith', 'down', 0, 2.4, 96, 0.3),
    ],
  }),
  board('21', 'pine_eastern_white', 'dressed', '96 x 7 1/4 x 1 1/2', {
    price: price(5.6, 'metre'),
    moisturePct: 14,
    arrived: '2026-11-09',
  }),
  board('22', 'purpleheart', 'surfaced', '37 x 5 1/4 x 1 3/4', { price: price(19) }),
  board('23', 'wenge', 'offcut', '34 x 2 3/4 x 4/4', {}),
  board('24', 'mahogany_african', 'surfaced', '40 x 6 x 13/16', { price: price(10.4), colour: '#a3613f' }),
];
