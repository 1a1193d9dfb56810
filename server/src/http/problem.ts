/** Problems as answers: a status, a code and words. */
import type { ErrorRequestHandler, NextFunction, Request, RequestHandler, Response } from 'express';
import type { Logger } from 'pino';
import type * as z from 'zod';
import { mayCall, type Asker, type Caller } from '../people/asker.js';

export class RequestProblem extends Error {
  constructor(
    readonly status: 400 | 401 | 403 | 404 | 409 | 413 | 422 | 429 | 503 | 507,
    readonly code: string,
    message: string,
    readonly details?: unknown,
  ) {
    super(message);
  }
}

export const notFound = (what: string): RequestProblem =>
  new RequestProblem(404, 'not-found', `There is no such ${what}.`);

/** How deep a body may nest. Far beyond any document, and far from what exhausts a stack. */
const MAX_DEPTH = 400;

/** Parses input at the edge. Throws a 400 that says where it is wrong. */
export function parsed<S extends z.ZodType>(schema: S, input: unknown): z.output<S> {
  if (isDeeper(input, MAX_DEPTH))
    throw new RequestProblem(400, 'bad-request', `This nests more than ${MAX_DEPTH} deep.`);
  const result = schema.safeParse(input);
  if (result.success) return result.data;
  const [issue] = result.error.issues;
  const where = issue?.path.join('.');
  throw new RequestProblem(
    400,
    'bad-request',
    `${where ? `${where}: ` : ''}${issue?.message ?? 'not understood'}`,
    result.error.issues.slice(0, 10).map(({ path, message }) => ({ path: path.join('.'), message })),
  );
}

/** Level by level rather than by recursion, which is what is being guarded against. */
function isDeeper(input: unknown, limit: number): boolean {
  let level: unknown[] = [input];
  for (let depth = 0; level.length > 0; depth += 1) {
    if (depth > limit) return true;
    level = level.flatMap((each) => (typeof each === 'object' && each !== null ? Object.values(each) : []));
  }
  return false;
}

/** The person that a request comes from, as `identified` found out; undefined for nobody. */
export const askerOf = (response: Response): Asker | undefined => response.locals.asker as Asker | undefined;

/** A route that anyone may call, and whose failures become answers. */
export function openRoute(
  handler: (request: Request, response: Response, asker: Asker | undefined) => Promise<void> | void,
): RequestHandler {
  return (request: Request, response: Response, next: NextFunction) => {
    Promise.resolve()
      .then(() => handler(request, response, askerOf(response)))
      .catch(next);
  };
}

/** A route that says who may call it. What they may do to which thing is for the service to say. */
export function route(
  caller: Exclude<Caller, 'anyone'>,
  handler: (request: Request, response: Response, asker: Asker) => Promise<void> | void,
): RequestHandler {
  return openRoute((request, response, asker) => {
    if (!asker) throw new RequestProblem(401, 'not-signed-in', 'Sign in first.');
    if (!mayCall(asker, caller))
      throw new RequestProblem(
        403,
        'not-allowed',
        caller === 'author' ? 'This is for authors.' : 'This is for administrators.',
      );
    return handler(request, response, asker);
  });
}

/** The last handler: every error becomes a problem, and only unexpected ones are logged as such. */
export function problems(log: Logger): ErrorRequestHandler {
  return (error: unknown, request, response, next) => {
    if (response.headersSent) return next(error);
    const { status, code, message, details } = describe(error);
    if (status >= 500) log.error({ err: error, path: request.path }, 'request failed');
    response.status(status).json({ code, message, ...(details === undefined ? {} : { details }) });
  };
}

function describe(error: unknown): { status: number; code: string; message: string; details?: unknown } {
  if (error instanceof RequestProblem) return error;
  const { type, status } = error as { type?: string; status?: number };
  if (type === 'entity.too.large')
    return { status: 413, code: 'too-large', message: 'This is larger than what is taken.' };
  if (type === 'entity.parse.failed') return { status: 400, code: 'bad-request', message: 'This is not JSON.' };
  if (typeof status === 'number' && status >= 400 && status < 500)
    return { status, code: 'bad-request', message: 'The request could not be understood.' };
  const said = `${String(error)} ${String((error as { cause?: unknown }).cause ?? '')}`;
  if (/SQLITE_FULL|database or disk is full|ENOSPC/.test(said))
    return { status: 507, code: 'disk-full', message: 'The disk of the server is full. Nothing was changed.' };
  if (/SQLITE_BUSY|database is locked|CLIENT_CLOSED/.test(said))
    return { status: 503, code: 'busy', message: 'The database is busy. Nothing was changed; try again in a moment.' };
  return { status: 500, code: 'failed', message: 'Something went wrong here. Nothing was changed.' };
}
