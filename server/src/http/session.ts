/** How a request says who it comes from: the cookie of a session. */
import type { Request, RequestHandler, Response } from 'express';
import type { Asker } from '../people/asker.js';
import type { KeyService } from '../people/keys.js';
import { SESSION_SECONDS, type SessionService } from '../people/sessions.js';
import { RequestProblem } from './problem.js';

const COOKIE = 'vocabula';

/** The token in the cookie; undefined without one. */
function tokenOf(request: Request): string | undefined {
  for (const pair of (request.get('cookie') ?? '').split(';')) {
    const [name, value] = pair.trim().split('=');
    if (name === COOKIE && value && /^[\w-]{20,200}$/.test(value)) return value;
  }
  return undefined;
}

/** Puts the asker, where there is one, with the response. */
export function identified(sessions: SessionService): RequestHandler {
  return (request, response, next) => {
    const token = tokenOf(request);
    if (token === undefined) return next();
    sessions
      .asker(token)
      .then((asker) => {
        response.locals.asker = asker;
        next();
      })
      .catch(next);
  };
}

/** Who the personal key in the `Authorization` header belongs to. @throws RequestProblem 401 where none is in use */
export const keyHolder =
  (keys: KeyService) =>
  async (request: Request): Promise<Asker> => {
    const [, key] = /^Bearer (\S{10,200})$/i.exec(request.get('authorization') ?? '') ?? [];
    const asker = key === undefined ? undefined : await keys.asker(key);
    if (!asker) throw new RequestProblem(401, 'no-key', 'Send a key that is in use: Authorization: Bearer KEY.');
    return asker;
  };

/** `Lax`, so that links in mail lead in; requests that change something are checked for their origin besides. */
export const setSession = (request: Request, response: Response, token: string): void =>
  void response.cookie(COOKIE, token, {
    httpOnly: true,
    sameSite: 'lax',
    secure: request.secure,
    maxAge: SESSION_SECONDS * 1000,
    path: '/',
  });
export const clearSession = (request: Request, response: Response): void =>
  void response.clearCookie(COOKIE, { httpOnly: true, sameSite: 'lax', secure: request.secure, path: '/' });

/** The cookie header of a session, for callers that are no browser. */
export const sessionCookie = (token: string): string => `${COOKIE}=${token}`;
