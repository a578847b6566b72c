/*
 * An answer may be on its way while what it tells of is changed and stored here: what it tells then is of before. Shown, it
 * would take the change back, and the next one would be made from a version that stands no longer.
 */

/** The later of the kit that is shown and the kit that was read; of the same version, what was read. */
export const laterKit = <Kit extends { id: string; version: number }>(shown: Kit, read: Kit): Kit =>
  read.id === shown.id && read.version < shown.version ? shown : read;

/** The boards that were read, each as it is shown where that is later. A board that is no longer read is gone. */
export function laterBoards<Board extends { id: string; version: number }>(
  shown: readonly Board[],
  read: readonly Board[],
): Board[] {
  const byId = new Map(shown.map((board) => [board.id, board]));
  return read.map((board) => {
    const here = byId.get(board.id);
    return here && board.version < here.version ? here : board;
  });
}
