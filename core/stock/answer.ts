import { inTurn, rising } from '../units';
import { TOUCH_MM } from '../document';
import { type Lane, laneLies, packBoard, type PackedSection } from './pack';
import type { StripPlace } from './problem';
import { byLength, recreate, STRAIGHT } from './recreate';
import { units } from './ruin';
import { laneFor, type Search, type State, withBoard } from './search';

/** Where one strip comes from. */
export interface PlacedStrip extends StripPlace {
  strip: string;
}

/** An answer of the breakdown: places for strips, and strips for which there is no wood. */
export interface Answer {
  places: PlacedStrip[];
  missing: string[];
  /** The goal's sum; less is better. Compares answers of one problem only. */
  score: number;
  /** Nothing better exists: the score meets a bound, or every arrangement was looked at. */
  proven: boolean;
}

/** An arrangement as the answer of its problem. */
export function toAnswer(search: Search, state: State, bound: number): Answer {
  const places: PlacedStrip[] = [];
  state.boards.forEach((sections, b) => {
    for (const { lanes } of sections)
      for (const lane of lanes)
        lane.strips.forEach((strip, leaf) => {
          const { locked, id } = search.problem.strips[strip];
          places.push({
            strip: id,
            ...(locked ?? {
              board: search.boards[b].stock.id,
              x: lane.x,
              y: lane.y,
              leaf: freeLeaf(search, lane, leaf),
              leaves: lane.leaves,
              faceDown: lane.faceDown,
            }),
          });
        });
  });
  return {
    places,
    missing: state.missing.map((strip) => search.problem.strips[strip].id),
    score: state.score,
    proven: state.score <= bound * (1 + 1e-12),
  };
}

/** Which leaf of its lane the n-th strip gets: locked strips keep theirs, the others fill up from below. */
function freeLeaf(search: Search, lane: Lane, nth: number): number {
  const taken = new Set(lane.strips.flatMap((strip) => search.problem.strips[strip].locked?.leaf ?? []));
  const open = Array.from({ length: lane.leaves }, (_, leaf) => leaf).filter((leaf) => !taken.has(leaf));
  const before = lane.strips.slice(0, nth).filter((strip) => !search.problem.strips[strip].locked).length;
  return open[before] ?? nth;
}

/** An earlier answer laid in again, strip by strip in its own order, where its boards and strips still exist. */
export function fromAnswer(search: Search, settled: State, answer: Answer): State {
  const at = new Map(answer.places.map((place) => [place.strip, place]));
  const byBoard = new Map<string, { strip: number; place: PlacedStrip }[]>();
  const rest: number[] = [];
  search.problem.strips.forEach((strip, i) => {
    if (strip.locked) return;
    const place = at.get(strip.id);
    const board = place && search.boards.find(({ stock }) => stock.id === place.board);
    if (!place || !board || search.kinds[search.kindOf[i]].leaves[board.index] === 0)
      return void rest.push(i);
    const list = byBoard.get(place.board) ?? [];
    list.push({ strip: i, place });
    byBoard.set(place.board, list);
  });
  let state = settled;
  for (const [id, list] of byBoard) {
    const board = search.boards.findIndex(({ stock }) => stock.id === id);
    const sections = sectionsFrom(search, list, board);
    // Exactly as it lay, or closed up, as a thinner kerf lets it: whichever is better.
    const ways = [
      settled.boards[board].length === 0 && stillFits(search, board, sections) ? sections : undefined,
      packBoard(
        search.boards[board],
        [...settled.boards[board], ...sections],
        search.kinds,
        search.problem.rules,
      ),
    ].flatMap((packed) => (packed ? [withBoard(search, state, board, packed)] : []));
    const [best] = ways.toSorted(rising((a) => a.score));
    if (best) state = best;
    else rest.push(...list.map(({ strip }) => strip));
  }
  return recreate(search, state, byLength(search, [...units(search, new Set(rest))]), STRAIGHT);
}

/** Whether sections may lie exactly where they lay: on clean wood, inside the board's margins, a kerf apart. */
function stillFits(search: Search, index: number, sections: readonly PackedSection[]): boolean {
  const board = search.boards[index];
  const { rules } = search.problem;
  let x = board.xMin;
  return sections.every((section) => {
    if (section.x < x - TOUCH_MM || section.x + section.length > board.xMax + TOUCH_MM) return false;
    x = section.x + section.length + rules.crosscutKerf;
    let y = board.yMin;
    return section.lanes.every((lane) => {
      const bars = search.kinds[lane.kind].bars[index][lane.faceDown ? 1 : 0];
      if (lane.y < y - TOUCH_MM || !laneLies(board, lane, bars, rules)) return false;
      y = lane.y + lane.width + rules.ripKerf;
      return true;
    });
  });
}

function sectionsFrom(
  search: Search,
  list: { strip: number; place: PlacedStrip }[],
  board: number,
): PackedSection[] {
  const sections: PackedSection[] = [];
  for (const { strip, place } of list.toSorted(
    inTurn(
      rising(({ place }) => place.x),
      rising(({ place }) => place.y),
      rising(({ place }) => place.leaf),
    ),
  )) {
    const lane = { ...laneFor(search, strip, board), faceDown: place.faceDown };
    const last = sections.at(-1);
    if (!last || place.x >= last.x + last.length - TOUCH_MM) {
      sections.push({
        x: place.x,
        length: lane.length,
        lanes: [{ ...lane, x: place.x, y: place.y }],
        fixed: false,
      });
      continue;
    }
    const twin = last.lanes.find(
      (other) => Math.abs(other.y - place.y) < TOUCH_MM && other.kind === lane.kind,
    );
    if (twin && twin.strips.length < twin.leaves) twin.strips.push(strip);
    else {
      last.lanes.push({ ...lane, x: place.x, y: place.y });
      last.length = Math.max(last.length, place.x + lane.length - last.x, lane.length);
    }
  }
  for (const section of sections) section.lanes.sort(rising((a) => a.y));
  return sections;
}
