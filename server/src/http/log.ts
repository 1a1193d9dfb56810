/** The log: what happened, and nothing of what anybody wrote. Values of queries, files and tokens never stand in it. */
import { pino, type DestinationStream, type Logger } from 'pino';

/** What is logged of an error. */
interface LoggedError {
  readonly type: string;
  readonly code: string | undefined;
  readonly message: string;
  readonly stack: string;
  readonly cause: LoggedError | undefined;
}

const MOST_WORDS = 300;

/**
 * An error without values: a query that failed carries what was to be written in its message, behind `params:`, and the
 * database quotes values in its own.
 */
export function loggedError(error: unknown, depth = 0): LoggedError {
  const { name, code, message, stack, cause } = (error ?? {}) as {
    name?: string;
    code?: string;
    message?: string;
    stack?: string;
    cause?: unknown;
  };
  const frames = (stack ?? '').split('\n').filter((line) => /^\s+at /.test(line));
  return {
    type: name ?? typeof error,
    code,
    message: String(message ?? '')
      .replace(/\bparams:[\s\S]*$/, 'params: …')
      .slice(0, MOST_WORDS),
    stack: frames.slice(0, 12).join('\n'),
    cause: cause === undefined || depth > 3 ? undefined : loggedError(cause, depth + 1),
  };
}

const UUID = /^[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i;
/** The path of a request without its tokens: long parts that are no ids of ours. Names of texts hold no capitals. */
export const loggedPath = (path: string): string =>
  path
    .split('/')
    .map((part) =>
      part.includes('@') || (part.length >= 20 && !UUID.test(part) && !/^[a-z0-9-]+$/.test(part)) ? '…' : part,
    )
    .join('/');

/** The log of the application. @param to where it goes; standard output if nothing is said */
export const makeLog = (level: string, to?: DestinationStream): Logger =>
  pino({ level, serializers: { err: loggedError } }, ...(to ? ([to] as const) : []));
