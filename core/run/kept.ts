import type { BuildDocument, Finding, Step } from '../document';
import type { Done, ErrorSource, PlayedStep, TimelineStep, WorkPiece } from '../steps';
import { roomOf } from '../steps';
import type { Vec3 } from '../solid';

/** What carrying out one step came to, with all it left behind: enough not to carry it out again. */
export interface KeptStep extends PlayedStep {
  /** All that decides what the step does, besides the pieces that come in. */
  key: string;
  inputs: readonly WorkPiece[];
  done: Done & { predicted?: Vec3 };
  notes: readonly Finding[];
  sources: readonly ErrorSource[];
  entry: TimelineStep;
}

/** Texts of parts of documents, made once: edits share what they do not change. */
const texts = new WeakMap<object, string>();
function textOf(part: object): string {
  let text = texts.get(part);
  if (text === undefined) {
    text = JSON.stringify(part);
    texts.set(part, text);
  }
  return text;
}

/**
 * What decides what each step of a document does, besides the pieces that come in: the step itself, what was measured on it,
 * the shop; where it goes by other steps, all of them; and, where it begins a line, all that is cut from boards, since a board is cut once for all of them.
 */
export function keysOf(build: BuildDocument): (step: Step) => string {
  const shop = textOf(build.shop);
  const fresh = build.steps.filter((step) => roomOf(step).flow.source).map(textOf);
  const wood = [
    textOf(build.assemblies),
    textOf(build.boards),
    build.breakdown ? textOf(build.breakdown) : '',
    ...fresh,
  ];
  return (step) => {
    const own = build.readings.filter((reading) => reading.step === step.id);
    const more = roomOf(step).flow.source ? [...wood, ...build.readings.map(textOf)] : own.map(textOf);
    const around = roomOf(step).looksAround ? build.steps.map(textOf) : [];
    return [textOf(step), shop, ...more, ...around].join('\n');
  };
}

/** Whether a kept step had the very same pieces and settings: then it would come to the same again. */
export const isAsBefore = (
  kept: KeptStep | undefined,
  key: string,
  inputs: readonly WorkPiece[],
): kept is KeptStep =>
  kept !== undefined &&
  kept.key === key &&
  kept.inputs.length === inputs.length &&
  kept.inputs.every((piece, i) => piece === inputs[i]);
