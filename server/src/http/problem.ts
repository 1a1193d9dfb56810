/** Problems as answers: a status, a code and words. */
import type { ErrorRequestHandler } from 'express';
import type { Logger } from 'pino';
import type { Database } from '../db/database.js';
import { DATABASE_TROUBLE, troubleOf } from '../db/database-errors.js';
import { loggedPath } from './log.js';
import type * as z from 'zod';

export type ProblemStatus = 400 | 401 | 403 | 404 | 409 | 413 | 422 | 429 | 503 | 507;

export class RequestProblem extends Error {
  constructor(
    readonly status: ProblemStatus,
    readonly code: string,
    message: string,
    readonly details?: unknown,
  ) {
    super(message);
  }
}

export const notFound = (what: string): RequestProblem =>
  new RequestProblem(404, 'not-found', `There is no such ${what}.`);

/** Parses input at the edge. Throws a 400 that says where it is wrong. */
export function parsed<S extends z.ZodType>(schema: S, input: unknown): z.output<S> {
  const result = schema.safeParse(input);
  if (result.success) return result.data;
  const [issue] = result.error.issues;
  const where = issue?.path.join('.');
  // Some values are well formed and mean nothing: the schema says so of them.
  const { status = 400, code = 'bad-request' } = (issue && 'params' in issue ? issue.params : undefined) ?? {};
  throw new RequestProblem(
    status as ProblemStatus,
    String(code),
    `${where ? `${where}: ` : ''}${issue?.message ?? 'not understood'}`,
    result.error.issues.slice(0, 10).map(({ path, message }) => ({ path: path.join('.'), message })),
  );
}

/** The last handler: every error becomes a problem, and only unexpected ones are logged as such. */
export function problems(log: Logger, database: Pick<Database, 'noteTrouble'>): ErrorRequestHandler {
  return (error: unknown, request, response, next) => {
    if (response.headersSent) return next(error);
    const { status, code, message, details } = answerFor(error);
    if (status >= 500) {
      database.noteTrouble(error);
      log.error({ err: error, path: loggedPath(request.originalUrl.split('?')[0] ?? '') }, 'request failed');
    }
    response.status(status).json({ code, message, ...(details === undefined ? {} : { details }) });
  };
}

/** The answer that an error becomes: 4xx for what the request did wrong, 5xx for everything else. */
export function answerFor(error: unknown): { status: number; code: string; message: string; details?: unknown } {
  if (error instanceof RequestProblem) return error;
  const { type, status } = error as { type?: string; status?: number };
  if (type === 'entity.too.large')
    return { status: 413, code: 'too-large', message: 'This is larger than what is taken.' };
  if (typeof status === 'number' && status >= 400 && status < 500)
    return { status, code: 'bad-request', message: 'The request could not be understood.' };
  const said = `${String(error)} ${String((error as { cause?: unknown }).cause ?? '')}`;
  if (/SQLITE_FULL|database or disk is full|ENOSPC/.test(said))
    return { status: 507, code: 'disk-full', message: 'The disk of the server is full. Nothing was changed.' };
  if (/SQLITE_BUSY|database is locked|CLIENT_CLOSED/.test(said))
    return { status: 503, code: 'busy', message: 'The database is busy. Nothing was changed; try again in a moment.' };
  const trouble = troubleOf(error);
  if (trouble !== undefined) return { status: 503, code: DATABASE_TROUBLE, message: trouble };
  return { status: 500, code: 'failed', message: 'Something went wrong here. Nothing was changed.' };
}
