import type { BuildDocument } from '../document';

/** Gives ids that no step, output or reading of the build has: a reading that lost its step finds no stranger. */
export function freshIds(build: BuildDocument): (base: string) => string {
  const taken = new Set([
    ...build.steps.flatMap(({ id, output }) => [id, output]),
    ...build.readings.map(({ step }) => step),
    ...build.targets.map(({ output }) => output),
    ...build.assemblies.flatMap(({ id, slots }) => [id, ...slots.map((slot) => slot.id)]),
  ]);
  return (base) => {
    let n = 1;
    while (taken.has(`${base}-${n}`)) n += 1;
    taken.add(`${base}-${n}`);
    return `${base}-${n}`;
  };
}
