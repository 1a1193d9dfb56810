import type { Door } from '@vocabula/contract';
import type { Request, Response } from 'express';
import type { HandlersOf } from '../http/endpoints.js';
import { notFound } from '../http/problem.js';
import { clearSession, setSession } from '../http/session.js';
import type { Services } from '../services.js';
import type { Asker } from './asker.js';
import { changeWorkspace } from './workspace.js';

/** What is open before anybody has signed in, and the way out. @param demo accounts that the sign-in page lists */
export function doorHandlers(
  { people, sessions, signIns }: Pick<Services, 'people' | 'sessions' | 'signIns'>,
  demo: Door['demo'],
): HandlersOf<'door'> {
  const enter = async (
    { id }: Pick<Asker, 'id'>,
    { request, response }: { readonly request: Request; readonly response: Response },
  ): Promise<void> => setSession(request, response, await sessions.begin(id, request.get('user-agent') ?? ''));
  return {
    'GET /door': async () => ({ first: await people.isEmpty(), demo }),
    'POST /door/first': async (call) => enter(await people.makeFirst(call.body), call),
    'POST /door/sign-in': async (call) => enter(await signIns.signIn(call.body, call.request.ip ?? ''), call),
    'POST /door/sign-out': async ({ asker, request, response }) => {
      if (asker?.session) await sessions.end(asker.session, asker);
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
  'GET /me': ({ asker }) => people.me(asker),
  'PUT /me': ({ body, asker }) => people.save(asker, body),
  'PUT /me/ways': ({ body, asker }) => people.saveWays(asker, body),
  'GET /me/at-hand': ({ asker }) => atHand.list(asker),
  'PUT /me/at-hand': ({ body: { names }, asker }) => atHand.save(names, asker),
  'PUT /me/workspace': ({ body, asker }) => changeWorkspace(database, body, asker),
  'POST /me/password': ({ body, asker }) => people.changePassword(body, asker),
  'POST /me/addresses': ({ body: { address }, asker }) => addresses.ask(address, asker),
  'DELETE /me/addresses/{address}': ({ params: { address }, asker }) => addresses.remove(asker.id, address, asker),
  'GET /me/sessions': ({ asker }) => sessions.list(asker),
  'DELETE /me/sessions': ({ asker }) => sessions.endOthers(asker),
  'DELETE /me/sessions/{id}': async ({ params: { id }, asker }) => {
    if (!(await sessions.end(id, asker))) throw notFound('session');
  },
  'GET /me/keys': ({ asker }) => keys.list(asker),
  'POST /me/keys': ({ body, asker }) => keys.make(body, asker),
  'DELETE /me/keys/{id}': ({ params: { id }, asker }) => keys.end(id, asker),
});

/** All people, and their groups. Who they are is known to authors, who give rights; only administrators change it. */
export const peopleHandlers = ({
  people,
  groups,
  addresses,
}: Pick<Services, 'people' | 'groups' | 'addresses'>): HandlersOf<'people'> => ({
  'GET /people': () => people.list(),
  'POST /people': ({ body, asker }) => people.invite(body, asker),
  'PATCH /people/{id}': ({ params: { id }, body, asker }) => people.change(id, body, asker),
  'POST /people/{id}/link': ({ params: { id }, asker }) => people.link(id, asker),
  'PUT /people/{id}/addresses/{address}': ({ params: { id, address }, asker }) => addresses.confirm(id, address, asker),
  'DELETE /people/{id}/addresses/{address}': ({ params: { id, address }, asker }) =>
    addresses.remove(id, address, asker),
  'GET /people/groups': () => groups.list(),
  'POST /people/groups': ({ body, asker }) => groups.save(undefined, body, asker),
  'PUT /people/groups/{id}': ({ params: { id }, body, asker }) => groups.save(id, body, asker),
  'DELETE /people/groups/{id}': ({ params: { id }, asker }) => groups.remove(id, asker),
});
