import type { MadeCost } from '../core/cost';
import type { BoardCut, DatedRow, LineKind, LogLine, Score, Season } from '../core/log';

/** What of the log is asked for; what is missing does not narrow it. Days as YYYY-MM-DD, in universal time. */
export interface LogFilter {
  kind?: LineKind;
  tool?: string;
  wood?: string;
  season?: Season;
  stepKind?: string;
  dimension?: string;
  job?: string;
  from?: string;
  to?: string;
  /** Words in the name of the job or step, or in what was said. */
  text?: string;
  /** How many lines were shown before, from the newest on. */
  skip?: string;
}
export const LOG_FILTERS = [
  'kind',
  'tool',
  'wood',
  'season',
  'stepKind',
  'dimension',
  'job',
  'from',
  'to',
  'text',
  'skip',
] as const satisfies readonly (keyof LogFilter)[];

/** A line of the log with the job it comes from. */
export interface LoggedLine extends Omit<LogLine, 'rows'> {
  job: string;
  jobName: string;
}

/** A reading on the chart: predicted and measured, and half of its band. */
export interface LogPoint {
  at: string;
  predicted: number;
  measured: number;
  likely: number;
  tool?: string;
  wood?: string;
  stepKind: string;
}

/** What can be chosen to narrow the log. */
export interface LogChoices {
  tools: { id: string; name: string }[];
  woods: string[];
  stepKinds: string[];
  jobs: { id: string; name: string }[];
}

/** Something that failed, as causes are counted of it. */
export type LoggedCause = Pick<LogLine, 'cause' | 'struck' | 'lostMinor' | 'warned' | 'at'> & { job: string };

/** A page of the log, the newest lines first. */
export interface LogReply {
  lines: LoggedLine[];
  /** Lines that fit what was asked, and of them sizes, with those that lie within their band. */
  total: number;
  sizes: number;
  within: number;
  points: LogPoint[];
  choices: LogChoices;
  /** What failed, of all the shop's jobs, the newest first. */
  causes: LoggedCause[];
  /** Over all readings of the shop, not only those asked for. */
  score: Score;
  /** Jobs whose newest state could not be read, by name. */
  unread: string[];
}

/** Rows that the log learns from, the newest; `older` were left out. */
export interface LogRowsReply {
  rows: DatedRow[];
  older: number;
  /** Boards that were cut at all jobs. */
  boards: BoardCut[];
}

/** What jobs cost that were made, at the prices of today; without a currency in the kit there are none. */
export interface CostsReply {
  currency?: string;
  made: MadeCost[];
  /** Jobs that are not added up yet: asked again, the next of them are there. */
  pending: number;
  /** Jobs beyond the most that are told. */
  older: number;
  /** Jobs that could not be read, by name. */
  unread: string[];
}
/** So many jobs are told of, the last changed. */
export const MOST_COSTED = 500;

/** The most lines of one page, and points of the chart. */
export const LOG_PAGE = 200;
export const MOST_POINTS = 1500;
/** The most rows that are learned from: what is older has faded. */
export const MOST_ROWS = 6000;
