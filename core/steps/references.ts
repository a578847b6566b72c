import { sumOf } from '../units';
import { type BuildDocument, copiesOf } from '../document';
import { roomOf } from './list';

/** A place in a document, and what is wrong with it. */
interface Wrong {
  path: string;
  reason: string;
}

/** The most strips of one job, all repeats and pieces alike counted: more is a slip or an attack. */
const MOST_IN_ALL = 20_000;

/** Ids that two members of a list share. Case does not tell them apart: neither do a database and a person reading aloud. */
export function sharedIds(list: readonly { id: string }[], path: string, what = 'id'): Wrong[] {
  const seen = new Map<string, number>();
  const wrong: Wrong[] = [];
  for (const [i, { id }] of list.entries()) {
    const first = seen.get(id.toLowerCase());
    if (first === undefined) seen.set(id.toLowerCase(), i);
    else
      wrong.push({
        path: `${path}[${i}].${what}`,
        reason: `${path}[${i}].${what} “${id}” is also that of ${path}[${first}]; each must be its own, whatever the case of its letters`,
      });
  }
  return wrong;
}

/**
 * What a document's references break: ids that two members of a list share, outputs that two steps make, and inputs
 * that no earlier step makes (so that no step can wait for itself, by whatever way round); and more strips in all than
 * any shop makes. Expects a document whose
 * fields are right. What a reference leads to may still be missing from the kit: that is a finding of the run.
 */
export function brokenReferences(build: BuildDocument): Wrong[] {
  const { shop } = build;
  const wrong = [
    ...sharedIds(build.targets, 'targets'),
    ...sharedIds(build.boards, 'boards'),
    ...sharedIds(build.assemblies, 'assemblies'),
    ...sharedIds(build.steps, 'steps'),
    ...sharedIds(build.readings, 'readings'),
    ...sharedIds(
      build.steps.map(({ output }) => ({ id: output })),
      'steps',
      'output',
    ),
    ...build.assemblies.flatMap(({ slots }, i) => sharedIds(slots, `assemblies[${i}].slots`)),
    ...build.boards.flatMap(({ faults }, i) => sharedIds(faults ?? [], `boards[${i}].faults`)),
    ...build.steps.flatMap((step, i) =>
      Object.entries(roomOf(step).ownIds?.(step) ?? {}).flatMap(([path, list]) =>
        sharedIds(list, `steps[${i}].${path}`),
      ),
    ),
    ...sharedKitIds(shop, 'shop.'),
  ];
  const strips = sumOf(build.assemblies, (each) => each.slots.length * copiesOf(build, each));
  if (strips > MOST_IN_ALL)
    wrong.push({
      path: 'assemblies',
      reason: `assemblies: with all repeats and pieces alike this job asks for ${strips} strips; the most is ${MOST_IN_ALL}`,
    });
  const made = new Set<string>();
  for (const [i, { inputs, output, id }] of build.steps.entries()) {
    for (const [j, input] of inputs.entries())
      if (!made.has(input))
        wrong.push({
          path: `steps[${i}].inputs[${j}]`,
          reason: `steps[${i}].inputs[${j}]: step “${id}” takes “${input}”, which no step before it makes`,
        });
    made.add(output);
  }
  return wrong;
}

/** Ids that two members of one list of the kit share. */
export const sharedKitIds = (shop: BuildDocument['shop'], prefix = ''): Wrong[] =>
  (['saws', 'machines', 'clamps', 'adhesives', 'layUps', 'bits', 'supplies'] as const).flatMap((list) =>
    sharedIds(shop[list] ?? [], prefix + list),
  );
