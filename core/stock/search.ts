import { rising, sumOf } from '../units';
import { TOUCH_MM } from '../document';
import type { Lane, PackedBoard, PackedSection } from './pack';
import { prepare, type Problem, type SolverBoard, type StripKind } from './problem';
import { type BoardReading, readBoard, type Scoring, scoringOf } from './score';

/** A whole arrangement. Boards are never changed in place, so that keeping one costs nothing. */
export interface State {
  boards: PackedBoard[];
  readings: BoardReading[];
  parts: number[];
  missing: number[];
  score: number;
}

/** What the search works with. */
export interface Search {
  problem: Problem;
  boards: SolverBoard[];
  kinds: StripKind[];
  kindOf: number[];
  scoring: Scoring;
  /** Strips that go together: each of a set, or one alone. */
  units: number[][];
  unitOf: number[];
  work: number;
}

/** Everything about a problem that the search asks again and again, answered once. */
export function begin(problem: Problem): Search {
  const { boards, kinds, kindOf } = prepare(problem);
  const bySet = new Map<string, number[]>();
  const units: number[][] = [];
  problem.strips.forEach((strip, i) => {
    if (strip.set === undefined) return void units.push([i]);
    const unit = bySet.get(strip.set);
    if (unit) unit.push(i);
    else {
      const fresh = [i];
      bySet.set(strip.set, fresh);
      units.push(fresh);
    }
  });
  const unitOf: number[] = [];
  units.forEach((unit, u) => {
    for (const strip of unit) unitOf[strip] = u;
  });
  return {
    problem,
    boards,
    kinds,
    kindOf,
    scoring: scoringOf(problem.goal, boards, problem.rules),
    units,
    unitOf,
    work: 0,
  };
}

/** An arrangement with its score, in the goal's own measure: less is better. */
export function stateOf(
  search: Search,
  {
    boards,
    readings,
    parts,
    missing,
  }: { boards: PackedBoard[]; readings: BoardReading[]; parts: number[]; missing: number[] },
): State {
  const score = sumOf(parts) + search.scoring.together(readings) + missing.length * search.scoring.missing;
  return { boards, readings, parts, missing, score };
}

function empty(search: Search): State {
  const none: BoardReading = { used: false, strips: 0, reusable: 0 };
  return stateOf(search, {
    boards: search.boards.map(() => []),
    readings: search.boards.map(() => none),
    parts: search.boards.map(() => 0),
    missing: [],
  });
}

/** A state with one board's layout replaced. */
export function withBoard(search: Search, state: State, board: number, packed: PackedBoard): State {
  const reading = readBoard(search.boards[board], packed, search.problem.rules);
  const part = search.scoring.board(search.boards[board], reading);
  return stateOf(search, {
    boards: state.boards.with(board, packed),
    readings: state.readings.with(board, reading),
    parts: state.parts.with(board, part),
    missing: state.missing,
  });
}

/** A lane for one strip, not yet placed. */
export const laneFor = (search: Search, strip: number, board: number): Lane => {
  const kind = search.kindOf[strip];
  const { length, width } = search.kinds[kind].strip;
  return {
    kind,
    strips: [strip],
    leaves: search.kinds[kind].leaves[board],
    length,
    width,
    x: 0,
    y: 0,
    faceDown: false,
    fixed: false,
  };
};

/** Locked strips as fixed sections; everything else is arranged around them. */
export function withLocked(search: Search): State {
  let state = empty(search);
  const { strips } = search.problem;
  for (const [board, { stock }] of search.boards.entries()) {
    const here = strips.flatMap((strip, i) =>
      strip.locked?.board === stock.id ? [{ i, at: strip.locked }] : [],
    );
    if (here.length === 0) continue;
    const sections: PackedSection[] = [];
    for (const { i, at } of here.toSorted(rising((a) => a.at.x))) {
      const lane: Lane = {
        ...laneFor(search, i, board),
        x: at.x,
        y: at.y,
        leaves: at.leaves,
        faceDown: at.faceDown,
        fixed: true,
      };
      const last = sections.at(-1);
      if (!last || at.x >= last.x + last.length - TOUCH_MM) {
        sections.push({ x: at.x, length: lane.length, lanes: [lane], fixed: true });
        continue;
      }
      const twin = last.lanes.find(
        (other) => Math.abs(other.y - at.y) < TOUCH_MM && Math.abs(other.x - at.x) < TOUCH_MM,
      );
      if (twin) twin.strips.push(i);
      else {
        last.lanes.push(lane);
        last.length = Math.max(last.length, at.x + lane.length - last.x);
      }
    }
    state = withBoard(search, state, board, sections);
  }
  return state;
}
