import { sumOf } from '../units';
import { type BoardStock, parcel, sectionsOf, Refusal } from '../document';
import type { Answer, PlacedStrip } from './answer';
import { type Area, areaOf } from './faults';
import { boardCost } from './measure';
import type { CuttingRules, Problem, WantedStrip } from './problem';
import { isReusable } from './score';

/** A strip as it lies on its board. */
export interface LaidStrip extends Area {
  strip: WantedStrip;
  place: PlacedStrip;
}

/** A rectangle left over. */
export interface Offcut extends Area {
  reusable: boolean;
}

/** One board cut up: where everything lies, as rectangles that cover it exactly. */
export interface BoardLayout {
  board: BoardStock;
  sections: { x: number; length: number; lanes: LaidStrip[][] }[];
  kerfs: Area[];
  offcuts: Offcut[];
}

/** The sums of a breakdown. Areas in mm2, volumes in mm3, money in minor units. */
export interface Totals {
  boards: number;
  /** Wood of the boards used, of the strips at their rough sizes, of offcuts worth keeping, and the rest. */
  used: number;
  strips: number;
  reusable: number;
  waste: number;
  /** Strips over wood used less what can be kept. */
  yield: number;
  cost: Record<string, number>;
  unpriced: number;
}

/** Rectangles of one board, from its places alone: sections across, lanes along, each cut with its kerf. A Refusal where strips put by hand cannot be cut so. */
export function layBoard(board: BoardStock, strips: readonly LaidStrip[], rules: CuttingRules): BoardLayout {
  const grouped = sectionsOf(strips.map((laid) => ({ ...laid, id: laid.strip.id })));
  if (!grouped.ok)
    throw new Refusal([`Strips overlap on board ${board.label}, at `, { mm: grouped.between[1].x }, '.']);
  const layout: BoardLayout = { board, sections: [], kerfs: [], offcuts: [] };
  const leave = (kind: string, area: Area) => {
    if (kind === 'kerf') layout.kerfs.push(area);
    else layout.offcuts.push({ ...area, reusable: isReusable(area.length, area.width, rules) });
  };
  const [l, w] = [board.length.mm, board.width.mm];
  const sections = must(
    parcel(
      l,
      grouped.sections.map(({ x, length }) => ({ from: x, to: x + length })),
      rules.crosscutKerf,
    ),
    board,
  );
  for (const across of sections) {
    const size = { x: across.from, length: across.to - across.from };
    if (across.index === undefined) {
      leave(across.kind, { ...size, y: 0, width: w });
      continue;
    }
    const { lanes } = grouped.sections[across.index];
    const ripped = must(
      parcel(
        w,
        lanes.map(([{ y, width }]) => ({ from: y, to: y + width })),
        rules.ripKerf,
      ),
      board,
    );
    for (const along of ripped) {
      const lane = { y: along.from, width: along.to - along.from };
      if (along.index === undefined) {
        leave(along.kind, { ...size, ...lane });
        continue;
      }
      const [first] = lanes[along.index];
      // A lane shorter than its section is cut to length at either end; its cuts may lie in the section's own kerf.
      const ends = must(
        parcel(
          size.length,
          [{ from: first.x - size.x, to: first.x - size.x + first.length }],
          rules.crosscutKerf,
        ),
        board,
      );
      for (const end of ends)
        if (end.index === undefined)
          leave(end.kind, { x: size.x + end.from, length: end.to - end.from, ...lane });
    }
    layout.sections.push({ ...size, lanes });
  }
  return layout;
}

function must(result: ReturnType<typeof parcel>, board: BoardStock) {
  if (!result.ok) throw new Refusal([`A cut on board ${board.label} has no room for its kerf.`]);
  return result.stretches;
}

/** The boards an answer uses, cut up; a Refusal where one cannot be. */
export function layAnswer(
  problem: Pick<Problem, 'boards' | 'strips' | 'rules'>,
  answer: Pick<Answer, 'places'>,
): BoardLayout[] {
  const strips = new Map(problem.strips.map((strip) => [strip.id, strip]));
  return problem.boards.flatMap((board) => {
    const laid = answer.places.flatMap((place): LaidStrip[] => {
      const strip = strips.get(place.strip);
      if (!strip || place.board !== board.id) return [];
      return [{ strip, place, x: place.x, y: place.y, length: strip.length, width: strip.width }];
    });
    return laid.length > 0 ? [layBoard(board, laid, problem.rules)] : [];
  });
}

/** Sums of some boards cut up. The cost counts what is used up: a board's price less the share that can be kept. */
export function totalsOf(layouts: readonly BoardLayout[]): Totals {
  const cost: Record<string, number> = {};
  let unpriced = 0;
  let [used, strips, reusable] = [0, 0, 0];
  for (const { board, sections, offcuts } of layouts) {
    const thickness = board.thickness.mm;
    const whole = board.length.mm * board.width.mm * thickness;
    const kept = sumOf(offcuts.filter((offcut) => offcut.reusable).map(areaOf)) * thickness;
    used += whole;
    reusable += kept;
    strips += sumOf(
      sections.flatMap(({ lanes }) => lanes.flat().map((laid) => areaOf(laid) * laid.strip.thickness)),
    );
    const price = boardCost(board);
    if (price) cost[price.currency] = (cost[price.currency] ?? 0) + price.minor * (1 - kept / whole);
    else unpriced += 1;
  }
  return {
    boards: layouts.length,
    used,
    strips,
    reusable,
    waste: used - reusable - strips,
    yield: used > reusable ? strips / (used - reusable) : 0,
    cost,
    unpriced,
  };
}
