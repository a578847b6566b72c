import { type BuildDocument, FAILURE_NAMES } from '../../../core/document';
import { stepName } from '../../../core/steps';
import type { ShownNote } from '../../app/notes';
import { localZone } from '../calendar/calendar-worker';
import { when } from '../today/moment';
import { hasPhoto } from './Picture';

/** The step that a note was taken at, by its name; one that is gone says so. */
export function stepOf(build: BuildDocument | undefined, { step }: ShownNote): string | undefined {
  if (!build || step === undefined) return undefined;
  const there = build.steps.find(({ id }) => id === step);
  return there ? stepName(there) : 'a step that is gone';
}

/** What failed, where the note belongs to that. */
export function failureOf(build: BuildDocument | undefined, { failure }: ShownNote): string | undefined {
  const there = build?.failures?.find(({ id }) => id === failure);
  return there && FAILURE_NAMES[there.kind];
}

/** A note in a line: what it says, and when it was taken by whom. */
export const noteTitle = (note: ShownNote, now: number): string => {
  const { words, at, who } = note;
  const what = words.trim() || (hasPhoto(note) ? 'Photo' : 'Note');
  return `${what} · ${when(Date.parse(at), now, localZone())}${who ? `, ${who}` : ''}`;
};
