import { rising, upwards } from '../units';
import { TOUCH_MM } from '../document';
import type { Bar, CuttingRules, SolverBoard, StripKind } from './problem';

/** Strips at one place across the width: one, or several leaves of it. */
export interface Lane {
  kind: number;
  strips: number[];
  /** Most leaves this place gives. */
  leaves: number;
  length: number;
  width: number;
  x: number;
  y: number;
  faceDown: boolean;
  fixed: boolean;
  /** Places across the width passed over although it fits there: behind a fault may leave a larger offcut. */
  skip?: number;
}

/** A stretch of a board between two crosscuts. A fixed one stays where it is: a locked strip lies in it. */
export interface PackedSection {
  x: number;
  length: number;
  lanes: Lane[];
  fixed: boolean;
  /** Places along the length passed over although it fits there. */
  skip?: number;
}

/** All sections of one board, from its marked end on. */
export type PackedBoard = PackedSection[];

const free = (
  bars: readonly Bar[],
  { x, y, length, width }: { x: number; y: number; length: number; width: number },
): boolean => {
  for (const bar of bars)
    if (
      x < bar.x1 - TOUCH_MM &&
      x + length > bar.x0 + TOUCH_MM &&
      y < bar.y1 - TOUCH_MM &&
      y + width > bar.y0 + TOUCH_MM
    )
      return false;
  return true;
};

/** The far edge a lane may reach: a strip as wide as the board needs no rip and so leaves no remnant. */
const farLimit = (board: SolverBoard, lane: Lane, rules: CuttingRules): number =>
  rules.remnant !== 0 && lane.width < board.width - TOUCH_MM
    ? Math.min(board.yMax, board.width - rules.remnant - rules.ripKerf)
    : board.yMax;

/** Whether a lane may lie exactly where it says: clear of what it must avoid and within the board's far edge. */
export const laneLies = (
  board: SolverBoard,
  lane: Lane,
  bars: readonly Bar[],
  rules: CuttingRules,
): boolean =>
  lane.y + lane.width <= farLimit(board, lane, rules) + TOUCH_MM &&
  free(bars, { x: lane.x, y: lane.y, length: lane.length, width: lane.width });

const apart = (y: number, width: number, other: Lane, kerf: number): boolean =>
  y + width + kerf <= other.y + TOUCH_MM || y >= other.y + other.width + kerf - TOUCH_MM;

/** Finds a lane's place in its section, at `from` across the width or beyond. Undefined where there is none. */
function placeLane(
  board: SolverBoard,
  lane: Lane,
  section: { x: number; length: number },
  {
    from,
    fixedLanes,
    kind,
    rules,
  }: { from: number; fixedLanes: readonly Lane[]; kind: StripKind; rules: CuttingRules },
): Lane | undefined {
  const limit = farLimit(board, lane, rules) + TOUCH_MM;
  const [upBars, downBars] = kind.bars[board.index];
  if (upBars.length === 0 && fixedLanes.length === 0)
    return from + lane.width <= limit ? { ...lane, x: section.x, y: from, faceDown: false } : undefined;
  const ys = [from];
  for (const bar of upBars) if (bar.y1 > from) ys.push(bar.y1);
  if (downBars !== upBars) for (const bar of downBars) if (bar.y1 > from) ys.push(bar.y1);
  for (const other of fixedLanes) ys.push(other.y + other.width + rules.ripKerf);
  ys.sort(upwards);
  let skip = lane.skip ?? 0;
  const right = section.x + section.length - lane.length;
  for (const y of ys) {
    if (y < from - TOUCH_MM) continue;
    if (y + lane.width > limit) return undefined;
    if (!fixedLanes.every((other) => apart(y, lane.width, other, rules.ripKerf))) continue;
    const found = atHeight(lane, section, y, { right, upBars, downBars });
    if (found && skip-- <= 0) return found;
  }
  return undefined;
}

/** A lane's place at a given height: at the section's start, at its end, or behind a fault; either face up. */
function atHeight(
  lane: Lane,
  section: { x: number },
  y: number,
  { right, upBars, downBars }: { right: number; upBars: readonly Bar[]; downBars: readonly Bar[] },
): Lane | undefined {
  for (const faceDown of [false, true]) {
    const bars = faceDown ? downBars : upBars;
    if (free(bars, { x: section.x, y, length: lane.length, width: lane.width }))
      return { ...lane, x: section.x, y, faceDown };
    if (right <= section.x + TOUCH_MM) continue;
    // A lane shorter than its section may lie at its far end, or behind a fault.
    const behind = bars.map((bar) => bar.x1).filter((x) => x > section.x && x < right);
    for (const x of [right, ...behind])
      if (free(bars, { x, y, length: lane.length, width: lane.width })) return { ...lane, x, y, faceDown };
  }
  return undefined;
}

function packLanes(
  board: SolverBoard,
  section: PackedSection,
  x: number,
  { kinds, rules }: { kinds: readonly StripKind[]; rules: CuttingRules },
): PackedSection | undefined {
  const fixedLanes = section.fixed ? section.lanes.filter((lane) => lane.fixed) : [];
  const place = { x, length: section.length };
  let from = board.yMin;
  const lanes: Lane[] = [];
  for (const lane of section.lanes) {
    if (lane.fixed) {
      lanes.push(lane);
      continue;
    }
    const placed = placeLane(board, lane, place, { from, fixedLanes, kind: kinds[lane.kind], rules });
    if (!placed) return undefined;
    lanes.push(placed);
    from = placed.y + placed.width + rules.ripKerf;
  }
  return { ...section, x, lanes };
}

/**
 * Finds places for sections on a board in the order given, each as near to the marked end as its strips, the faults
 * and the fixed sections allow. Fixed sections stay. Undefined where they do not all fit.
 */
export function packBoard(
  board: SolverBoard,
  sections: readonly PackedSection[],
  kinds: readonly StripKind[],
  rules: CuttingRules,
): PackedBoard | undefined {
  const fixed = sections.filter((section) => section.fixed);
  const kerf = rules.crosscutKerf;
  const out: PackedBoard = [];
  let from = board.xMin;
  for (const section of sections) {
    if (section.fixed) {
      const packed = packLanes(board, section, section.x, { kinds, rules });
      if (!packed) return undefined;
      out.push(packed);
      continue;
    }
    const xs = candidates(board, section, from, { fixed, kinds, kerf });
    let packed: PackedSection | undefined;
    let skip = section.skip ?? 0;
    for (const x of xs) {
      if (x + section.length > board.xMax + TOUCH_MM) break;
      if (
        fixed.some((f) => x + section.length + kerf > f.x + TOUCH_MM && x < f.x + f.length + kerf - TOUCH_MM)
      )
        continue;
      const here = packLanes(board, section, x, { kinds, rules });
      if (!here) continue;
      packed = here;
      if (skip-- <= 0) break;
    }
    if (!packed) return undefined;
    out.push(packed);
    from = packed.x + packed.length + kerf;
  }
  if (fixed.length > 0) out.sort(rising((a) => a.x));
  return out;
}

/** Where a section may begin: next to the one before, behind a fault that is in its way, or behind a fixed section. */
function candidates(
  board: SolverBoard,
  section: PackedSection,
  from: number,
  { fixed, kinds, kerf }: { fixed: readonly PackedSection[]; kinds: readonly StripKind[]; kerf: number },
): number[] {
  const xs = [from];
  for (const f of fixed) if (f.x + f.length + kerf > from) xs.push(f.x + f.length + kerf);
  const seen = new Set<number>();
  for (const lane of section.lanes) {
    if (seen.has(lane.kind)) continue;
    seen.add(lane.kind);
    for (const bars of kinds[lane.kind].bars[board.index])
      for (const bar of bars) if (bar.x1 > from) xs.push(bar.x1);
  }
  return xs.length === 1 ? xs : [...new Set(xs)].sort(upwards);
}
