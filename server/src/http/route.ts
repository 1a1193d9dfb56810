/** Routes: who may call one is asked before anything of its body is read. */
import type { NextFunction, Request, RequestHandler, Response } from 'express';
import { mayCall, type Asker, type Caller } from '../people/asker.js';
import { doorJson, usualJson } from './body.js';
import { RequestProblem } from './problem.js';

/** The person that a request comes from, as `identified` found out; undefined for nobody. */
const askerOf = (response: Response): Asker | undefined => response.locals.asker as Asker | undefined;

/** Reads the body of a request, and resolves when it stands in it. */
const received = (body: RequestHandler, request: Request, response: Response): Promise<void> =>
  new Promise((resolve, reject) => {
    void body(request, response, (problem?: unknown) => (problem ? reject(problem as Error) : resolve()));
  });

/** Runs an asynchronous handler; what it throws becomes an answer. */
const answering =
  (handler: (request: Request, response: Response) => Promise<void> | void): RequestHandler =>
  (request: Request, response: Response, next: NextFunction) => {
    Promise.resolve()
      .then(() => handler(request, response))
      .catch(next);
  };

/**
 * A route that anyone may call.
 * @param body reads what comes with it
 */
export const openRoute = (
  handler: (request: Request, response: Response, asker: Asker | undefined) => Promise<void> | void,
  body: RequestHandler = doorJson,
): RequestHandler =>
  answering(async (request, response) => {
    await received(body, request, response);
    return handler(request, response, askerOf(response));
  });

/**
 * A route that says who may call it. What they may do to which thing is for the service to say.
 * @param body reads what comes with it, once it is known who asks
 */
export const route = (
  caller: Exclude<Caller, 'anyone'>,
  handler: (request: Request, response: Response, asker: Asker) => Promise<void> | void,
  body: RequestHandler = usualJson,
): RequestHandler =>
  answering(async (request, response) => {
    const asker = askerOf(response);
    if (!asker) throw new RequestProblem(401, 'not-signed-in', 'Sign in first.');
    if (!mayCall(asker, caller))
      throw new RequestProblem(
        403,
        'not-allowed',
        caller === 'author' ? 'This is for authors.' : 'This is for administrators.',
      );
    await received(body, request, response);
    return handler(request, response, asker);
  });

/** A route for who a program's key belongs to: found out before the body is read. */
export const keyRoute = (
  holder: (request: Request) => Promise<Asker>,
  handler: (request: Request, response: Response, asker: Asker) => Promise<void> | void,
  body: RequestHandler = usualJson,
): RequestHandler =>
  answering(async (request, response) => {
    const asker = await holder(request);
    await received(body, request, response);
    return handler(request, response, asker);
  });

/** Sends what is JSON text already. */
export const sendJson = (response: Response, text: string): void => void response.type('json').send(text);
