import type { BuildDocument } from '../document';

/** Every id that a build has; a reading that lost its step finds no stranger. */
const idsOf = (build: BuildDocument): string[] => [
  ...build.steps.flatMap(({ id, output }) => [id, output]),
  ...build.readings.map(({ step }) => step),
  ...build.targets.flatMap(({ id, output }) => [id, output]),
  ...build.assemblies.flatMap(({ id, slots }) => [id, ...slots.map((slot) => slot.id)]),
];

/** Gives ids that no step, output, piece wanted or reading of the build has. */
export function freshIds(build: BuildDocument): (base: string) => string {
  const taken = new Set(idsOf(build));
  return (base) => {
    let n = 1;
    while (taken.has(`${base}-${n}`)) n += 1;
    taken.add(`${base}-${n}`);
    return `${base}-${n}`;
  };
}

/** A beginning that no id of the build has: `p2`, `p3` and so on. */
export function freshTag(build: BuildDocument): string {
  const ids = idsOf(build);
  let n = 2;
  while (ids.some((id) => id.startsWith(`p${n}-`))) n += 1;
  return `p${n}`;
}
