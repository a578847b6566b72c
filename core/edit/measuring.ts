import type { BuildDocument } from '../document';
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
  };
  return {
    ...build,
    readings: [...others, { id, step: edit.step, dimension, measured: edit.measured, ...piece }],
  };
}

/** What was measured. */
export const measuring: Family<'measure'> = { measure: withReading };
