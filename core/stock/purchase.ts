import type { BoardStock, Price } from '../document';
import { type Display, INCH } from '../units';
import { hardwoodTally } from './measure';
import { leavesFrom, type Problem, type WantedStrip } from './problem';
import { EFFORT, solveNow } from './solve';

/** Boards to buy: one size, how many, board feet by a seller's tally, and what they may cost. */
export interface Purchase {
  species: string;
  length: number;
  width: number;
  thickness: number;
  count: number;
  boardFeet: number;
  /** By the mean price of this wood on the rack; undefined where none of it has one. */
  cost?: { minor: number; currency: string };
  /** Ids of the strips it gives. */
  strips: string[];
}

/** Rough thicknesses hardwood is sold in, in quarters of an inch: 4/4 to 16/4 (NHLA standard thicknesses, from memory). */
const QUARTERS_IN = [1, 1.25, 1.5, 2, 2.5, 3, 4];
/** Lengths in feet: 4 to 16 ft in whole feet (NHLA, from memory); the even ones are the common stock. */
const LENGTHS_FT = [4, 6, 8, 10, 12, 14, 16];
/** Widths a yard can usually be asked for, in; random widths are sold, so these are wishes (common practice). */
const WIDTHS_IN = [4, 6, 8, 10];
/** The same in a metric yard: thickness in mm, lengths in m, widths in mm (common practice). */
const METRIC = {
  thicknesses: [27, 34, 41, 52, 65, 80, 100],
  lengths: [1000, 1500, 2000, 2500, 3000, 4000],
  widths: [100, 150, 200, 250],
};

const sizesOf = (display: Display) =>
  display.system === 'mm'
    ? METRIC
    : {
        thicknesses: QUARTERS_IN.map((q) => q * INCH),
        lengths: LENGTHS_FT.map((ft) => ft * 12 * INCH),
        widths: WIDTHS_IN.map((w) => w * INCH),
      };

const virtual = (
  species: string,
  { length, width, thickness, nth = 0 }: { length: number; width: number; thickness: number; nth?: number },
): BoardStock => ({
  id: `buy-${nth}`,
  label: `to buy ${nth + 1}`,
  species,
  length: { mm: length },
  width: { mm: width },
  thickness: { mm: thickness },
  sold: 'rough',
});

/** Mean price per mm3 of a wood on the rack, in the currency most of it is priced in. */
function meanPrice(species: string, rack: readonly BoardStock[]): Price | undefined {
  const feet = rack.flatMap((board) =>
    board.species === species && board.price?.per === 'boardFoot' ? [board.price] : [],
  );
  const currency = feet[0]?.currency;
  const same = feet.filter((price) => price.currency === currency);
  if (same.length === 0) return undefined;
  return { currency, per: 'boardFoot', minor: same.reduce((sum, { minor }) => sum + minor, 0) / same.length };
}

/**
 * Boards to buy for strips that found no wood: for each wood and thickness the one standard size that holds them with
 * the least waste, and how many. Ties go to fewer boards, then to shorter ones. `rack` gives the price to expect.
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
  return [...groups.values()].flatMap((strips) => bestSize(problem, strips, rack) ?? []);
}

function bestSize(
  problem: Problem,
  strips: readonly WantedStrip[],
  rack: readonly BoardStock[],
): Purchase | undefined {
  const { display } = problem.shop;
  const { lengths, widths, thicknesses } = sizesOf(display);
  const { species } = strips[0];
  const free = strips.map((strip) => ({ ...strip, locked: undefined }));
  const thickness = thicknesses.find((t) =>
    strips.every(
      (strip) =>
        leavesFrom(
          strip,
          virtual(species, {
            length: lengths[lengths.length - 1],
            width: widths[widths.length - 1],
            thickness: t,
          }),
          problem,
        ) > 0,
    ),
  );
  if (thickness === undefined) return undefined;
  const area = strips.reduce((sum, { length, width }) => sum + length * width, 0);
  const offers = lengths.flatMap((length) =>
    widths.flatMap((width) => {
      const { endTrim, edgeTrim, remnant } = problem.rules;
      const fits = strips.every(
        (s) => s.length <= length - 2 * endTrim && s.width <= width - 2 * edgeTrim - remnant,
      );
      const least = Math.ceil(area / (length * width));
      if (!fits || least > 40) return [];
      for (let count = least; count <= Math.min(strips.length, least + 4); count++) {
        const boards = Array.from({ length: count }, (_, i) =>
          virtual(species, { length, width, thickness, nth: i }),
        );
        const answer = solveNow(
          { ...problem, strips: free, boards, goal: 'fewestBoards' },
          EFFORT.quick / 40,
        );
        if (answer.missing.length === 0)
          return [{ length, width, count, waste: count * length * width - area }];
      }
      return [];
    }),
  );
  const [best] = offers.toSorted((a, b) => a.waste - b.waste || a.count - b.count || a.length - b.length);
  if (!best) return undefined;
  const { length, width, count } = best;
  const feet =
    display.system === 'mm'
      ? (count * length * width * thickness) / (144 * INCH ** 3)
      : count * hardwoodTally(thickness / INCH, width / INCH, length / INCH / 12);
  const price = meanPrice(species, rack);
  return {
    ...{ species, length, width, thickness, count },
    boardFeet: feet,
    cost: price && { minor: price.minor * feet, currency: price.currency },
    strips: strips.map(({ id }) => id),
  };
}
