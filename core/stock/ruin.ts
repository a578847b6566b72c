import { upwards } from '../units';
import { packBoard, type Lane, type PackedSection } from './pack';
import { stateOf, withBoard, type Search, type State } from './search';

/** Takes out a part of a plan: a few strips, whole sections, or whole boards; and everything that found no place. */
export function ruin(
  search: Search,
  state: State,
  random: () => number,
): { left: State; removed: number[][] } {
  const out = new Set<number>();
  const takeStrip = (strip: number) => {
    for (const mate of search.units[search.unitOf[strip]])
      if (!search.problem.strips[mate].locked) out.add(mate);
  };
  for (const strip of state.missing) takeStrip(strip);
  const placed = state.boards.flatMap((board) =>
    board.flatMap(({ lanes }) => lanes.filter((l) => !l.fixed).flatMap(({ strips }) => strips)),
  );
  if (placed.length === 0) return { left: state, removed: [...units(search, out)] };
  const way = random();
  const pick = <T>(list: readonly T[]): T =>
    list[Math.min(list.length - 1, Math.floor(random() * list.length))];
  if (way < 0.35) {
    const count = 1 + Math.floor(random() * Math.max(2, placed.length * 0.2));
    for (let i = 0; i < count; i++) takeStrip(pick(placed));
  } else if (way < 0.75) {
    const open = state.boards.flatMap((board) =>
      board.filter((section) => section.lanes.some((lane) => !lane.fixed)),
    );
    const count = 1 + Math.floor(random() * Math.min(4, open.length));
    for (let i = 0; i < count; i++)
      for (const lane of pick(open).lanes) if (!lane.fixed) for (const strip of lane.strips) takeStrip(strip);
  } else {
    const used = state.boards.filter((board) => board.some(({ lanes }) => lanes.some((lane) => !lane.fixed)));
    const count = 1 + Math.floor(random() * Math.min(3, used.length));
    for (let i = 0; i < count; i++)
      for (const { lanes } of pick(used))
        for (const lane of lanes) if (!lane.fixed) for (const strip of lane.strips) takeStrip(strip);
  }
  return { left: without(search, state, out), removed: [...units(search, out)] };
}

/** The units that some strips belong to. */
export const units = (search: Search, strips: ReadonlySet<number>): Set<number[]> =>
  new Set([...strips].toSorted(upwards).map((strip) => search.units[search.unitOf[strip]]));

/**
 * A state without some strips; sections close up where that lets them. A board that cannot be packed again gives up
 * all but its locked strips, and what it gives up joins `out`.
 */
function without(search: Search, state: State, out: Set<number>): State {
  let left: State = { ...state, missing: [] };
  state.boards.forEach((sections, b) => {
    if (!sections.some(({ lanes }) => lanes.some(({ strips }) => strips.some((strip) => out.has(strip)))))
      return;
    const kept = sections.flatMap((section): PackedSection[] => {
      const lanes = section.lanes.flatMap((lane): Lane[] => {
        const strips = lane.strips.filter((strip) => !out.has(strip));
        return strips.length > 0 ? [{ ...lane, strips }] : [];
      });
      if (lanes.length === 0) return [];
      if (section.fixed) return [{ ...section, lanes }];
      return [{ ...section, lanes, length: Math.max(...lanes.map((lane) => lane.length)) }];
    });
    // With fewer strips the same order still fits: each comes no later than it did.
    const packed = packBoard(search.boards[b], kept, search.kinds, search.problem.rules);
    const locked = kept
      .filter((section) => section.fixed)
      .map((section) => ({ ...section, lanes: section.lanes.filter((lane) => lane.fixed) }));
    left = withBoard(search, left, b, packed ?? locked);
    if (packed) return;
    for (const lane of kept.flatMap(({ lanes }) => lanes))
      if (!lane.fixed) for (const strip of lane.strips) out.add(strip);
  });
  return stateOf(search, { boards: left.boards, readings: left.readings, parts: left.parts, missing: [] });
}
