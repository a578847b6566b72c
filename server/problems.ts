import type { ErrorRequestHandler } from 'express';
import type { Problem } from '../contract/api';
import type { FieldProblem } from '../contract/check';
import { isDatabaseAway } from './database';

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

/** A body that breaks the contract: every field at fault, with its path. */
export const badFields = (errors: FieldProblem[]): ProblemError =>
  problem(
    422,
    'Not understood',
    errors.map(({ path, reason }) => (path ? `${path}: ${reason}` : reason)).join('; '),
    { errors },
  );

function problemOf(error: unknown): Problem {
  if (error instanceof ProblemError) return error.problem;
  const { type, status } = error as { type?: string; status?: number };
  if (type === 'entity.too.large')
    return problem(413, 'Too large', 'A job is at most 4 MB. This body is larger and was not read.').problem;
  if (type === 'entity.parse.failed')
    return problem(400, 'Not JSON', 'The body could not be read as JSON.').problem;
  if (status && status >= 400 && status < 500)
    return problem(status, 'Not understood', (error as Error).message).problem;
  if (isDatabaseAway(error))
    return problem(
      503,
      'The database is away',
      'The database does not answer. Your work is kept in this browser and stored as soon as it is back.',
    ).problem;
  return problem(500, 'Something broke', 'The server met an error it did not expect. Nothing was changed.')
    .problem;
}

/** The last handler: every error leaves as problem details; the unexpected ones are written to the server's log. */
export const answerProblems: ErrorRequestHandler = (error, _request, response, _next) => {
  const answer = problemOf(error);
  if (answer.status === 500) console.error(error);
  if (answer.status === 503) response.setHeader('Retry-After', '2');
  response.status(answer.status).type('application/problem+json').send(JSON.stringify(answer));
};
