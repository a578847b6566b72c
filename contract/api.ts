import type { BuildDocument, JobGist } from '../core/document';
import type { Note } from '../core/notes';
import type { FieldProblem } from './check';

/** A job in a list. */
export interface JobSummary {
  id: string;
  name: string;
  use: string;
  version: number;
  changed: string;
  tags: string[];
  /** When it was put away, as an ISO time. */
  putAway?: string;
  /** What a list shows of it; missing where its newest build cannot be read. */
  gist?: JobGist;
}

/** A job that was deleted: it can be brought back until a day. */
export interface DeletedJob extends JobSummary {
  deleted: string;
  until: string;
}

/** Titles of the answers to who named no shop, where there are several or none, and to who named one that is gone. */
export const WHICH_SHOP = 'Which shop?';
export const NO_SUCH_SHOP = 'No such shop';

/** A shop of this installation. */
export interface ShopSummary {
  id: string;
  name: string;
  /** The made-up shop that came with Junta. */
  demo: boolean;
  jobs: number;
  boards: number;
}

/** The shops of this installation, those that were removed and can be brought back, and whether a demo comes with it. */
export interface ShopsReply {
  shops: ShopSummary[];
  removed: (ShopSummary & { removed: string; until: string })[];
  hasDemo: boolean;
}

/** A job with its newest build. Where that is damaged in the database, with the newest that is not. */
export interface JobReply extends JobSummary {
  build: BuildDocument;
  damaged?: { version: number; instead: number };
}

/** The newest builds of the shop's jobs, and the jobs whose newest build is damaged. */
export interface BuildsReply {
  jobs: JobReply[];
  damaged: { id: string; name: string; version: number }[];
}

/** A wait of a job: until when, in words, where it belongs. */
export interface TimerLine {
  job: string;
  name: string;
  step: string;
  task: string;
  words: string;
  until: string;
}

/** What waits, by the clock of the server: `now` is what it shows. */
export interface TimersReply {
  now: string;
  timers: TimerLine[];
}

/** The notes of a job or a board, those taken away in the last 30 days among them, and the room that the shop's photos take and may take. */
export interface NotesReply {
  notes: Note[];
  usedBytes: number;
  mostBytes: number;
}

/** What open pages are told: that a job, the jobs, the kit, the rack, notes or what waits changed; `again` that they may have missed something. */
export type ToldKind = 'again' | 'job' | 'jobs' | 'kit' | 'boards' | 'timers' | 'notes' | 'reading';

/** Where a page listens to what happens in its shop, as server-sent events; the shop is said by `?shop=`. */
export const EVENTS_PATH = '/api/events';

/** Whether the server and its tables are well, and whether anybody on this network is the shop. */
export interface HealthReply {
  ok: boolean;
  /** The server listens on more than this machine, and nobody signs in. */
  open: boolean;
}

/**
 * One kept version of a job. `aside` means it lost a conflict and was put aside, not lost; `marked` that it stays
 * however old it grows.
 */
export interface RevisionSummary {
  id: string;
  version: number;
  made: string;
  aside: boolean;
  marked: boolean;
  damaged?: boolean;
  name: string;
  /** Who made it, where that was noted. */
  by?: string;
}

/** Errors as problem details (RFC 9457), with the fields at fault and, on a conflict, the version that stands. */
export interface Problem {
  type: string;
  title: string;
  status: number;
  detail: string;
  errors?: FieldProblem[];
  /** What stands instead: the job, the kit or the board, as a read of it gives it. */
  current?: unknown;
  /** The write that made what stands, where its caller named it. */
  write?: string;
  aside?: string;
  /** When the job was deleted that is asked for, as an ISO time. */
  deleted?: string;
}

/** What one breakdown writes: boards by id, those that only the plan before took, and the jobs beside this one. */
export interface BrokenDown {
  boards: readonly string[];
  freed?: readonly string[];
  companions?: readonly { id: string; version: number; build: BuildDocument }[];
}
