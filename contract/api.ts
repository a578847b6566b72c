import type { BuildDocument } from '../core/build';
import type { FieldProblem } from './check';

/** A job in a list. */
export interface JobSummary {
  id: string;
  name: string;
  use: string;
  version: number;
  changed: string;
}

/** A job with its newest build. */
export interface JobReply extends JobSummary {
  build: BuildDocument;
}

/** One kept version of a job. `set` means it lost a conflict and was put aside, not lost. */
export interface RevisionSummary {
  id: string;
  version: number;
  made: string;
  aside: boolean;
  name: string;
}

/** Errors as problem details (RFC 9457), with the fields at fault and, on a conflict, the version that stands. */
export interface Problem {
  type: string;
  title: string;
  status: number;
  detail: string;
  errors?: FieldProblem[];
  current?: JobReply;
  aside?: string;
}
