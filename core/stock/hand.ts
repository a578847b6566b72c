import { type BoardStock, type BuildDocument, overlap, type StripSource } from '../document';
import { clamped } from '../units';
import type { Answer, PlacedStrip } from './answer';
import { type Demand, demandOf, rulesOf, settingsOf, takenByOthers, wantedByTaken } from './demand';
import type { BoardLayout } from './layout';
import { type Problem, usable } from './problem';

/** A breakdown as some jobs hold it: which strips have which places, and which have none. */
export interface Plan {
  problem: Problem;
  demand: Demand;
  answer: Answer;
}

/**
 * Reads the plan back out of the jobs that hold it: strips from their slots, further copies from the places that the
 * job's own boards keep for them.
 */
export function planOf(builds: readonly BuildDocument[]): Plan {
  const demand = demandOf(builds);
  const boards = new Map<string, BoardStock>();
  const places: PlacedStrip[] = [];
  const placed = new Set<string>();
  const wantedAt = wantedByTaken(builds, demand);
  const others = takenByOthers(builds, demand);
  const put = (strip: string | undefined, place: Omit<PlacedStrip, 'strip'>) => {
    if (!strip || placed.has(strip)) return;
    placed.add(strip);
    places.push({ strip, ...place });
  };
  builds.forEach((build, job) => {
    for (const board of build.boards) if (!boards.has(board.id)) boards.set(board.id, board);
    for (const { id, strip } of build.assemblies.flatMap(({ slots }) => slots))
      if (strip?.board !== undefined && strip.at && boards.has(strip.board))
        put(demand.of.has(`${job}/${id}`) ? `${job}/${id}` : undefined, {
          board: strip.board,
          ...strip.at,
          leaf: strip.leaf ?? 0,
          leaves: strip.leaves ?? 1,
          faceDown: strip.faceDown ?? false,
        });
    for (const board of build.boards)
      for (const taken of board.taken ?? []) {
        const { x, y, leaf = 0, leaves = 1 } = taken;
        put(wantedAt(taken, job), { board: board.id, x, y, leaf, leaves, faceDown: false });
      }
  });
  for (const { id, locked } of others) if (locked) places.push({ strip: id, ...locked });
  const settings = settingsOf(builds[0]);
  const { shop } = builds[0];
  const problem: Problem = {
    strips: [...demand.strips, ...others],
    boards: [...boards.values()].map(({ taken: _, ...board }) => board),
    rules: rulesOf(settings, shop),
    goal: settings.goal,
    shop,
  };
  const missing = demand.strips.filter(({ id }) => !placed.has(id)).map(({ id }) => id);
  return { problem, demand, answer: { places, missing, score: 0, proven: false } };
}

/** Where a strip dropped by hand comes to lie, or why it cannot lie there. */
export type Dropped = { ok: true; at: { x: number; y: number } } | { ok: false; reason: string };

const nearest = (value: number, candidates: readonly number[], within: number): number => {
  let best = value;
  let apart = within;
  for (const candidate of candidates)
    if (Math.abs(candidate - value) < apart) {
      apart = Math.abs(candidate - value);
      best = candidate;
    }
  return best;
};

/**
 * Settles where a strip dropped on a board lies: drawn to the board's clean end and edge, to the starts of other
 * pieces, or a kerf behind their ends, where those are within `snapMm`. Other strips give way, since they are solved
 * again; only locked ones and the board's own limits refuse.
 */
export function dropStrip(
  problem: Problem,
  layout: BoardLayout | undefined,
  {
    board,
    strip: id,
    at,
    snapMm,
  }: { board: BoardStock; strip: string; at: { x: number; y: number }; snapMm: number },
): Dropped {
  const strip = problem.strips.find((each) => each.id === id);
  if (!strip) return { ok: false, reason: 'This strip is not asked for any more.' };
  if (strip.species !== board.species) return { ok: false, reason: `Board ${board.label} is another wood.` };
  if (strip.thickness > board.thickness.mm + 1e-6)
    return { ok: false, reason: `Board ${board.label} is thinner than this strip.` };
  const { xMin, xMax, yMin, yMax } = usable(board, problem);
  if (strip.length > xMax - xMin + 1e-6)
    return { ok: false, reason: `Board ${board.label} is too short for this strip.` };
  if (strip.width > yMax - yMin + 1e-6)
    return { ok: false, reason: `Board ${board.label} is too narrow for this strip.` };
  const others = (layout?.sections ?? []).filter(({ lanes }) =>
    lanes.flat().some((laid) => laid.strip.id !== id),
  );
  const lanes = others
    .flatMap((section) => section.lanes.map(([lane]) => lane))
    .filter((lane) => lane.strip.id !== id);
  const { crosscutKerf, ripKerf } = problem.rules;
  const x = nearest(
    clamped(at.x, xMin, xMax - strip.length),
    [xMin, ...others.flatMap((s) => [s.x, s.x + s.length + crosscutKerf])],
    snapMm,
  );
  const y = nearest(
    clamped(at.y, yMin, yMax - strip.width),
    [yMin, ...lanes.flatMap((l) => [l.y, l.y + l.width + ripKerf])],
    snapMm,
  );
  const place = { x: clamped(x, xMin, xMax - strip.length), y: clamped(y, yMin, yMax - strip.width) };
  const grown = { x: place.x, y: place.y, length: strip.length + crosscutKerf, width: strip.width + ripKerf };
  const held = problem.strips.find(({ id: other, locked, length, width }) => {
    if (other === id || locked?.board !== board.id) return false;
    return overlap(grown, {
      x: locked.x,
      y: locked.y,
      length: length + crosscutKerf,
      width: width + ripKerf,
    });
  });
  if (held)
    return { ok: false, reason: 'A locked strip lies there. Unlock it first, or leave it a kerf of room.' };
  return { ok: true, at: place };
}

/** Two strips of one job that change places, both locked there; undefined where either has no place. */
export function swapStrips(
  build: BuildDocument,
  a: string,
  b: string,
): Record<string, StripSource> | undefined {
  const slots = build.assemblies.flatMap((assembly) => assembly.slots);
  const source = (id: string) => slots.find((slot) => slot.id === id)?.strip;
  const [from, to] = [source(a), source(b)];
  if (!from?.at || !to?.at) return undefined;
  const place = ({ board, at, leaf, leaves, faceDown }: StripSource): StripSource => ({
    board,
    at,
    leaf,
    leaves,
    faceDown,
    locked: true,
  });
  return { [a]: place(to), [b]: place(from) };
}
