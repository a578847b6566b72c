import { type BuildDocument, firstOf, makersOf } from '../document';
import type { GlueStep } from './glue/step';
import { isOf } from './find';
import { assemblyOf } from './graph';
import { roomOf } from './list';
import type { SliceStep } from './slice/slice';

/** The slicing whose slices a glue-up lays, past turns; undefined where it lays none. */
export function sliceBefore(build: BuildDocument, glue: GlueStep): SliceStep | undefined {
  for (const input of glue.inputs) {
    const at = firstOf(makersOf(build, input), (step) => !roomOf(step).flow.turns && !step.off);
    if (isOf(at, 'slice')) return at;
  }
  return undefined;
}

/** How many blanks come to a slicing: it then names its slices blank by blank. */
function blanksInto(build: BuildDocument, slice: SliceStep): number {
  const at = firstOf(
    makersOf(build, slice.inputs[0] ?? ''),
    (step) => isOf(step, 'glue') || isOf(step, 'rip'),
  );
  if (isOf(at, 'glue')) return at.blanks ?? 1;
  return at ? (assemblyOf(build, at.id)?.slots.length ?? 1) : 1;
}

/** Ids of all slices of a slicing, in order. */
export function sliceIds(build: BuildDocument, slice: SliceStep): string[] {
  const blanks = blanksInto(build, slice);
  return Array.from({ length: blanks }, (_, b) =>
    Array.from({ length: slice.count }, (_, i) =>
      blanks > 1 ? `${slice.id}.${b + 1}.${i + 1}` : `${slice.id}.${i + 1}`,
    ),
  ).flat();
}

/** Pieces that a glue-up could lay and does not: slices cut as spares, strips left beside the lay-up. */
export function sparesOf(build: BuildDocument, glue: GlueStep): string[] {
  const slice = sliceBefore(build, glue);
  const all = slice ? sliceIds(build, slice) : (assemblyOf(build, glue.id)?.slots.map(({ id }) => id) ?? []);
  const laid = new Set(glue.parts?.map(({ piece }) => piece) ?? all);
  const spoilt = new Set(slice?.spoilt);
  return all.filter((id) => !laid.has(id) && !spoilt.has(id));
}
