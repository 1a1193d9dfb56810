import {
  atHandSchema,
  changePasswordSchema,
  changePersonSchema,
  firstPersonSchema,
  groupSchema,
  inviteSchema,
  makeKeySchema,
  ownAddressSchema,
  profileSchema,
  setPasswordSchema,
  signInSchema,
  waysSchema,
  workspaceSchema,
  type Door,
} from '@vocabula/contract';
import { Router, type Request, type Response } from 'express';
import * as z from 'zod';
import type { AtHandService } from '../catalogue/at-hand.js';
import type { Database } from '../db/database.js';
import { json } from '../http/body.js';
import { parsed, RequestProblem } from '../http/problem.js';
import { openRoute, route } from '../http/route.js';
import { clearSession, setSession } from '../http/session.js';
import type { AddressService } from './addresses.js';
import type { Asker } from './asker.js';
import type { KeyService } from './keys.js';
import type { PeopleService } from './service.js';
import type { SessionService } from './sessions.js';
import type { SignInService } from './sign-in.js';
import { changeWorkspace } from './workspace.js';

const addressOf = (request: Request): string => parsed(z.string().max(320), request.params.address);
const idOf = (request: Request): string => parsed(z.string().max(60), request.params.id);

export interface PeopleParts {
  readonly people: PeopleService;
  readonly addresses: AddressService;
  readonly sessions: SessionService;
  readonly signIns: SignInService;
  readonly keys: KeyService;
  readonly atHand: AtHandService;
  readonly database: Database;
  /** Accounts that the sign-in page lists; those of the demo. */
  readonly demo: Door['demo'];
}

/** What is open before anybody has signed in, and the way out. */
export function doorRoutes({ people, sessions, signIns, demo }: PeopleParts): Router {
  const router = Router();
  const enter = async (request: Request, response: Response, { id }: Pick<Asker, 'id'>): Promise<void> => {
    setSession(request, response, await sessions.begin(id, request.get('user-agent') ?? ''));
    response.status(204).end();
  };
  router.get(
    '/',
    openRoute(async (_request, response) => {
      const door: Door = { first: await people.isEmpty(), demo };
      response.json(door);
    }),
  );
  router.post(
    '/first',
    openRoute(async (request, response) =>
      enter(request, response, await people.makeFirst(parsed(firstPersonSchema, request.body))),
    ),
  );
  router.post(
    '/sign-in',
    openRoute(async (request, response) =>
      enter(request, response, await signIns.signIn(parsed(signInSchema, request.body), request.ip ?? '')),
    ),
  );
  router.get(
    '/links/:token',
    openRoute(async (request, response) => {
      response.json(await people.linkFor(parsed(z.string().max(200), request.params.token)));
    }),
  );
  router.post(
    '/password',
    openRoute(async (request, response) =>
      enter(request, response, await people.setPassword(parsed(setPasswordSchema, request.body))),
    ),
  );
  router.post(
    '/sign-out',
    openRoute(async (request, response, asker) => {
      if (asker?.session) await sessions.end(asker.session, asker);
      clearSession(request, response);
      response.status(204).end();
    }),
  );
  return router;
}

/** The person who asks. */
export function meRoutes({ people, addresses, sessions, keys, atHand, database }: PeopleParts): Router {
  const router = Router();
  router.post(
    '/addresses',
    route(
      'colleague',
      async (request, response, asker) =>
        void response.status(201).json(await addresses.ask(parsed(ownAddressSchema, request.body).address, asker)),
    ),
  );
  router.delete(
    '/addresses/:address',
    route('colleague', async (request, response, asker) => {
      await addresses.remove(asker.id, addressOf(request), asker);
      response.status(204).end();
    }),
  );
  router.put(
    '/ways',
    route(
      'colleague',
      async (request, response, asker) =>
        void response.json(await people.saveWays(asker, parsed(waysSchema, request.body))),
    ),
  );
  router.get(
    '/at-hand',
    route('colleague', async (_request, response, asker) => void response.json(await atHand.list(asker))),
  );
  router.put(
    '/at-hand',
    route(
      'colleague',
      async (request, response, asker) =>
        void response.json(await atHand.save(parsed(atHandSchema, request.body).names, asker)),
    ),
  );
  router.put(
    '/workspace',
    route(
      'administrator',
      async (request, response, asker) =>
        void response.json(await changeWorkspace(database, parsed(workspaceSchema, request.body), asker)),
    ),
  );
  router.get(
    '/',
    route('colleague', async (_request, response, asker) => void response.json(await people.me(asker))),
  );
  router.put(
    '/',
    route(
      'colleague',
      async (request, response, asker) =>
        void response.json(await people.save(asker, parsed(profileSchema, request.body))),
    ),
  );
  router.post(
    '/password',
    route('colleague', async (request, response, asker) => {
      await people.changePassword(parsed(changePasswordSchema, request.body), asker);
      response.status(204).end();
    }),
  );
  router.get(
    '/sessions',
    route('colleague', async (_request, response, asker) => void response.json(await sessions.list(asker))),
  );
  router.delete(
    '/sessions',
    route('colleague', async (_request, response, asker) => {
      await sessions.endOthers(asker);
      response.status(204).end();
    }),
  );
  router.delete(
    '/sessions/:id',
    route('colleague', async (request, response, asker) => {
      if (!(await sessions.end(idOf(request), asker)))
        throw new RequestProblem(404, 'not-found', 'There is no such session.');
      response.status(204).end();
    }),
  );
  router.get(
    '/keys',
    route('colleague', async (_request, response, asker) => void response.json(await keys.list(asker))),
  );
  router.post(
    '/keys',
    route(
      'colleague',
      async (request, response, asker) =>
        void response.status(201).json(await keys.make(parsed(makeKeySchema, request.body), asker)),
    ),
  );
  router.delete(
    '/keys/:id',
    route('colleague', async (request, response, asker) => {
      await keys.end(idOf(request), asker);
      response.status(204).end();
    }),
  );
  return router;
}

/** All people, and their groups. Who they are is known to authors, who give rights; only administrators change it. */
export function peopleRoutes({ people, addresses }: PeopleParts): Router {
  const router = Router();
  router.get(
    '/',
    route('author', async (_request, response) => void response.json(await people.list())),
  );
  router.post(
    '/',
    route(
      'administrator',
      async (request, response, asker) =>
        void response.status(201).json(await people.invite(parsed(inviteSchema, request.body), asker)),
    ),
  );
  router.get(
    '/groups',
    route('author', async (_request, response) => void response.json(await people.groups())),
  );
  router.post(
    '/groups',
    route(
      'administrator',
      async (request, response, asker) =>
        void response.status(201).json(await people.saveGroup(undefined, parsed(groupSchema, request.body), asker)),
      json(1_000_000),
    ),
  );
  router.put(
    '/groups/:id',
    route(
      'administrator',
      async (request, response, asker) =>
        void response.json(await people.saveGroup(idOf(request), parsed(groupSchema, request.body), asker)),
      json(1_000_000),
    ),
  );
  router.delete(
    '/groups/:id',
    route('administrator', async (request, response, asker) => {
      await people.removeGroup(idOf(request), asker);
      response.status(204).end();
    }),
  );
  router.post(
    '/:id/link',
    route(
      'administrator',
      async (request, response, asker) => void response.json(await people.link(idOf(request), asker)),
    ),
  );
  router.put(
    '/:id/addresses/:address',
    route('administrator', async (request, response, asker) => {
      await addresses.confirm(idOf(request), addressOf(request), asker);
      response.status(204).end();
    }),
  );
  router.delete(
    '/:id/addresses/:address',
    route('administrator', async (request, response, asker) => {
      await addresses.remove(idOf(request), addressOf(request), asker);
      response.status(204).end();
    }),
  );
  router.patch(
    '/:id',
    route(
      'administrator',
      async (request, response, asker) =>
        void response.json(await people.change(idOf(request), parsed(changePersonSchema, request.body), asker)),
    ),
  );
  return router;
}
