/**
 * Bodies of requests: read only after it is known who asks, with a limit of size for each route, and for JSON of depth
 * and number of values, which are counted before anything is made of them.
 */
import express, { type Request, type RequestHandler } from 'express';
import multer from 'multer';
import { RequestProblem } from './problem.js';

const KB = 1000;
/** What nobody in particular may send: enough to sign in. */
export const DOOR_BYTES = 16 * KB;
/** What a signed-in person may send where a route says nothing else. */
const USUAL_BYTES = 100 * KB;

/** How deep JSON may nest. Far beyond any document, and far from what exhausts a stack. */
const MAX_DEPTH = 400;
/** How many values JSON may hold. */
const MAX_VALUES = 250_000;

const [QUOTE, BACKSLASH, COMMA, OPEN_LIST, CLOSE_LIST, OPEN_OBJECT, CLOSE_OBJECT] = [
  0x22, 0x5c, 0x2c, 0x5b, 0x5d, 0x7b, 0x7d,
];

/**
 * Throws where JSON nests too deep or holds too many values. One look at each byte; nothing is made of it.
 * @param most of the values that it may hold
 */
export function demandSmallJson(bytes: Uint8Array, most = MAX_VALUES): void {
  let depth = 0;
  let values = 0;
  let quoted = false;
  for (let at = 0; at < bytes.length; at += 1) {
    const byte = bytes[at];
    if (quoted) {
      if (byte === BACKSLASH) at += 1;
      else if (byte === QUOTE) quoted = false;
      continue;
    }
    if (byte === QUOTE) quoted = true;
    else if (byte === OPEN_LIST || byte === OPEN_OBJECT) {
      depth += 1;
      values += 1;
      if (depth > MAX_DEPTH) throw tooComplex(`nests more than ${MAX_DEPTH} deep`);
    } else if (byte === CLOSE_LIST || byte === CLOSE_OBJECT) depth -= 1;
    else if (byte === COMMA) values += 1;
    if (values > most) throw tooComplex(`holds more than ${most} values`);
  }
}

const tooComplex = (words: string): RequestProblem => new RequestProblem(400, 'bad-request', `This ${words}.`);

/** Takes JSON of so many bytes, and so many values, at most. */
export function json(limit: number, most = MAX_VALUES): RequestHandler {
  const read = express.raw({ type: isJson, limit });
  return (request, response, next) => {
    read(request, response, (problem: unknown) => {
      if (problem) return next(tooLarge(problem, limit));
      if (!Buffer.isBuffer(request.body)) return next();
      try {
        demandSmallJson(request.body, most);
        response.locals.bytes = request.body.length;
        request.body = request.body.length === 0 ? undefined : (JSON.parse(request.body.toString('utf8')) as unknown);
        next();
      } catch (error) {
        next(error instanceof RequestProblem ? error : new RequestProblem(400, 'bad-request', 'This is not JSON.'));
      }
    });
  };
}
const isJson = (request: { readonly headers: Readonly<Record<string, unknown>> }): boolean =>
  /^application\/(?:[\w.+-]+\+)?json\b/i.test(String(request.headers['content-type'] ?? ''));

export const usualJson = json(USUAL_BYTES);
export const doorJson = json(DOOR_BYTES);

/** The most bytes of files that are received at one moment, by all requests together. */
const MOST_AT_ONCE = 250_000_000;
let receiving = 0;

/** Receives while there is room for so many bytes more; throws 503 where there is not. */
function withRoom(bytes: number, receive: RequestHandler): RequestHandler {
  return (request, response, next) => {
    const declared = Number(request.get('content-length'));
    const wanted = Number.isFinite(declared) ? Math.min(declared, bytes) : bytes;
    if (receiving + wanted > MOST_AT_ONCE)
      return next(new RequestProblem(503, 'busy', 'Too many files are coming in just now. Try again in a moment.'));
    receiving += wanted;
    let held = true;
    const release = (): void => {
      if (held) receiving -= wanted;
      held = false;
    };
    response.once('close', release);
    receive(request, response, next);
  };
}

/** Takes a file of so many bytes at most. */
export function file(limit: number): RequestHandler {
  const read = express.raw({ type: () => true, limit });
  return withRoom(limit, (request, response, next) =>
    read(request, response, (problem: unknown) => next(problem && tooLarge(problem, limit))),
  );
}

/** The file of a request. */
export function bytesOf(request: Request): Uint8Array {
  if (!Buffer.isBuffer(request.body))
    throw new RequestProblem(400, 'bad-request', 'Send the file itself, as application/octet-stream.');
  return request.body;
}

/** Takes a form with one file of so many bytes at most, as `file`, and one field. */
export function form(limit: number, field: number): RequestHandler {
  const upload = multer({
    storage: multer.memoryStorage(),
    limits: { fileSize: limit, files: 1, fields: 1, fieldSize: field },
  }).single('file');
  return withRoom(limit + field, (request, response, next) =>
    upload(request, response, (problem: unknown) => {
      if (!(problem instanceof multer.MulterError)) return next(problem);
      next(
        problem.code === 'LIMIT_FILE_SIZE'
          ? new RequestProblem(413, 'too-large', sizeWords(limit))
          : new RequestProblem(400, 'bad-request', 'Send one file, and the choices.'),
      );
    }),
  );
}

const sizeWords = (limit: number): string =>
  `This is larger than ${limit >= 1000 * KB ? `${limit / (1000 * KB)} MB` : `${limit / KB} kB`}, the most that is taken here.`;
const tooLarge = (problem: unknown, limit: number): unknown =>
  (problem as { type?: string }).type === 'entity.too.large'
    ? new RequestProblem(413, 'too-large', sizeWords(limit))
    : problem;
