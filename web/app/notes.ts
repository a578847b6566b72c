import { useMemo } from 'react';
import type { NotesReply } from '../../contract/api';
import { type Note, notAPhoto, type NoteContent, type NotePlace } from '../../core/notes';
import { api, type NotesOf, useNotesQuery } from './api';
import { shopTime } from './clock';
import { newUuid } from './ids';
import { keepChange, onOutbox } from './outbox';
import { useUnsent } from './outbox-view';
import { bareNote, SentPhoto } from './sending';
import { currentShop } from './shop-choice';
import { store } from './store';

/* Notes and photos as this browser has them: those of the server, and those that wait here for it. */

/** A note as it is shown: with the photo that still waits here, where one does. */
export interface ShownNote extends Note {
  /** It, or its photo, is not stored yet. */
  waits: boolean;
  /** The photo as it was taken here. */
  taken?: SentPhoto;
}

const ofNote = ({ job, board }: NotePlace): NotesOf => (job === undefined ? { board: board ?? '' } : { job });

/** Puts what the server answered into the lists that are shown. */
function put(note: Note): void {
  store.dispatch(
    api.util.updateQueryData('notes', ofNote(note), (list: NotesReply) => {
      const at = list.notes.findIndex(({ id }) => id === note.id);
      if (at >= 0) list.notes[at] = note as never;
      else list.notes.push(note as never);
    }),
  );
}
for (const kind of ['note', 'photo'] as const)
  onOutbox(kind, {
    stored: (_draft, { reply }) => {
      put(reply as Note);
      store.dispatch(api.util.invalidateTags(['Notes']));
    },
  });

/** What a note is called where it waits for the server. */
const nameOf = ({ words }: NoteContent, what: 'note' | 'photo'): string => {
  const short = words.trim().slice(0, 40);
  return short ? `${what} “${short}”` : `a ${what}`;
};

/** Writes a new note, and keeps the photo that goes with it; gives its id. */
export function addNote(
  place: NotePlace,
  words: string,
  more: { who?: string; photo?: SentPhoto } = {},
): string {
  const id = newUuid();
  const content: NoteContent = {
    ...place,
    words,
    marks: [],
    at: shopTime(),
    ...(more.who ? { who: more.who } : {}),
  };
  keepChange('note', id, { name: nameOf(content, 'note'), version: 0, content });
  if (more.photo)
    keepChange('photo', id, { name: nameOf(content, 'photo'), version: 0, content: more.photo });
  return id;
}

/** Changes a note: at once on the screen, a moment later on the server. What is undefined is no longer said. */
export function changeNote(
  note: ShownNote,
  change: { [K in keyof NoteContent]?: NoteContent[K] | undefined },
): void {
  const { waits: _w, taken: _t, ...stored } = note;
  const content = Object.fromEntries(
    Object.entries({ ...bareNote(stored), ...change }).filter(([, value]) => value !== undefined),
  ) as unknown as NoteContent;
  keepChange('note', note.id, { name: nameOf(content, 'note'), version: note.version, content });
}

/** Reads a file as a photo, or says why it is none. What can only be told from its inside is told by the server. */
export async function photoOf(file: File): Promise<SentPhoto | string> {
  const why = notAPhoto(file);
  if (why) return why;
  try {
    return new SentPhoto(file.type || 'image/jpeg', await file.arrayBuffer());
  } catch {
    return 'This file cannot be read: it was moved or taken away meanwhile.';
  }
}

/** Where a stored photo is read, whole or small. */
export const photoAddress = (id: string, size?: 'small'): string => {
  const asked = new URLSearchParams({
    ...(size ? { size } : {}),
    ...(currentShop() ? { shop: currentShop() as string } : {}),
  });
  return `/api/notes/${id}/photo?${asked}`;
};

/** The notes of a job or a board, the oldest first, with those that wait here; and the room that the shop's photos take. */
export function useNotes(of: NotesOf): {
  notes: ShownNote[];
  room: Pick<NotesReply, 'usedBytes' | 'mostBytes'> | undefined;
  loading: boolean;
  /** The list of the server cannot be read: what is shown is what is known here. */
  missing: boolean;
} {
  const { data, isLoading, isError } = useNotesQuery(of, { refetchOnMountOrArgChange: 30 });
  const unsent = useUnsent();
  const notes = useMemo(() => {
    const shown = new Map<string, ShownNote>(
      (data?.notes ?? []).map((note) => [note.id, { ...note, waits: false }]),
    );
    // What is shown is safe: a photo that is still being written down here is not, and shows a moment later.
    const unsafe = new Set(
      unsent.filter(({ kind, kept }) => kind === 'photo' && !kept).map(({ subject }) => subject),
    );
    for (const draft of unsent) {
      if (draft.kind !== 'note' || unsafe.has(draft.subject)) continue;
      const content = draft.content as NoteContent;
      const { job, board } = content;
      if ('job' in of ? job !== of.job : board !== of.board) continue;
      const there = shown.get(draft.subject);
      shown.set(draft.subject, {
        ...(there?.photo ? { photo: there.photo } : {}),
        ...content,
        id: draft.subject,
        version: draft.version,
        waits: true,
      });
    }
    for (const draft of unsent) {
      const note = draft.kind === 'photo' ? shown.get(draft.subject) : undefined;
      if (note) shown.set(draft.subject, { ...note, waits: true, taken: draft.content as SentPhoto });
    }
    return [...shown.values()].toSorted((a, b) => Date.parse(a.at) - Date.parse(b.at));
  }, [data, unsent, of]);
  return {
    notes,
    room: data && { usedBytes: data.usedBytes, mostBytes: data.mostBytes },
    loading: isLoading,
    missing: isError && !data,
  };
}
