import type { JobReply } from '../../contract/api';
import type { NewBoard, RackBoard } from '../../contract/board';
import type { KitReply } from '../../contract/shop';
import type { Note, NoteContent } from '../../core/notes';
import type { DraftKind } from './drafts';
import { currentShop } from './shop-choice';

/* How each kind of thing that is edited here goes to the server. */

/** A photo as it waits in this browser: the file as it was taken. */
export class SentPhoto {
  constructor(
    readonly type: string,
    readonly bytes: ArrayBuffer,
  ) {}
}

/** How one kind of thing is stored: where, in which body, and what of an answer is its content. */
interface Storing {
  url: (subject: string) => string;
  body: (version: number, content: unknown) => object | SentPhoto;
  /** What must be there before it: it goes out after that. */
  after?: DraftKind;
  /** How long an answer is waited for, ms. */
  timeoutMs?: number;
  /** What stands on the server, out of a conflict's answer. */
  current: (current: never) => { version: number; content: unknown };
  /** Pause after a change before it is sent, so that a run of changes is one version, ms. */
  pauseMs: number;
}

/** A board without what only the rack knows. */
export function bare(board: RackBoard): NewBoard {
  const { id: _, version: _v, reserved: _r, history: _h, taken: _t, ...rest } = board;
  return rest;
}

/** A note without what only the server knows. */
export function bareNote(note: Note): NoteContent {
  const { id: _, version: _v, photo: _p, ...rest } = note;
  return rest;
}

/** The subject of the kit's drafts: each shop has one kit. */
export const theKit = (): string => currentShop() ?? 'kit';

/** Every kind of thing that is stored. */
export const STORING: Record<DraftKind, Storing> = {
  job: {
    url: (id) => `/api/jobs/${id}`,
    body: (version, build) => ({ version, build }),
    current: ({ version, build }: JobReply) => ({ version, content: build }),
    pauseMs: 250,
  },
  kit: {
    url: () => '/api/kit',
    body: (version, shop) => ({ version, shop }),
    current: ({ version, shop }: KitReply) => ({ version, content: shop }),
    pauseMs: 350,
  },
  board: {
    url: (id) => `/api/boards/${id}`,
    body: (version, board) => ({ version, board }),
    current: (board: RackBoard) => ({ version: board.version, content: bare(board) }),
    pauseMs: 350,
  },
  note: {
    url: (id) => `/api/notes/${id}`,
    body: (version, note) => ({ version, note }),
    current: (note: Note) => ({ version: note.version, content: bareNote(note) }),
    pauseMs: 350,
  },
  photo: {
    url: (id) => `/api/notes/${id}/photo`,
    // Kept in the browser's database it comes back as plain data.
    body: (_version, photo) => {
      const { type, bytes } = photo as SentPhoto;
      return new SentPhoto(type, bytes);
    },
    current: (note: Note) => ({ version: note.version, content: undefined }),
    after: 'note',
    pauseMs: 350,
    timeoutMs: 120_000,
  },
};
