import type { BuildDocument, LaidPart, Slot, Step } from '../document';
import type { BenchScene, Outlook } from '../review';
import type { Bounds } from '../solid';
import { areStrips, assemblyOf, glueOf, roomOf, type TimelineStep } from '../steps';
import { type Display, lengthText } from '../units';
import { speciesName } from '../wood';
import { laysByHand } from './lying';

/** A piece on the bench that can be taken hold of: what it is called, and where it lies in the scene, mm. */
export interface Held {
  id: string;
  name: string;
  turned: boolean;
  locked: boolean;
  box: Bounds;
}

/** Whether pieces of a step are taken hold of one by one: strips, parts of a glue-up, slices, leaves, and turned ones. */
const holds = (step: Step): boolean => {
  const { flow, each } = roomOf(step);
  return areStrips(step) || each !== undefined || flow.joins === true || flow.turns === true;
};

/** How a part was turned, in the words of its tools. */
const turnWords = ({
  endForEnd,
  rollOver,
  quarter,
}: Pick<LaidPart, 'endForEnd' | 'rollOver' | 'quarter'>): string[] => [
  ...(endForEnd ? ['end for end'] : []),
  ...(rollOver ? ['rolled over'] : []),
  ...(quarter ? ['a quarter turned'] : []),
];

const slotsOf = (build: BuildDocument): ReadonlyMap<string, Slot> =>
  new Map(build.assemblies.flatMap((assembly) => assembly.slots.map((slot) => [slot.id, slot])));

/**
 * The parts of a glue-up in the order in which they lie, as a maker tells them apart: a strip by its wood and width, another part by
 * its number among those that came; then how it was turned.
 */
export function laidNames(
  build: BuildDocument,
  { laid = [], entered }: Pick<TimelineStep, 'laid' | 'entered'>,
  display: Display,
): string[] {
  const slots = slotsOf(build);
  return laid.map((part) => {
    const slot = slots.get(part.piece);
    const nth = entered.findIndex(({ id }) => id === part.piece) + 1;
    const own = slot
      ? [speciesName(slot.species), `${lengthText(part.max[1] - part.min[1], display)} wide`]
      : [`part ${nth}`];
    return [...own, ...turnWords(part)].join(', ');
  });
}

/**
 * What can be taken hold of of the step on the bench: parts where one glue-up lies there, whole pieces where several do.
 * Names tell them apart without eyes: place, wood, size in the reader's units, turns. Empty where nothing can be chosen: a
 * single piece that is no glue-up.
 */
export function heldPieces(
  build: BuildDocument,
  outlook: Outlook,
  { scene, display }: { scene: BenchScene; display: Display },
): Held[] {
  const step = build.steps.find(({ id }) => id === scene.step);
  const shown = outlook.steps.find(({ id }) => id === scene.step);
  if (!step || !shown || !holds(step)) return [];
  // Several blanks of one glue-up lie side by side: each is taken hold of as a whole.
  const laid = scene.pieces.length > 1 ? undefined : shown.laid;
  const boxes: (Omit<Held, 'name' | 'turned'> & { turns: string[] })[] =
    laid?.map((part) => ({
      id: part.piece,
      box: part,
      turns: turnWords(part),
      locked: part.locked ?? false,
    })) ?? scene.pieces.map(({ id, box }) => ({ id, box, turns: [], locked: false }));
  if (!roomOf(step).flow.joins && boxes.length < 2) return [];
  const slots = slotsOf(build);
  const word = roomOf(step).each?.name ?? 'part';
  return boxes.map(({ turns, ...held }, i) => {
    const slot = slots.get(held.id);
    const size = (axis: 0 | 1) => lengthText(held.box.max[axis] - held.box.min[axis], display);
    const kind = slot ? 'Strip' : `${word[0].toUpperCase()}${word.slice(1)}`;
    return {
      ...held,
      turned: turns.length > 0,
      name: [
        `${kind} ${i + 1} of ${boxes.length}`,
        ...(slot ? [speciesName(slot.species), `${size(1)} wide`] : [`${size(0)} × ${size(1)}`]),
        ...turns,
        ...(held.locked ? ['locked'] : []),
      ].join(', '),
    };
  });
}

/** Whether the strips of a step lie side by side in a glue-up, so that they can be dragged to another place. */
export const laysStrips = (build: BuildDocument, step: Step): boolean => {
  const glue = glueOf(build, step.id);
  return glue !== undefined && glue.id === step.id && glue.along === 'width';
};

/** The strips of a lay-up in the order of the step that shows them: as laid, as written, or as ripped. */
export function stripOrder(build: BuildDocument, step: Step, laid?: readonly { piece: string }[]): string[] {
  const assembly = assemblyOf(build, step.id);
  if (!assembly || !(areStrips(step) || roomOf(step).flow.joins)) return [];
  const glue = roomOf(step).flow.joins ? glueOf(build, step.id) : undefined;
  return (laid ?? glue?.parts)?.map(({ piece }) => piece) ?? assembly.slots.map(({ id }) => id);
}

/** A line that says what pressing a piece does here. */
export function holdHint(build: BuildDocument, step: Step): string {
  const { each, flow } = roomOf(step);
  if (flow.joins && laysStrips(build, step)) return 'Press a strip to choose it; drag it to another place.';
  if (laysByHand(step)) return 'Press a part to choose it; drag it to another place.';
  if (flow.joins && (step as { turns?: unknown }).turns) return 'Press a slice to choose it and turn it.';
  if (each) return `Press a ${each.name} to say that it was spoilt.`;
  if (areStrips(step)) return 'Press a strip to choose it.';
  return 'Face above, near edge below, right end beside it.';
}
