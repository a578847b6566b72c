import type { BuildDocument, Edit, LaidPart, Slot, Step } from '../document';
import { assemblyOf, asGlueUp, glueOf, type GlueStep } from '../steps';

/** An edit of one name. */
export type EditOf<D extends Edit['do']> = Extract<Edit, { do: D }>;

/** Carries out one kind of edit: the new build, the old one stays as it was. */
export type Carry<D extends Edit['do']> = (build: BuildDocument, edit: EditOf<D>) => BuildDocument;

/** A family of edits: one line for each it carries out. */
export type Family<D extends Edit['do']> = { [K in D]: Carry<K> };

/** The build with other strips in the lay-up that a step belongs to; as it was where it belongs to none. */
export const ofSlots = (
  build: BuildDocument,
  step: string,
  map: (slots: Slot[]) => Slot[],
): BuildDocument => {
  const assembly = assemblyOf(build, step);
  if (!assembly) return build;
  return {
    ...build,
    assemblies: build.assemblies.map((a) => (a.id === assembly.id ? { ...a, slots: map(a.slots) } : a)),
  };
};

/** The build with one step changed; as it was where there is no such step. */
export const ofStep = (build: BuildDocument, id: string, map: (step: Step) => Step): BuildDocument => ({
  ...build,
  steps: build.steps.map((step) => (step.id === id ? map(step) : step)),
});

/** The build with one glue-up changed; as it was where the step is none. */
export const ofGlue = (build: BuildDocument, id: string, map: (glue: GlueStep) => GlueStep): BuildDocument =>
  ofStep(build, id, (step) => {
    const glue = asGlueUp(step);
    return glue ? map(glue) : step;
  });

/** Parts of the glue-up that takes a step's strips, written out where the lay-up was still in its own order. */
export const ofParts = (
  build: BuildDocument,
  step: string,
  map: (parts: LaidPart[]) => LaidPart[],
  piece?: string,
): BuildDocument => {
  const glue = glueOf(build, step, piece);
  if (!glue) return build;
  const slots = assemblyOf(build, step)?.slots ?? [];
  const parts = glue.parts ?? slots.map((slot) => ({ piece: slot.id }));
  return ofGlue(build, glue.id, (each) => ({ ...each, parts: map(parts) }));
};

/** The build with every strip of every lay-up mapped. */
export const everySlot = (build: BuildDocument, map: (slot: Slot) => Slot): BuildDocument => ({
  ...build,
  assemblies: build.assemblies.map((assembly) => ({ ...assembly, slots: assembly.slots.map(map) })),
});
