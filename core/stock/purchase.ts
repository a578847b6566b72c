import type { BoardStock, Price, SoldAs } from '../document';
import { soldIn, type SoldSection, type StockKind, stockKind, type StockKindFacts } from '../kit';
import { type Display, INCH, inTurn, rising, sumOf } from '../units';
import { areaOf } from './faults';
import { billedBoardFeet, billedSize, boardCost, hardwoodTally, softwoodTally } from './measure';
import { nextNumber } from './rack';
import { leavesFrom, type Problem, usable, type WantedStrip } from './problem';
import { EFFORT, solveNow } from './solve';

/** Boards to buy: one size, how many, board feet by a seller's tally, and what they may cost. */
export interface Purchase {
  species: string;
  length: number;
  width: number;
  thickness: number;
  count: number;
  boardFeet: number;
  /** How it is sold, and under which name, as in `2x8` or `8/4`. */
  kind: StockKind;
  name?: string;
  /** By the mean price of this wood on the rack; undefined where none of it has one. */
  cost?: { minor: number; currency: string };
  /** Ids of the strips it gives. */
  strips: string[];
}

const virtual = (
  species: string,
  {
    length,
    width,
    thickness,
    sold,
    nth = 0,
  }: { length: number; width: number; thickness: number; sold: SoldAs; nth?: number },
): BoardStock => ({
  id: `buy-${nth}`,
  label: `to buy ${nth + 1}`,
  species,
  length: { mm: length },
  width: { mm: width },
  thickness: { mm: thickness },
  sold,
});

/**
 * A purchase as boards for the rack, numbered on from those that are there. What was really paid is entered on the board:
 * the price of the list was only expected.
 */
export function boardsBought(purchase: Purchase, taken: readonly string[]): Omit<BoardStock, 'id'>[] {
  const { species, count, kind, length, width, thickness } = purchase;
  const labels = [...taken];
  return Array.from({ length: count }, () => {
    const label = nextNumber(labels);
    labels.push(label);
    return {
      ...{ label, species, sold: stockKind(kind).sold },
      ...{ length: { mm: length }, width: { mm: width }, thickness: { mm: thickness } },
    };
  });
}

/** Mean price of a wood on the rack per board foot, in the currency that the first of it is priced in. */
function meanPrice(species: string, rack: readonly BoardStock[]): Price | undefined {
  // However a board is priced, it comes to so much a board foot.
  const rates = rack.flatMap((board) => {
    const cost = board.species === species ? boardCost(board) : undefined;
    return cost ? [{ currency: cost.currency, minor: cost.minor / billedBoardFeet(board) }] : [];
  });
  const currency = rates[0]?.currency;
  const same = rates.filter((rate) => rate.currency === currency);
  if (same.length === 0) return undefined;
  return { currency, per: 'boardFoot', minor: sumOf(same, ({ minor }) => minor) / same.length };
}

/**
 * Boards to buy for strips that found no wood: for each wood and thickness the one size on sale that holds them with the
 * least waste, and how many. Ties go to fewer boards, then to shorter ones. What is on sale goes by the problem's `buying`,
 * else by how the wood is usually sold. `rack` gives the price to expect.
 */
export function purchaseList(
  problem: Problem,
  missing: readonly string[],
  rack: readonly BoardStock[],
): Purchase[] {
  const wanted = problem.strips.filter(({ id }) => missing.includes(id));
  const groups = new Map<string, WantedStrip[]>();
  for (const strip of wanted) {
    const key = `${strip.species}|${strip.thickness}`;
    groups.set(key, [...(groups.get(key) ?? []), strip]);
  }
  return [...groups.values()].flatMap((strips) => {
    const { buyAs } = problem.buying ?? {};
    for (const kind of buyAs ? [buyAs] : soldIn(strips[0].species)) {
      const best = bestSize(problem, strips, { kind, rack });
      if (best) return [best];
    }
    return [];
  });
}

/** How many boards of one size hold the strips; undefined where they do not. */
function boardsNeeded(
  problem: Problem,
  strips: readonly WantedStrip[],
  size: { length: number; width: number; thickness: number; sold: SoldAs },
): number | undefined {
  const { species } = strips[0];
  const board = virtual(species, size);
  const { xMin, xMax, yMin, yMax } = usable(board, problem);
  const { remnant } = problem.rules;
  const fits = strips.every((s) => s.length <= xMax - xMin && s.width <= yMax - yMin - remnant);
  const least = Math.ceil(sumOf(strips, areaOf) / areaOf(size));
  if (!fits || least > 40) return undefined;
  for (let count = least; count <= Math.min(strips.length, least + 4); count++) {
    const boards = Array.from({ length: count }, (_, nth) => virtual(species, { ...size, nth }));
    const answer = solveNow({ ...problem, strips, boards, goal: 'fewestBoards' }, EFFORT.quick / 40);
    if (answer.missing.length === 0) return count;
  }
  return undefined;
}

function bestSize(
  problem: Problem,
  strips: readonly WantedStrip[],
  { kind, rack }: { kind: StockKind; rack: readonly BoardStock[] },
): Purchase | undefined {
  const { display } = problem.shop;
  const { sections, lengths: usual, sold, tally } = stockKind(kind);
  const { species } = strips[0];
  const lengths = problem.buying?.buyLengths?.map(({ mm }) => mm) ?? usual[display.system];
  const free = strips.map((strip) => ({ ...strip, locked: undefined }));
  const gives = ({ thicknessMm, widthMm }: SoldSection) => {
    const size = { length: Math.max(...lengths), width: widthMm, thickness: thicknessMm, sold };
    return strips.every((strip) => leavesFrom(strip, virtual(species, size), problem) > 0);
  };
  // The thinnest that will do; what is thicker goes off as shavings.
  const thick = sections[display.system].filter(gives);
  const thickness = Math.min(...thick.map(({ thicknessMm }) => thicknessMm));
  const offers = lengths.flatMap((length) =>
    thick
      .filter(({ thicknessMm }) => thicknessMm === thickness)
      .flatMap(({ name, widthMm: width }) => {
        const count = boardsNeeded(problem, free, { length, width, thickness, sold });
        return count === undefined
          ? []
          : [{ length, width, count, wood: count * areaOf({ length, width }), ...(name ? { name } : {}) }];
      }),
  );
  const [best] = offers.toSorted(
    inTurn(
      rising(({ wood }) => wood),
      rising(({ count }) => count),
      rising(({ length }) => length),
    ),
  );
  if (!best) return undefined;
  const { length, width, count, name } = best;
  const boardFeet = count * feetOf(virtual(species, { length, width, thickness, sold }), tally, display);
  const price = meanPrice(species, rack);
  return {
    ...{ species, length, width, thickness, count, kind },
    ...(name ? { name } : {}),
    boardFeet,
    cost: price && { minor: price.minor * boardFeet, currency: price.currency },
    strips: strips.map(({ id }) => id),
  };
}

/** Board feet of one board by its seller's tally; metric yards sell by the real volume. */
function feetOf(board: BoardStock, tally: StockKindFacts['tally'], { system }: Display): number {
  const [length, width, thickness] = [board.length.mm, board.width.mm, board.thickness.mm].map(
    (mm) => mm / INCH,
  );
  const real = (length * width * thickness) / 144;
  if (system === 'mm') return real;
  switch (tally) {
    case 'hardwood':
      return hardwoodTally(thickness, width, length / 12);
    case 'nominal': {
      const { thicknessIn, widthIn } = billedSize(board);
      return softwoodTally(thicknessIn, widthIn, length / 12);
    }
    case 'volume':
      return real;
  }
}
