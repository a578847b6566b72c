import { falling, inTurn, rising, sumOf } from '../units';
import { hasRoom } from '../document';
import { packBoard, type PackedBoard, type PackedSection } from './pack';
import { readBoard } from './score';
import { laneFor, type Search, type State, stateOf, withBoard } from './search';

/** What tells units apart where nothing else does: which strip was wanted first. */
const earliest = rising(([first]: readonly number[]) => first);

/** Strips that go in first: the longest, then the widest. */
export const byLength = (search: Search, units: readonly number[][]): number[][] =>
  units.toSorted(
    inTurn(
      falling((unit) => unitLength(search, unit)),
      falling((unit) => unitWidth(search, unit)),
      earliest,
    ),
  );
/** A random number that never comes up: nothing is skipped, nothing passed over. */
export const STRAIGHT = (): number => Infinity;
const unitLength = (search: Search, unit: readonly number[]) =>
  Math.max(...unit.map((i) => search.problem.strips[i].length));
const unitWidth = (search: Search, unit: readonly number[]) =>
  sumOf(unit.map((i) => search.problem.strips[i].width));

/** Units in one of several orders, so that no one of them decides every plan. */
export function orderUnits(search: Search, units: number[][], random: () => number): number[][] {
  const way = random();
  const long = (unit: number[]) => unitLength(search, unit);
  const wide = (unit: number[]) => unitWidth(search, unit);
  const byChance = (of: (unit: number[]) => number) => {
    const drawn = new Map(units.map((unit) => [unit, of(unit)]));
    return falling((unit: number[]) => drawn.get(unit) as number);
  };
  const order =
    way < 0.35
      ? inTurn(falling(long), falling(wide))
      : way < 0.6
        ? byChance((unit) => long(unit) * wide(unit) * (0.8 + 0.4 * random()))
        : way < 0.75
          ? inTurn(falling(wide), falling(long))
          : byChance(random);
  return units.toSorted(inTurn(order, earliest));
}

/**
 * Lays units in, each where it costs least. `random` below a small share skips a place, and now and then closes some
 * boards, so that other plans are met; what finds no place on the open boards may have any.
 */
export function recreate(
  search: Search,
  from: State,
  order: readonly number[][],
  random: () => number,
): State {
  let state: State = { ...from, missing: [] };
  const missing: number[] = [];
  const shut = closedBoards(search, random);
  const lay = (unit: readonly number[], closed: ReadonlySet<number>) =>
    unit.length === 1
      ? insert(search, state, unit[0], { random, closed })
      : insertSet(search, state, unit, { random, closed });
  for (const unit of order) {
    const next = lay(unit, shut) ?? (shut.size > 0 ? lay(unit, NONE) : undefined);
    if (next) state = next;
    else missing.push(...unit.filter((strip) => !search.problem.strips[strip].locked));
  }
  return stateOf(search, { boards: state.boards, readings: state.readings, parts: state.parts, missing });
}

const NONE: ReadonlySet<number> = new Set();
/** How often some boards are closed while a plan is laid in again, and which share of them. */
const CLOSING = 0.3;
const CLOSED_SHARE = 0.4;

function closedBoards(search: Search, random: () => number): ReadonlySet<number> {
  if (random() >= CLOSING) return NONE;
  return new Set(search.boards.flatMap(({ index }) => (random() < CLOSED_SHARE ? [index] : [])));
}

const SKIPPED = 0.03;
/** How often a place behind a fault is tried although one before it would do. */
const PASSED_OVER = 0.3;

/** All of a set on one board: on the board where it costs least. */
function insertSet(
  search: Search,
  state: State,
  unit: readonly number[],
  { random, closed }: { random: () => number; closed: ReadonlySet<number> },
): State | undefined {
  let best: State | undefined;
  // A strip of the set that is locked already decides the board.
  const settled = unit.find((i) => search.problem.strips[i].locked);
  const only = settled === undefined ? undefined : search.problem.strips[settled].locked?.board;
  for (const board of search.boards) {
    if (only !== undefined ? board.stock.id !== only : closed.has(board.index)) continue;
    let next: State | undefined = state;
    for (const strip of unit) {
      if (search.problem.strips[strip].locked) continue;
      next = next && insert(search, next, strip, { random, closed: NONE, only: board.index });
      if (!next) break;
    }
    if (next && (!best || next.score < best.score)) best = next;
  }
  return best;
}

/** Puts a strip where it costs least: as a leaf of a lane, in a section, in one made longer, or in a new one. */
function insert(
  search: Search,
  state: State,
  strip: number,
  { random, closed, only }: { random: () => number; closed: ReadonlySet<number>; only?: number },
): State | undefined {
  const kind = search.kindOf[strip];
  const { leaves, strip: wanted, bars } = search.kinds[kind];
  const { rules } = search.problem;
  let best: { board: number; packed: PackedBoard; gain: number } | undefined;
  for (let b = 0; b < search.boards.length; b++) {
    if (leaves[b] === 0 || closed.has(b) || (only !== undefined && b !== only)) continue;
    const board = search.boards[b];
    const [long, wide] = [board.xMax - board.xMin, board.yMax - board.yMin];
    if (!hasRoom(wanted.length, long) || !hasRoom(wanted.width, wide)) continue;
    const before = state.parts[b];
    const offer = (sections: PackedSection[]) => {
      if (random() < SKIPPED) return;
      search.work += 1;
      const packed = packBoard(board, sections, search.kinds, rules);
      if (!packed) return;
      const reading = readBoard(board, packed, rules);
      let gain = search.scoring.board(board, reading) - before;
      if (search.problem.goal === 'colour')
        gain +=
          search.scoring.together(state.readings.with(b, reading)) - search.scoring.together(state.readings);
      if (!best || gain < best.gain - 1e-9) best = { board: b, packed, gain };
    };
    const sections = state.boards[b];
    const faulty = bars[b][0].length > 0 || bars[b][1].length > 0;
    if (addLeaf(sections, kind, strip, { leaves: leaves[b], offer })) continue;
    const used = sumOf(sections.map(({ length }) => length + rules.crosscutKerf));
    sections.forEach((section, s) => {
      const width = sumOf(section.lanes.map((lane) => lane.width + rules.ripKerf));
      if (!hasRoom(width + wanted.width, wide)) return;
      const longer = Math.max(section.length, wanted.length);
      if (!hasRoom(longer, section.length)) {
        const inAll = used - section.length + longer - rules.crosscutKerf;
        if (section.fixed || !hasRoom(inAll, long)) return;
      }
      const lane = laneFor(search, strip, b);
      offer(sections.with(s, { ...section, length: longer, lanes: [...section.lanes, lane] }));
      if (!faulty) return;
      if (section.lanes.length > 0)
        offer(sections.with(s, { ...section, length: longer, lanes: [lane, ...section.lanes] }));
      if (random() < PASSED_OVER)
        offer(
          sections.with(s, { ...section, length: longer, lanes: [...section.lanes, { ...lane, skip: 1 }] }),
        );
    });
    if (!hasRoom(used + wanted.length, long)) continue;
    const fresh: PackedSection = {
      x: 0,
      length: wanted.length,
      lanes: [laneFor(search, strip, b)],
      fixed: false,
    };
    offer([...sections, fresh]);
    if (!faulty) continue;
    for (let s = 0; s < sections.length; s++) offer(sections.toSpliced(s, 0, fresh));
    if (random() < PASSED_OVER) {
      const skip = 1 + Math.floor(random() * 2);
      const lanes = fresh.lanes.map((lane) => ({ ...lane, skip }));
      offer([...sections, { ...fresh, skip }]);
      offer([...sections, { ...fresh, lanes }]);
      offer([...sections, { ...fresh, skip, lanes }]);
    }
  }
  return best && withBoard(search, state, best.board, best.packed);
}

/** A free leaf of a place that is cut anyway costs nothing: it is taken first. */
function addLeaf(
  sections: PackedBoard,
  kind: number,
  strip: number,
  { leaves, offer }: { leaves: number; offer: (sections: PackedSection[]) => void },
): boolean {
  if (leaves < 2) return false;
  for (const [s, section] of sections.entries())
    for (const [l, lane] of section.lanes.entries())
      if (lane.kind === kind && lane.strips.length < lane.leaves) {
        const lanes = section.lanes.with(l, { ...lane, strips: [...lane.strips, strip] });
        offer(sections.with(s, { ...section, lanes }));
        return true;
      }
  return false;
}
