import {
  bareBoard,
  type BoardStock,
  type BreakdownSettings,
  type BuildDocument,
  type Edit,
  type Slot,
  type StripSource,
  type TakenPlace,
} from '../document';
import type { Answer } from './answer';
import { type Demand, settingsOf } from './demand';
import type { Problem } from './problem';

/**
 * The edit that writes an answer into one of its jobs: the boards it uses, each strip's place, and on those boards the
 * places that other copies and jobs take, with the jobs' `names`. Strips without wood lose the board they had.
 */
export function answerEdit(
  problem: Problem,
  demand: Demand,
  answer: Pick<Answer, 'places'>,
  { job, settings, names = [] }: { job: number; settings: BreakdownSettings; names?: readonly string[] },
): Edit {
  const strips: Record<string, StripSource> = {};
  const used = new Set<string>();
  const taken = new Map<string, TakenPlace[]>();
  const byId = new Map(problem.strips.map((strip) => [strip.id, strip]));
  for (const [, wanted] of demand.of) if (wanted.job === job && wanted.copy === 0) strips[wanted.slot] = {};
  for (const { strip, board, x, y, leaf, leaves, faceDown } of answer.places) {
    const wanted = demand.of.get(strip);
    const size = byId.get(strip);
    if (!wanted || !size) continue;
    if (wanted.job === job && wanted.copy === 0) {
      used.add(board);
      strips[wanted.slot] = {
        board,
        at: { x, y },
        ...(leaves > 1 ? { leaf, leaves } : {}),
        ...(faceDown ? { faceDown } : {}),
        ...(size.locked ? { locked: true } : {}),
      };
    } else {
      if (wanted.job === job) used.add(board);
      const { length, width, thickness } = size;
      const of = wanted.job === job ? undefined : (wanted.of ?? names[wanted.job]);
      const { label, slot, copy } = wanted;
      const place: TakenPlace = { label, ...(of ? { of } : {}), slot, copy, x, y, length, width, thickness };
      taken.set(board, [...(taken.get(board) ?? []), leaves > 1 ? { ...place, leaf, leaves } : place]);
    }
  }
  const boards = problem.boards
    .filter(({ id }) => used.has(id))
    .map((board) => {
      const places = taken.get(board.id);
      return { ...bareBoard(board), ...(places ? { taken: places } : {}) };
    });
  return { do: 'useBoards', boards, strips, breakdown: settings };
}

/** Boards of the rack that are large enough for a strip and not cut up for this job already. */
export const boardsForStrip = (
  build: BuildDocument,
  slot: Slot,
  rack: readonly BoardStock[],
): BoardStock[] => {
  const cut = new Set(
    build.assemblies.flatMap(({ slots }) =>
      slots.flatMap(({ strip }) => (strip?.at ? (strip.board ?? []) : [])),
    ),
  );
  return rack.filter(
    (board) =>
      !cut.has(board.id) &&
      !build.boards.some(({ id }) => id === board.id) &&
      (['length', 'width', 'thickness'] as const).every((name) => board[name].mm >= slot[name].mm),
  );
};

/** The edit that puts wood from a board of the rack in a strip's place: the strip takes on its species. */
export const stripFromBoard = (build: BuildDocument, slot: Slot, board: BoardStock): Edit => ({
  do: 'many',
  edits: [
    {
      do: 'useBoards',
      boards: [bareBoard(board)],
      strips: { [slot.id]: { board: board.id } },
      breakdown: settingsOf(build),
    },
    { do: 'setSlots', strips: [slot.id], change: { species: board.species } },
  ],
});
