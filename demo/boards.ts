import type { NewBoard } from '../contract/board';
import type { Fault, FaultKind, PricePer, SoldAs } from '../core/document';
import { typed } from '../core/kit';
import { INCH } from '../core/units';

/* The rack of the demo shop. All boards, prices and days are invented. */

type More = Partial<Omit<NewBoard, 'label' | 'species' | 'length' | 'width' | 'thickness'>>;

const fault = (
  kind: FaultKind,
  face: Fault['face'],
  { x, y, length, width }: { x: number; y: number; length: number; width: number },
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
const board = (
  label: string,
  species: string,
  sold: SoldAs,
  { size, ...more }: More & { size: string },
): NewBoard => {
  const [length, width, thickness] = size.split(' x ').map(typed);
  return { label, species, length, width, thickness, sold, ...more };
};

export const demoBoards: readonly NewBoard[] = [
  board('1', 'ash_white', 'rough', {
    size: '97 x 8 1/4 x 6/4',
    grade: 'prime',
    price: price(6.8),
    moisturePct: 8.5,
    arrived: '2026-09-14',
    grain: 'flat',
    pith: 'below',
    goodFace: 'up',
    log: 'ash A',
    faults: [
      fault('check', 'both', { x: 0, y: 2.5, length: 3.5, width: 1.2 }),
      fault('knot', 'up', { x: 61, y: 4.4, length: 2.2, width: 1.6 }),
    ],
    warp: { cup: typed('1/16'), bow: typed('1/8') },
  }),
  board('2', 'ash_white', 'rough', {
    size: '96 x 7 1/2 x 6/4',
    grade: 'prime',
    price: price(6.8),
    moisturePct: 8.7,
    arrived: '2026-09-14',
    grain: 'flat',
    log: 'ash A',
    faults: [fault('check', 'both', { x: 93, y: 1, length: 3, width: 1.5 })],
  }),
  board('3', 'ash_white', 'rough', {
    size: '84 x 6 3/8 x 6/4',
    price: price(6.4),
    arrived: '2026-09-14',
    grain: 'rift',
    faults: [
      fault('stain', 'down', { x: 20, y: 0, length: 14, width: 2 }),
      fault('knot', 'down', { x: 50, y: 3, length: 1.8, width: 1.8 }),
    ],
  }),
  board('4', 'ash_white', 'rough', {
    size: '73 x 5 3/4 x 6/4',
    price: price(6.4),
    warp: { crook: typed('3/16') },
    faults: [fault('wane', 'both', { x: 40, y: 5, length: 33, width: 0.75 })],
  }),
  board('5', 'ash_white', 'rough', {
    size: '60 x 9 x 6/4',
    price: price(6.8),
    moisturePct: 9.1,
    arrived: '2026-10-02',
    sapEdge: 'far',
  }),
  board('6', 'walnut_black', 'rough', {
    size: '52 x 6 1/2 x 6/4',
    price: price(11.5),
    moisturePct: 8.2,
    colour: '#6b4a35',
    log: 'walnut',
    sapEdge: 'near',
    faults: [
      fault('sapwood', 'both', { x: 0, y: 0, length: 52, width: 0.9 }),
      fault('knot', 'up', { x: 33, y: 3.2, length: 1.5, width: 1.4 }),
    ],
  }),
  board('7', 'walnut_black', 'rough', {
    size: '66 x 7 1/4 x 8/4',
    price: price(12.9),
    moisturePct: 8.4,
    colour: '#5f4331',
    log: 'walnut',
    faults: [fault('split', 'both', { x: 0, y: 3, length: 6, width: 0.6 })],
  }),
  board('8', 'walnut_black', 'offcut', { size: '21 x 4 1/4 x 6/4', colour: '#70513b', log: 'walnut' }),
  board('9', 'maple_sugar', 'rough', {
    size: '71 x 7 x 8/4',
    price: price(7.9),
    moisturePct: 8,
    arrived: '2026-08-20',
    grain: 'flat',
    colour: '#dcc09a',
  }),
  board('10', 'maple_sugar', 'rough', {
    size: '70 x 6 1/4 x 8/4',
    price: price(7.9),
    grain: 'flat',
    colour: '#d9bb93',
    faults: [fault('stain', 'up', { x: 44, y: 1, length: 7, width: 2.4 })],
  }),
  board('11', 'maple_sugar', 'surfaced', {
    size: '48 x 5 1/2 x 1 3/4',
    price: price(9.2),
    colour: '#e0c7a3',
  }),
  board('12', 'maple_sugar', 'offcut', { size: '33 x 4 x 8/4' }),
  board('13', 'oak_white', 'rough', {
    size: '88 x 7 3/4 x 6/4',
    price: price(8.6),
    grain: 'quarter',
    arrived: '2026-11-16',
    moisturePct: 11.5,
    log: 'tower oak',
  }),
  board('14', 'oak_white', 'rough', {
    size: '50 x 8 1/2 x 6/4',
    price: price(8.6),
    grain: 'quarter',
    log: 'tower oak',
    faults: [fault('knot', 'up', { x: 12, y: 5.5, length: 1.6, width: 1.4 })],
  }),
  board('15', 'oak_white', 'reclaimed', {
    size: '63 x 6 x 6/4',
    price: price(30, 'board'),
    faults: [
      fault('nail', 'both', { x: 7, y: 2, length: 0.6, width: 0.6 }),
      fault('nail', 'both', { x: 31, y: 3.5, length: 0.6, width: 0.6 }),
      fault('nail', 'both', { x: 55, y: 2.2, length: 0.6, width: 0.6 }),
    ],
    warp: { cup: typed('1/8') },
  }),
  board('16', 'beech_american', 'rough', { size: '100 x 8 3/4 x 8/4', price: price(5.7), moisturePct: 8.8 }),
  board('17', 'beech_american', 'rough', {
    size: '98 x 7 x 8/4',
    price: price(5.7),
    faults: [fault('knot', 'both', { x: 70, y: 2.5, length: 2, width: 2 })],
  }),
  board('18', 'cherry_black', 'rough', { size: '46 x 6 1/2 x 4/4', price: price(8.1), colour: '#a5673f' }),
  board('19', 'cherry_black', 'offcut', { size: '31 x 3 1/2 x 4/4', colour: '#9c5f3a' }),
  board('20', 'pine_eastern_white', 'dressed', {
    size: '96 x 5 1/2 x 1 1/2',
    price: price(4.1, 'metre'),
    moisturePct: 15,
    arrived: '2026-11-09',
    faults: [
      fault('knot', 'both', { x: 22, y: 1.5, length: 1.6, width: 1.6 }),
      fault('knot', 'both', { x: 57, y: 3.4, length: 2, width: 1.5 }),
      fault('pith', 'down', { x: 0, y: 2.4, length: 96, width: 0.3 }),
    ],
  }),
  board('21', 'pine_eastern_white', 'dressed', {
    size: '96 x 7 1/4 x 1 1/2',
    price: price(5.6, 'metre'),
    moisturePct: 14,
    arrived: '2026-11-09',
  }),
  board('22', 'purpleheart', 'surfaced', { size: '37 x 5 1/4 x 1 3/4', price: price(19) }),
  board('23', 'wenge', 'offcut', { size: '34 x 2 3/4 x 4/4' }),
  board('24', 'mahogany_african', 'surfaced', {
    size: '40 x 6 x 13/16',
    price: price(10.4),
    colour: '#a3613f',
  }),
];
