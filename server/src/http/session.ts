/** How a request says who it comes from: the cookie of a session. */
import type { Request, RequestHandler, Response } from 'express';
import type { User } from '../people/user.js';
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

/** Puts the user, where there is one, with the response. */
export function identified(sessions: SessionService): RequestHandler {
  return (request, response, next) => {
    const token = tokenOf(request);
    if (token === undefined) return next();
    sessions
      .user(token)
      .then((user) => {
        response.locals.user = user;
        next();
      })
      .catch(next);
  };
}

/** Who the personal key in the `Authorization` header belongs to. @throws RequestProblem 401 where none is in use */
export const keyHolder =
  (keys: KeyService) =>
  async (request: Request): Promise<User> => {
    const [, key] = /^Bearer (\S{10,200})$/i.exec(request.get('authorization') ?? '') ?? [];
    const user = key === undefined ? undefined : await keys.user(key);
    if (!user) throw new RequestProblem(401, 'no-key', 'Send a key that is in use: Authorization: Bearer KEY.');
    return user;
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
