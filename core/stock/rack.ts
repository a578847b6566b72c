import { inTurn, rising, sumOf, upwards } from '../units';
import type { BoardStock, SoldAs } from '../document';
import { speciesName } from '../wood';
import { clearShare } from './faults';
import { billedBoardFeet, boardCost, boardVolume, worth } from './measure';

/** What the rack can be put in order by. */
export const RACK_ORDERS = [
  'entered',
  'label',
  'species',
  'length',
  'width',
  'thickness',
  'boardFeet',
  'value',
  'clear',
  'arrived',
] as const;
export type RackOrder = (typeof RACK_ORDERS)[number];

/** What is looked for on the rack. Empty fields let everything through. */
export interface RackQuestion {
  text: string;
  species: string;
  sold: SoldAs | '';
  onlyFree: boolean;
  order: RackOrder;
  downwards: boolean;
  grouped: boolean;
}

/** A line of the rack: a board, or the head of a group with its sums. */
export type RackLine<B> =
  | { head: string; key: string; thicknessMm: number; sums: RackSums }
  | { board: B; boardFeet: number; clear: number; value?: { minor: number; currency: string } };

/** Sums over boards: real volume in mm3, board feet as billed, worth in minor units by currency. */
export interface RackSums {
  boards: number;
  boardFeet: number;
  volume: number;
  byCurrency: Record<string, number>;
  unpriced: number;
}

/** Sums of some boards. */
export const rackSums = (boards: readonly BoardStock[]): RackSums => ({
  boards: boards.length,
  boardFeet: sumOf(boards, (board) => billedBoardFeet(board)),
  volume: sumOf(boards, (board) => boardVolume(board)),
  ...worth(boards),
});

const collator = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });

type Held = BoardStock & { reserved?: { job: string; name: string } };

const words = (board: Held): string =>
  [
    board.label,
    speciesName(board.species),
    board.species,
    board.sold,
    board.log,
    board.grade,
    board.grain,
    board.reserved?.name,
  ]
    .join(' ')
    .toLowerCase();

/** Compares boards by one reading; boards without it come last either way. */
function comparing(order: RackOrder, downwards: boolean): (a: Held, b: Held) => number {
  const reading: Record<RackOrder, (board: Held) => number | string | undefined> = {
    entered: () => undefined,
    label: (board) => board.label,
    species: (board) => speciesName(board.species),
    length: (board) => board.length.mm,
    width: (board) => board.width.mm,
    thickness: (board) => board.thickness.mm,
    boardFeet: billedBoardFeet,
    value: (board) => boardCost(board)?.minor,
    clear: clearShare,
    arrived: (board) => board.arrived,
  };
  const known = new Map<Held, number | string | undefined>();
  const read = (board: Held) => {
    if (!known.has(board)) known.set(board, reading[order](board));
    return known.get(board);
  };
  return (a, b) => {
    const [x, y] = [read(a), read(b)];
    if (x === undefined || y === undefined) return Number(x === undefined) - Number(y === undefined);
    const way =
      typeof x === 'number' && typeof y === 'number' ? upwards(x, y) : collator.compare(String(x), String(y));
    return downwards ? -way : way;
  };
}

/**
 * The rack as asked for: searched by every word typed, filtered, in order, and on request in groups of one wood and
 * thickness, each with its sums. Boards that compare equal stay in the order in which they were entered.
 */
export function searchRack<B extends Held>(boards: readonly B[], question: RackQuestion): RackLine<B>[] {
  const wanted = question.text.toLowerCase().split(/\s+/).filter(Boolean);
  const found = boards
    .filter(
      (board) =>
        (!question.species || board.species === question.species) &&
        (!question.sold || board.sold === question.sold) &&
        (!question.onlyFree || !board.reserved) &&
        wanted.every((word) => words(board).includes(word)),
    )
    .toSorted(comparing(question.order, question.downwards));
  const line = (board: B): RackLine<B> => ({
    board,
    boardFeet: billedBoardFeet(board),
    clear: clearShare(board),
    value: boardCost(board),
  });
  if (!question.grouped) return found.map(line);
  const groups = new Map<string, B[]>();
  for (const board of found) {
    const key = `${board.species}|${board.thickness.mm.toFixed(2)}`;
    groups.set(key, [...(groups.get(key) ?? []), board]);
  }
  return [...groups]
    .toSorted(
      inTurn(
        ([, [a]], [, [b]]) => collator.compare(speciesName(a.species), speciesName(b.species)),
        rising(([, [{ thickness }]]) => thickness.mm),
      ),
    )
    .flatMap(([key, group]) => [
      { head: speciesName(group[0].species), thicknessMm: group[0].thickness.mm, key, sums: rackSums(group) },
      ...group.map(line),
    ]);
}

/** The longest number a board can carry. */
const MOST_LETTERS = 40;

/** The next number free on the rack that begins like a given one: `7` gives `7a`. A long one is shortened to make room. */
export function freeNumber(label: string, taken: ReadonlySet<string>): string {
  const with_ = (end: string) => label.slice(0, MOST_LETTERS - end.length) + end;
  for (const letter of 'abcdefghijklmnopqrstuvwxyz') if (!taken.has(with_(letter))) return with_(letter);
  // Of as many candidates as there are numbers taken, and one more, one is free.
  for (let n = 2; n <= taken.size + 2; n++) if (!taken.has(with_(`-${n}`))) return with_(`-${n}`);
  return with_(`-${taken.size + 3}`);
}

/** The number that follows the last one on the rack: `41` after `40`, `B8` after `B7`. */
export function nextNumber(labels: readonly string[]): string {
  const taken = new Set(labels);
  const last = labels.findLast((label) => /\d+$/.test(label));
  const match = last && /^(.*?)(\d+)$/.exec(last);
  const [stem, from] = match ? [match[1], Number(match[2]) + 1] : ['', 1];
  const most = Math.min(from, Number.MAX_SAFE_INTEGER - taken.size - 1) + taken.size;
  for (let n = from; n < most; n++) if (!taken.has(`${stem}${n}`)) return `${stem}${n}`;
  return `${stem}${most}`;
}

/**
 * The first board whose number is taken, on the rack or by one before it, with the next free number for it; undefined where
 * every number is its own. Numbers are told apart letter by letter.
 */
export function numberClash(
  boards: readonly Pick<BoardStock, 'label'>[],
  onRack: ReadonlySet<string>,
): { label: string; free: string } | undefined {
  const taken = new Set(onRack);
  for (const { label } of boards) {
    if (taken.has(label)) return { label, free: freeNumber(label, taken) };
    taken.add(label);
  }
  return undefined;
}
