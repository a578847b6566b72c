import type { ErrorRequestHandler } from 'express';
import type { Problem } from '../contract/api';
import { MOST_BYTES } from '../contract/bounds';
import type { FieldProblem } from '../contract/check';

/** An error with its answer. Thrown inside handlers, turned into problem details (RFC 9457) at the end. */
export class ProblemError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }
}

/** An answer that says what went wrong, where, and what to do. */
export const problem = (
  status: number,
  title: string,
  detail: string,
  more: Partial<Problem> = {},
): ProblemError => new ProblemError({ type: 'about:blank', title, status, detail, ...more });

/** A body that breaks the contract: the fields at fault, with their paths. */
export const badFields = (errors: FieldProblem[]): ProblemError =>
  problem(
    422,
    'Not understood',
    errors.map(({ path, reason }) => (path ? `${path}: ${reason}` : reason)).join('; '),
    { errors },
  );

const textOf = (error: unknown): string => {
  const { code, name, message } = (error ?? {}) as { code?: string; name?: string; message?: string };
  return `${code ?? ''} ${name ?? ''} ${message ?? ''}`;
};

const LOST =
  /ECONNREFUSED|ECONNRESET|EPIPE|ETIMEDOUT|PROTOCOL_CONNECTION_LOST|ER_SERVER_SHUTDOWN|closed state|Connection lost|not initialized|CannotExecuteNotConnected|CannotConnectAlreadyConnected|read ECONN|Pool is closed/i;
/** Whether an error says that the database is away, and not that the question was wrong. */
export const isDatabaseAway = (error: unknown): boolean => LOST.test(textOf(error));

const FULL =
  /ER_DISK_FULL|ER_RECORD_FILE_FULL|ER_ERROR_ON_WRITE|ENOSPC|No space left|errno: 28\b|error: 28\b/i;
/** Whether an error says that the disk under the database is full. */
export const isDiskFull = (error: unknown): boolean => FULL.test(textOf(error));

const DAMAGED =
  /ER_NO_SUCH_TABLE|ER_CRASHED_ON_USAGE|ER_NOT_KEYFILE|ER_TABLE_CORRUPT|ER_TABLESPACE_|ER_INDEX_CORRUPT|ER_GET_ERRNO|ER_BAD_FIELD_ERROR|ER_FILE_CORRUPT|ER_NO_SUCH_TABLE_IN_ENGINE|doesn't exist in engine|is corrupted|ER_UNKNOWN_STORAGE_ENGINE|ER_FILE_NOT_FOUND/i;
const isDamaged = (error: unknown): boolean => DAMAGED.test(textOf(error));

/** Says how much room is left where the data lies, MB; undefined where it cannot be told. */
export type RoomLeft = () => number | undefined;
/** With less than this the database cannot go on, MB. */
const LEAST_ROOM_MB = 4;

const diskFull = (): ProblemError =>
  problem(
    507,
    'The disk is full',
    'The disk under the database is full: nothing more can be stored until there is room on it.',
  );

function problemOf(error: unknown, roomLeft: RoomLeft): Problem {
  if (error instanceof ProblemError) return error.problem;
  const { type, status } = (error ?? {}) as { type?: string; status?: number };
  if (type === 'entity.too.large')
    return problem(
      413,
      'Too large',
      `A body is at most ${MOST_BYTES / 1024 / 1024} MB. This one is larger and was not read.`,
    ).problem;
  if (type === 'entity.parse.failed')
    return problem(400, 'Not JSON', 'The body could not be read as JSON.').problem;
  if (status && status >= 400 && status < 500)
    return problem(status, 'Not understood', (error as Error).message).problem;
  if (isDiskFull(error)) return diskFull().problem;
  if (isDatabaseAway(error)) {
    const room = roomLeft();
    if (room !== undefined && room < LEAST_ROOM_MB) return diskFull().problem;
    return problem(503, 'The database is away', 'The database does not answer.').problem;
  }
  if (isDamaged(error))
    return problem(
      503,
      'The database is damaged',
      `A table of the database cannot be read: ${(error as Error).message.slice(0, 200)}. The database's log (mariadb.log in the data directory) says more; a copy of the data directory made before brings it back.`,
    ).problem;
  return problem(500, 'Something broke', 'The server met an error it did not expect. Nothing was changed.')
    .problem;
}

/** The last handler: every error leaves as problem details; the unexpected ones are written to the server's log. */
export const answerProblems =
  (roomLeft: RoomLeft): ErrorRequestHandler =>
  (error, _request, response, _next) => {
    const answer = problemOf(error, roomLeft);
    if (answer.status === 500) console.error(error);
    if (answer.status === 503 || answer.status === 507) response.setHeader('Retry-After', '2');
    response.status(answer.status).type('application/problem+json').send(JSON.stringify(answer));
  };
