/** The table of endpoints, served: who may call one is asked before anything of its body is read. */
import {
  ENDPOINTS,
  type Answered,
  type Endpoint,
  type EndpointName,
  type Endpoints,
  type KeyEndpoint,
} from '@vocabula/contract';
import { Router, type NextFunction, type Request, type RequestHandler, type Response } from 'express';
import type * as z from 'zod';
import { mayCall, type User } from '../people/user.js';
import { doorJson, file, form, json, usualJson } from './body.js';
import { parsed, RequestProblem } from './problem.js';

/** An answer that is JSON text already. */
export class JsonText<T> {
  /** What it is the text of: for the type alone. */
  declare readonly of: T;
  constructor(readonly text: string) {}
}
/** An answer that is a file. */
export interface Download {
  /** What it is saved as; none for what is shown. */
  readonly name?: string | undefined;
  /** A media type. */
  readonly type: string;
  readonly content: Uint8Array | string;
  readonly headers?: Readonly<Record<string, string>>;
}
/** Marks a download, so that it cannot be taken for JSON. */
export class FileAnswer {
  constructor(readonly download: Download) {}
}

type Parsed<E, K extends string> = E extends { readonly [key in K]: infer S extends z.ZodType }
  ? z.output<S>
  : undefined;
/** What a handler is given: everything parsed. */
export interface Call<E> {
  readonly params: Parsed<E, 'params'>;
  readonly query: Parsed<E, 'query'>;
  readonly body: Parsed<E, 'body'>;
  /** How many bytes the body had as JSON; 0 without one. */
  readonly bytes: number;
  /** The file that came. */
  readonly file: E extends { readonly file: unknown } ? Uint8Array : undefined;
  /** Who asks; nobody may, where anyone may call. */
  readonly user: E extends { readonly role: 'anyone' } ? User | undefined : User;
  readonly request: Request;
  readonly response: Response;
}
type Reply<E> = E extends { readonly answer: 'file' } ? FileAnswer : Answered<E> | JsonText<Answered<E>> | FileAnswer;
/** One handler for each endpoint of the table. */
export type Handlers = {
  readonly [K in EndpointName]: (call: Call<Endpoints[K]>) => Promise<Reply<Endpoints[K]>> | Reply<Endpoints[K]>;
};
/** Those of one subject, by the first part of their paths. */
export type HandlersOf<Subject extends string> = Pick<
  Handlers,
  Extract<EndpointName, `${string} /${Subject}` | `${string} /${Subject}/${string}`>
>;

export interface ServeOptions {
  /** Who a personal key belongs to. @throws RequestProblem 401 where there is none that is in use */
  readonly keyHolder: (request: Request) => Promise<User>;
  /** Holds every answer to its schema: in tests, where it costs nothing that matters. */
  readonly checked: boolean;
}

/** Serves all endpoints, below wherever the router stands. */
export function endpointRouter(handlers: Handlers, options: ServeOptions): Router {
  const router = Router();
  // A router of its own for each first part of a path: all routes in one are tried one after the other.
  const subjects = new Map<string, Router>();
  for (const name of inOrder(Object.keys(ENDPOINTS) as EndpointName[])) {
    const [method, path] = name.split(' ') as [string, string];
    const handler = served(
      ENDPOINTS[name],
      // The table matches handlers and endpoints; over all of them at once that is not told by types.
      handlers[name] as unknown as (call: Call<Endpoint>) => unknown,
      options,
    );
    const [, first = '', rest = ''] = /^(\/[^/]+)(.*)$/.exec(path) ?? [];
    let subject = subjects.get(first);
    if (!subject) {
      subject = Router();
      subjects.set(first, subject);
      router.use(first, subject);
    }
    subject[method.toLowerCase() as 'get'](rest.replace(/\{(\w+)\}/g, ':$1') || '/', handler);
  }
  return router;
}

/** With literal paths before those with parameters in the same place. */
const inOrder = (names: readonly EndpointName[]): EndpointName[] =>
  [...names].sort((a, b) => (sortKey(a) < sortKey(b) ? -1 : 1));
const sortKey = (name: string): string => name.replace(/\{\w+\}/g, '~');

function served(
  endpoint: Endpoint,
  handler: (call: Call<Endpoint>) => unknown,
  { keyHolder, checked }: ServeOptions,
): RequestHandler {
  const body = bodyOf(endpoint);
  const answer = async (request: Request, response: Response): Promise<void> => {
    const user = 'scope' in endpoint ? await holderOf(endpoint, request, keyHolder) : callerOf(endpoint.role, response);
    await received(body, request, response);
    const reply = await handler({
      params: endpoint.params && parsed(endpoint.params, request.params),
      query: endpoint.query && parsed(endpoint.query, request.query),
      ...given(endpoint, request),
      bytes: (response.locals.bytes as number | undefined) ?? 0,
      user: user as User,
      request,
      response,
    } as Call<Endpoint>);
    send(endpoint, reply, response, checked);
  };
  return (request, response, next: NextFunction) => void answer(request, response).catch(next);
}

/** Who asks, as `identified` found out. @throws RequestProblem where they may not call this */
function callerOf(role: 'anyone' | Parameters<typeof mayCall>[1], response: Response): User | undefined {
  const user = response.locals.user as User | undefined;
  if (role === 'anyone') return user;
  if (!user) throw new RequestProblem(401, 'not-signed-in', 'Sign in first.');
  if (mayCall(user, role)) return user;
  throw new RequestProblem(
    403,
    'not-allowed',
    role === 'author' ? 'This is for authors.' : 'This is for administrators.',
  );
}
async function holderOf({ scope }: KeyEndpoint, request: Request, keyHolder: ServeOptions['keyHolder']): Promise<User> {
  const user = await keyHolder(request);
  if (!user.scopes?.includes(scope))
    throw new RequestProblem(403, 'not-allowed', `This key has not the scope “${scope}”.`);
  return user;
}

/** What reads the body of an endpoint. */
function bodyOf(endpoint: Endpoint): RequestHandler {
  const { file: taken, most } = endpoint;
  if (taken?.as === 'file') return file(taken.bytes);
  if (taken) return form(taken.bytes, most?.bytes ?? 0);
  if (most) return json(most.bytes, most.values);
  if ('scope' in endpoint) return json(1_000_000);
  return endpoint.role === 'anyone' ? doorJson : usualJson;
}
const received = (body: RequestHandler, request: Request, response: Response): Promise<void> =>
  new Promise((resolve, reject) => {
    void body(request, response, (problem?: unknown) => (problem ? reject(problem as Error) : resolve()));
  });

/** The body and the file of a request. */
function given({ body, file: taken }: Endpoint, request: Request): { body: unknown; file: Uint8Array | undefined } {
  if (!taken) return { body: body && parsed(body, request.body), file: undefined };
  if (taken.as === 'file') {
    if (Buffer.isBuffer(request.body)) return { body: undefined, file: request.body };
    throw new RequestProblem(400, 'bad-request', 'Send the file itself, as application/octet-stream.');
  }
  if (!request.file) throw new RequestProblem(400, 'bad-request', 'Send the file as “file” of a form.');
  return { body: body && parsed(body, choicesOf(request)), file: request.file.buffer };
}
function choicesOf(request: Request): unknown {
  const { choices } = (request.body ?? {}) as { choices?: unknown };
  try {
    return JSON.parse(String(choices)) as unknown;
  } catch {
    throw new RequestProblem(400, 'bad-request', 'Send the choices as JSON.');
  }
}

function send(endpoint: Endpoint, reply: unknown, response: Response, checked: boolean): void {
  const { answer, status } = endpoint;
  if (status !== undefined) response.status(status);
  if (reply instanceof FileAnswer) {
    const { name, type, content, headers = {} } = reply.download;
    if (name !== undefined) response.attachment(name);
    response
      .type(type)
      .set(headers)
      .send(typeof content === 'string' ? content : Buffer.from(content));
  } else if (answer === undefined || answer === 'file') response.status(204).end();
  else if (reply instanceof JsonText) {
    if (checked) answer.parse(JSON.parse(reply.text));
    response.type('json').send(reply.text);
  } else {
    if (checked) answer.parse(JSON.parse(JSON.stringify(reply)));
    // Other programs are told what the contract says, and nothing besides.
    response.json('scope' in endpoint ? answer.parse(reply) : reply);
  }
}
