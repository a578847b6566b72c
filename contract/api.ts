import type { BuildDocument } from '../core/document';
import type { FieldProblem } from './check';

/** A job in a list. */
export interface JobSummary {
  id: string;
  name: string;
  use: string;
  version: number;
  changed: string;
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
}

/** What one breakdown writes: boards by id, those that only the plan before took, and the jobs beside this one. */
export interface BrokenDown {
  boards: readonly string[];
  freed?: readonly string[];
  companions?: readonly { id: string; version: number; build: BuildDocument }[];
}
