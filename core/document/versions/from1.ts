import type { Raw } from './raw';

/** Settings that version 1 took on steps and that nothing ever read. */
const DEAD: Record<string, readonly string[]> = { rest: ['coats'], surface: ['days'] };

/**
 * Version 1 to 2. A rest no longer takes coats nor a surfacing days, which nothing read. All else stays: version 2 takes
 * steps of kinds that its reader does not know, and a version of its own keeps an older Junta from refusing those by field.
 */
export function from1(document: Raw): Raw {
  const { steps } = document;
  if (!Array.isArray(steps)) return document;
  return {
    ...document,
    steps: steps.map((step: Raw | null) => {
      const dead = typeof step?.kind === 'string' && Object.hasOwn(DEAD, step.kind) ? DEAD[step.kind] : [];
      return dead.length === 0
        ? step
        : Object.fromEntries(Object.entries(step as Raw).filter(([name]) => !dead.includes(name)));
    }),
  };
}
