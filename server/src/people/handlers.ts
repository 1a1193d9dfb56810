import type { Door } from '@vocabula/contract';
import type { Request, Response } from 'express';
import type { HandlersOf } from '../http/endpoints.js';
import { notFound } from '../http/problem.js';
import { clearSession, setSession } from '../http/session.js';
import type { Services } from '../services.js';
import type { User } from './user.js';
import { changeWorkspace } from './workspace.js';

/** What is open before anybody has signed in, and the way out. @param demo accounts that the sign-in page lists */
export function doorHandlers(
  { people, sessions, signIns }: Pick<Services, 'people' | 'sessions' | 'signIns'>,
  demo: Door['demo'],
): HandlersOf<'door'> {
  const enter = async (
    { id }: Pick<User, 'id'>,
    { request, response }: { readonly request: Request; readonly response: Response },
  ): Promise<void> => setSession(request, response, await sessions.begin(id, request.get('user-agent') ?? ''));
  return {
    'GET /door': async () => ({ first: await people.isEmpty(), demo }),
    'POST /door/first': async (call) => enter(await people.makeFirst(call.body), call),
    'POST /door/sign-in': async (call) => enter(await signIns.signIn(call.body, call.request.ip ?? ''), call),
    'POST /door/sign-out': async ({ user, request, response }) => {
      if (user?.session) await sessions.end(user.session, user);
      clearSession(request, response);
    },
    'GET /door/links/{token}': ({ params: { token } }) => people.linkFor(token),
    'POST /door/password': async (call) => enter(await people.setPassword(call.body), call),
  };
}

/** The person who asks. */
export const meHandlers = ({
  people,
  addresses,
  sessions,
  keys,
  atHand,
  database,
}: Pick<Services, 'people' | 'addresses' | 'sessions' | 'keys' | 'atHand' | 'database'>): HandlersOf<'me'> => ({
  'GET /me': ({ user }) => people.me(user),
  'PUT /me': ({ body, user }) => people.save(user, body),
  'PUT /me/ways': ({ body, user }) => people.saveWays(user, body),
  'GET /me/at-hand': ({ user }) => atHand.list(user),
  'PUT /me/at-hand': ({ body: { names }, user }) => atHand.save(names, user),
  'PUT /me/workspace': ({ body, user }) => changeWorkspace(database, body, user),
  'POST /me/password': ({ body, user }) => people.changePassword(body, user),
  'POST /me/addresses': ({ body: { address }, user }) => addresses.ask(address, user),
  'DELETE /me/addresses/{address}': ({ params: { address }, user }) => addresses.remove(user.id, address, user),
  'GET /me/sessions': ({ user }) => sessions.list(user),
  'DELETE /me/sessions': ({ user }) => sessions.endOthers(user),
  'DELETE /me/sessions/{id}': async ({ params: { id }, user }) => {
    if (!(await sessions.end(id, user))) throw notFound('session');
  },
  'GET /me/keys': ({ user }) => keys.list(user),
  'POST /me/keys': ({ body, user }) => keys.make(body, user),
  'DELETE /me/keys/{id}': ({ params: { id }, user }) => keys.end(id, user),
});

/** All people, and their groups. Who they are is known to authors, who give rights; only administrators change it. */
export const peopleHandlers = ({
  people,
  groups,
  addresses,
}: Pick<Services, 'people' | 'groups' | 'addresses'>): HandlersOf<'people'> => ({
  'GET /people': () => people.list(),
  'POST /people': ({ body, user }) => people.invite(body, user),
  'PATCH /people/{id}': ({ params: { id }, body, user }) => people.change(id, body, user),
  'POST /people/{id}/link': ({ params: { id }, user }) => people.link(id, user),
  'PUT /people/{id}/addresses/{address}': ({ params: { id, address }, user }) => addresses.confirm(id, address, user),
  'DELETE /people/{id}/addresses/{address}': ({ params: { id, address }, user }) => addresses.remove(id, address, user),
  'GET /people/groups': () => groups.list(),
  'POST /people/groups': ({ body, user }) => groups.save(undefined, body, user),
  'PUT /people/groups/{id}': ({ params: { id }, body, user }) => groups.save(id, body, user),
  'DELETE /people/groups/{id}': ({ params: { id }, user }) => groups.remove(id, user),
});
