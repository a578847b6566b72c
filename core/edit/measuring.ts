import { type BuildDocument, MOST_CHECKS, Refusal } from '../document';
import type { EditOf, Family } from './family';

function withReading(build: BuildDocument, edit: EditOf<'measure'>): BuildDocument {
  const { dimension } = edit;
  const others = build.readings.filter(
    (reading) =>
      reading.step !== edit.step || reading.dimension !== dimension || reading.piece !== edit.piece,
  );
  if (!edit.measured) return { ...build, readings: others };
  const id = [edit.step, dimension, ...(edit.piece ? [edit.piece] : [])].join('.');
  const piece = {
    ...(edit.piece ? { piece: edit.piece } : {}),
    ...(edit.taken ? { taken: edit.taken } : {}),
    ...(edit.who ? { who: edit.who } : {}),
    ...(edit.gauge ? { gauge: edit.gauge } : {}),
  };
  return {
    ...build,
    readings: [...others, { id, step: edit.step, dimension, measured: edit.measured, ...piece }],
  };
}

/** What was measured and checked. */
export const measuring: Family<'measure' | 'check' | 'forgetCheck'> = {
  measure: withReading,
  check: (build, { check }) => {
    const others = (build.checks ?? []).filter(({ id }) => id !== check.id);
    if (others.length >= MOST_CHECKS) throw new Refusal([`A job remembers at most ${MOST_CHECKS} checks.`]);
    return { ...build, checks: [...others, check] };
  },
  forgetCheck: (build, { check }) => {
    const checks = (build.checks ?? []).filter(({ id }) => id !== check);
    return { ...build, checks: checks.length > 0 ? checks : undefined };
  },
};
