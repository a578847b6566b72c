import type { BoardStock, BuildDocument } from '../document';
import { claimsOn } from '../steps';
import { rulesOf, settingsOf } from './demand';
import { clipFault, coveredArea } from './faults';
import { type LaidStrip, layBoard } from './layout';
import { boardCost } from './measure';

/**
 * What is left of a board once a job has cut it: offcuts worth keeping, as boards of their own that know their wood,
 * their faults and their log. A price by the board is shared out by volume. Labels are the parent's.
 */
export function offcutBoards(board: BoardStock, build: BuildDocument): BoardStock[] {
  const snapshot = build.boards.find(({ id }) => id === board.id);
  if (!snapshot) return [];
  const rules = rulesOf(settingsOf(build), build.shop);
  const strips = claimsOn(build, snapshot).map(
    (claim): LaidStrip => ({
      x: claim.x,
      y: claim.y,
      length: claim.length,
      width: claim.width,
      strip: {
        id: claim.id,
        species: board.species,
        length: claim.length,
        width: claim.width,
        thickness: claim.thickness,
        milledThickness: claim.thickness,
        grades: { up: 'hidden', down: 'hidden' },
      },
      place: {
        strip: claim.id,
        board: board.id,
        x: claim.x,
        y: claim.y,
        leaf: claim.leaf,
        leaves: claim.leaves,
        faceDown: false,
      },
    }),
  );
  if (strips.length === 0) return [];
  const whole = board.length.mm * board.width.mm;
  const cost = boardCost(board);
  return layBoard(board, strips, rules)
    .offcuts.filter(({ reusable, length, width, x, y }) => {
      const faults = (board.faults ?? []).flatMap(
        (f) =>
          clipFault({ ...f, x: f.x - x, y: f.y - y }, { length: { mm: length }, width: { mm: width } }) ?? [],
      );
      return reusable && coveredArea(faults) < 0.5 * length * width;
    })
    .map((offcut, i): BoardStock => {
      const size = { length: { mm: offcut.length }, width: { mm: offcut.width } };
      const faults = (board.faults ?? []).flatMap(
        (fault) => clipFault({ ...fault, x: fault.x - offcut.x, y: fault.y - offcut.y }, size) ?? [],
      );
      const share = (offcut.length * offcut.width) / whole;
      const { sold: _, grade: ____, price, warp: __, taken: ___, ...rest } = board;
      return {
        ...rest,
        ...size,
        id: `${board.id}-${i + 1}`,
        sold: 'offcut',
        log: board.log ?? board.id,
        faults,
        ...(price && cost
          ? {
              price:
                price.per === 'board' || board.sold === 'dressed' || board.sold === 'surfaced'
                  ? { minor: Math.round(cost.minor * share), currency: cost.currency, per: 'board' as const }
                  : price,
            }
          : {}),
      };
    });
}
