import { falling, sumOf } from '../units';
import { type BoardStock, type BuildDocument, Refusal } from '../document';
import { boardVolume, offcutBoards } from '../stock';
import { yieldOf } from './levels';

/** A board that was cut: the wood that is gone of it, offcuts that are kept left out, and what of that is in strips, mm3. */
export interface BoardCut {
  species: string;
  /** The grade it was sold as, where somebody noted it; and whether faults are noted on it. */
  grade?: string;
  faulty: boolean;
  all: number;
  good: number;
}

/** What comes of boards of one wood and grade; of those whose grade nobody noted, with faults or without: the share that ends in strips. */
export interface BoardYield {
  species: string;
  grade?: string;
  faulty?: boolean;
  boards: number;
  value: number;
}

/** Of boards of a small shop seven tenths end in strips; common practice, and it counts as six boards. */
export const USUAL_YIELD = 0.7;

const keptOf = (board: BoardStock, build: BuildDocument): number => {
  try {
    return sumOf(offcutBoards(board, build), (offcut) => boardVolume(offcut));
  } catch (error) {
    if (error instanceof Refusal) return 0;
    throw error;
  }
};

/** The boards of a job as they were cut; none before its strips are ripped. */
export function boardsCut(build: BuildDocument): BoardCut[] {
  if (!build.steps.some(({ kind, done }) => kind === 'rip' && done === true)) return [];
  const slots = build.assemblies.flatMap((assembly) => assembly.slots);
  return build.boards.flatMap((board): BoardCut[] => {
    const good = sumOf(
      slots.filter(({ strip }) => strip?.board === board.id && strip.at !== undefined),
      ({ length, width, thickness }) => length.mm * width.mm * thickness.mm,
    );
    const all = boardVolume(board) - keptOf(board, build);
    return good > 0 && all > 0
      ? [
          {
            species: board.species,
            ...(board.grade ? { grade: board.grade } : {}),
            faulty: (board.faults?.length ?? 0) > 0,
            all,
            good: Math.min(good, all),
          },
        ]
      : [];
  });
}

/** Grades are alike however they are written. */
const gradeKey = ({ grade, faulty }: BoardCut): string =>
  grade ? `grade ${grade.trim().toLowerCase()}` : `faults ${faulty}`;

/** What boards gave, by wood and grade, or by faults where there is no grade; the woods with most boards first. */
export function yieldsOf(boards: readonly BoardCut[]): BoardYield[] {
  const groups = new Map<string, BoardCut[]>();
  for (const board of boards) {
    const key = `${board.species} ${gradeKey(board)}`;
    groups.set(key, [...(groups.get(key) ?? []), board]);
  }
  return [...groups.values()]
    .map((group) => ({
      species: group[0].species,
      ...(group[0].grade ? { grade: group[0].grade } : { faulty: group[0].faulty }),
      boards: group.length,
      value: yieldOf(group, USUAL_YIELD),
    }))
    .toSorted(falling((a) => a.boards));
}
