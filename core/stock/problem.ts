import { sumOf } from '../units';
import {
  type BoardStock,
  type BreakdownSettings,
  type FaceGrades,
  forbids,
  type Goal,
  type GrainCut,
  isThrough,
  mustAvoid,
  hasRoom,
} from '../document';
import type { ShopSnapshot } from '../kit';
import { boardCost, boardVolume } from './measure';
import { edgeCleaning, faceCleaning, warpLoss } from './milling';

/** A strip that is wanted: its rough size with all allowances, mm, and what its wood must be. */
export interface WantedStrip {
  id: string;
  species: string;
  length: number;
  width: number;
  thickness: number;
  /** Thickness it must still have when it is flat. */
  milledThickness: number;
  grades: FaceGrades;
  grain?: GrainCut;
  /** Strips of one set come from one board. */
  set?: string;
  /** Its place is settled: everything else is solved around it. */
  locked?: StripPlace;
}

/** Where a strip comes to lie. */
export interface StripPlace {
  board: string;
  x: number;
  y: number;
  leaf: number;
  leaves: number;
  faceDown: boolean;
}

/** What the breakdown may use and how it cuts. Sizes in mm. */
export interface CuttingRules {
  crosscutKerf: number;
  ripKerf: number;
  resawKerf: number;
  resaw: boolean;
  /** Highest board that the resaw takes; zero for no limit. */
  resawReach: number;
  endTrim: number;
  edgeTrim: number;
  remnant: number;
  leastOffcutLength: number;
  leastOffcutWidth: number;
  /** What a reusable offcut counts of the same wood in a whole board, 0 to 1. */
  offcutWorth: number;
}

/** A breakdown to be solved: strips, boards, rules and the goal. */
export interface Problem {
  strips: readonly WantedStrip[];
  boards: readonly BoardStock[];
  rules: CuttingRules;
  goal: Goal;
  shop: ShopSnapshot;
  /** What is missing is bought so; as usual, if missing. */
  buying?: Pick<BreakdownSettings, 'buyAs' | 'buyLengths'>;
}

/** A rectangle that a strip must not touch, for one kind of strip and one way it lies. */
export interface Bar {
  x0: number;
  x1: number;
  y0: number;
  y1: number;
}

/** A board as the solver sees it. */
export interface SolverBoard {
  index: number;
  stock: BoardStock;
  length: number;
  width: number;
  thickness: number;
  /** Strips lie within these. */
  xMin: number;
  xMax: number;
  yMin: number;
  yMax: number;
  volume: number;
  cost: number;
  priced: boolean;
}

/** Strips of equal size and demands, so that the solver asks each question once. */
export interface StripKind {
  strip: WantedStrip;
  /** For each board: leaves it gives at one place, 0 where it cannot be cut from it. */
  leaves: number[];
  /** For each board and way of lying: what to keep clear of. Undefined entries: nothing. */
  bars: [Bar[], Bar[]][];
}

const FREE: [Bar[], Bar[]] = [[], []];

/** How many leaves of a strip a board gives at one place: 0 where it is the wrong wood, too thin or too warped. */
export function leavesFrom(
  strip: WantedStrip,
  board: BoardStock,
  problem: Pick<Problem, 'rules' | 'shop'>,
): number {
  const { rules, shop } = problem;
  const t = board.thickness.mm;
  if (board.species !== strip.species) return 0;
  if (strip.grain && board.grain && strip.grain !== board.grain) return 0;
  const warp = warpLoss(board, strip);
  const lost = warp.cup + warp.bow + warp.wind;
  const flat = t - lost - 2 * faceCleaning(board, shop);
  if (!hasRoom(strip.thickness, t) || !hasRoom(strip.milledThickness, flat)) return 0;
  if (!rules.resaw || (rules.resawReach > 0 && strip.width > rules.resawReach)) return 1;
  // Warp must come out of the block before it is resawn, so that only the flat part gives leaves.
  return Math.max(1, Math.floor((t - lost + rules.resawKerf) / (strip.thickness + rules.resawKerf) + 1e-6));
}

/** The stretch of a board's length and width that strips may lie in, after its ends and edges are cleaned. */
export function usable(board: BoardStock, problem: Pick<Problem, 'rules' | 'shop'>) {
  const { rules, shop } = problem;
  const corner = board.sold === 'dressed' ? edgeCleaning(board, shop) : 0;
  const edge = Math.max(rules.edgeTrim, corner);
  return {
    xMin: rules.endTrim,
    xMax: board.length.mm - rules.endTrim,
    yMin: edge,
    yMax: board.width.mm - edge,
  };
}

/** Boards and kinds of strips, with every question about which fits where answered once. */
export function prepare(problem: Problem): { boards: SolverBoard[]; kinds: StripKind[]; kindOf: number[] } {
  const boards = problem.boards.map((stock, index): SolverBoard => {
    const cost = boardCost(stock);
    return {
      index,
      stock,
      length: stock.length.mm,
      width: stock.width.mm,
      thickness: stock.thickness.mm,
      ...usable(stock, problem),
      volume: boardVolume(stock),
      cost: cost?.minor ?? 0,
      priced: cost !== undefined,
    };
  });
  estimateCosts(boards);
  const kinds: StripKind[] = [];
  const byKey = new Map<string, number>();
  const kindOf = problem.strips.map((strip) => {
    const { length, width, thickness, milledThickness, species, grain, grades } = strip;
    const key = JSON.stringify([length, width, thickness, milledThickness, species, grain, grades]);
    let kind = byKey.get(key);
    if (kind === undefined) {
      kind = kinds.length;
      byKey.set(key, kind);
      kinds.push(kindFor(strip, boards, problem));
    }
    return kind;
  });
  return { boards, kinds, kindOf };
}

function kindFor(strip: WantedStrip, boards: readonly SolverBoard[], problem: Problem): StripKind {
  const leaves = boards.map(({ stock }) => leavesFrom(strip, stock, problem));
  const bars = boards.map(({ stock }, i): [Bar[], Bar[]] => {
    const faults = stock.faults ?? [];
    if (leaves[i] === 0 || faults.length === 0) return FREE;
    const barsFor = (faceDown: boolean) =>
      faults
        .filter((fault) =>
          // A leaf's inner face is new wood; what is on either face of the board counts for all its leaves.
          leaves[i] > 1 && !isThrough(fault)
            ? forbids(strip.grades.up, fault.kind) || forbids(strip.grades.down, fault.kind)
            : mustAvoid(fault, strip.grades, faceDown),
        )
        .map((f): Bar => ({ x0: f.x, x1: f.x + f.length, y0: f.y, y1: f.y + f.width }));
    return [barsFor(false), barsFor(true)];
  });
  return { strip, leaves, bars };
}

/** A board without a price counts with the mean price of the priced ones by volume, so that it is not for nothing. */
function estimateCosts(boards: SolverBoard[]): void {
  const priced = boards.filter((board) => board.priced);
  const volume = sumOf(priced, (board) => board.volume);
  const rate = volume > 0 ? sumOf(priced, (board) => board.cost) / volume : 1e-6;
  for (const board of boards) if (!board.priced) board.cost = board.volume * rate;
}
