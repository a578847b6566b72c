import { type BuildDocument, MOST_STRIPS, type Slot, Refusal } from '../document';
import { assemblyOf } from '../steps';
import { everySlot, type Family, ofParts, ofSlots } from './family';

/** A slot id not yet used in the build. */
function freshId(build: BuildDocument): string {
  const used = new Set(build.assemblies.flatMap((assembly) => assembly.slots.map((slot) => slot.id)));
  let n = used.size + 1;
  while (used.has(`strip-${n}`)) n++;
  return `strip-${n}`;
}

function duplicate(build: BuildDocument, step: string, strip: string): BuildDocument {
  const slots = assemblyOf(build, step)?.slots ?? [];
  const slot = slots.find(({ id }) => id === strip);
  if (!slot) return build;
  if (slots.length >= MOST_STRIPS) throw new Refusal([`A lay-up holds at most ${MOST_STRIPS} strips.`]);
  const id = freshId(build);
  const copy: Slot = { ...slot, id, strip: slot.strip?.board ? { board: slot.strip.board } : undefined };
  const withSlot = ofSlots(build, step, (slots) => slots.flatMap((s) => (s.id === strip ? [s, copy] : [s])));
  return ofParts(
    withSlot,
    step,
    (parts) =>
      parts
        .filter((part) => part.piece !== id)
        .flatMap((part) => (part.piece === strip ? [part, { ...part, piece: id }] : [part])),
    strip,
  );
}

/** What can be done to the strips of a lay-up: how many, in which order, of what wood and size. */
export const strips: Family<
  | 'moveStrip'
  | 'turnPart'
  | 'duplicateStrip'
  | 'addStrip'
  | 'removeStrip'
  | 'setSlot'
  | 'setAllSlots'
  | 'setSlots'
  | 'setWidths'
  | 'lengthenStrips'
  | 'lockPart'
> = {
  moveStrip: (build, { step, from, to }) =>
    ofParts(build, step, (parts) => {
      const next = [...parts];
      const [moved] = next.splice(from, 1);
      if (moved) next.splice(to, 0, moved);
      return next;
    }),
  turnPart: (build, { step, piece, turn }) =>
    ofParts(
      build,
      step,
      (parts) => parts.map((part) => (part.piece === piece ? { ...part, [turn]: !part[turn] } : part)),
      piece,
    ),
  duplicateStrip: (build, { step, strip }) => duplicate(build, step, strip),
  addStrip: (build, { step }) => {
    const last = assemblyOf(build, step)?.slots.at(-1);
    return last ? duplicate(build, step, last.id) : build;
  },
  removeStrip: (build, { step, strip }) => {
    const without = ofParts(build, step, (parts) => parts.filter(({ piece }) => piece !== strip), strip);
    return ofSlots(without, step, (slots) => slots.filter((slot) => slot.id !== strip));
  },
  setSlot: (build, { step, strip, change }) =>
    ofSlots(build, step, (slots) => slots.map((slot) => (slot.id === strip ? { ...slot, ...change } : slot))),
  setAllSlots: (build, { step, change }) =>
    ofSlots(build, step, (slots) => slots.map((slot) => ({ ...slot, ...change }))),
  setSlots: (build, { strips: ids, change }) =>
    everySlot(build, (slot) => (ids.includes(slot.id) ? { ...slot, ...change } : slot)),
  setWidths: (build, { step, strips: ids, widths }) => {
    const last = ids.at(-1);
    if (last === undefined || widths.length === 0) throw new Refusal(['A lay-up keeps one strip at least.']);
    // Each new one lies right after the one it is like, so that the row ends with them.
    let next = build;
    const order = [...ids];
    while (order.length < widths.length) {
      const before = new Set(assemblyOf(next, step)?.slots.map(({ id }) => id));
      next = duplicate(next, step, order.at(-1) ?? last);
      const added = assemblyOf(next, step)?.slots.find(({ id }) => !before.has(id));
      if (!added) throw new Refusal(['This step has no lay-up of its own to add strips to.']);
      order.push(added.id);
    }
    for (const gone of order.splice(widths.length))
      next = strips.removeStrip(next, { do: 'removeStrip', step, strip: gone });
    return ofSlots(next, step, (slots) =>
      slots.map((slot) => {
        const at = order.indexOf(slot.id);
        return at < 0 ? slot : { ...slot, width: widths[at] };
      }),
    );
  },
  lengthenStrips: (build, { step, byMm }) =>
    ofSlots(build, step, (slots) =>
      slots.map((slot) => ({ ...slot, length: { mm: slot.length.mm + byMm } })),
    ),
  lockPart: (build, { step, piece }) =>
    ofParts(
      build,
      step,
      (parts) => parts.map((part) => (part.piece === piece ? { ...part, locked: !part.locked } : part)),
      piece,
    ),
};
