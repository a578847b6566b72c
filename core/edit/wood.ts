import type { BuildDocument } from '../document';
import { type EditOf, everySlot, type Family } from './family';

function withBoards(build: BuildDocument, edit: EditOf<'useBoards'>): BuildDocument {
  const placed = everySlot(build, (slot) => {
    const source = edit.strips[slot.id];
    if (!source) return slot;
    const { strip: before, ...rest } = slot;
    const seed = before?.seed === undefined ? {} : { seed: before.seed };
    const strip = { ...seed, ...source };
    return Object.keys(strip).length > 0 ? { ...rest, strip } : rest;
  });
  const named = new Set(placed.assemblies.flatMap(({ slots }) => slots.map(({ strip }) => strip?.board)));
  const kept = build.boards.filter(
    ({ id }) => named.has(id) && !edit.boards.some((board) => board.id === id),
  );
  return { ...placed, boards: [...edit.boards, ...kept], breakdown: edit.breakdown };
}

/** Which boards the strips come from. */
export const wood: Family<'useBoards' | 'setBreakdown' | 'setStrip'> = {
  useBoards: withBoards,
  setBreakdown: (build, { breakdown }) => ({ ...build, breakdown }),
  setStrip: (build, { strip, change }) =>
    everySlot(build, (slot) => (slot.id === strip ? { ...slot, strip: { ...slot.strip, ...change } } : slot)),
};
