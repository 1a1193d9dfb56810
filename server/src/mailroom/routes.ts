import { forwardSchema, letterDoneSchema } from '@vocabula/contract';
import { Router, type Request } from 'express';
import * as z from 'zod';
import { parsed } from '../http/problem.js';
import { route, sendJson } from '../http/route.js';
import type { Heavy } from '../workers/heavy.js';
import { bytesOf, file } from '../http/body.js';
import type { ClockService } from './clock.js';
import type { LetterService } from './service.js';

const MAILBOX_LIMIT = 30_000_000;
const idOf = (request: Request): string => parsed(z.string().max(60), request.params.id);
const inboxQuery = z.object({ done: z.enum(['true', 'false']).default('false') });

export function mailroomRoutes({
  letters,
  clock,
  heavy,
}: {
  readonly letters: LetterService;
  readonly clock: ClockService;
  readonly heavy: Heavy;
}): Router {
  const router = Router();
  router.get(
    '/letters',
    route('colleague', async (_request, response, asker) => void response.json(await letters.list(asker))),
  );
  router.get(
    '/letters/:id',
    route('colleague', async (request, response, asker) =>
      sendJson(response, await heavy.json('letters', 'get', [idOf(request), asker], asker.id)),
    ),
  );
  router.patch(
    '/letters/:id',
    route('colleague', async (request, response, asker) => {
      await letters.done(idOf(request), parsed(letterDoneSchema, request.body).done, asker);
      response.status(204).end();
    }),
  );
  router.get(
    '/inbox',
    route('colleague', async (request, response, asker) => {
      response.json(await letters.inbox(asker, parsed(inboxQuery, request.query).done === 'true'));
    }),
  );
  router.post(
    '/drop',
    route(
      'colleague',
      async (request, response, asker) => {
        response.status(201).json(await heavy.call('letters', 'drop', [bytesOf(request), asker], asker.id));
      },
      file(MAILBOX_LIMIT),
    ),
  );
  router.get(
    '/clock',
    route('colleague', async (_request, response) => void response.json(await clock.clock())),
  );
  router.post(
    '/clock',
    route('author', async (request, response) => {
      response.json(await clock.forward(parsed(forwardSchema, request.body).hours));
    }),
  );
  return router;
}
