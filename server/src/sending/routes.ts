import { changeOutgoingSchema } from '@vocabula/contract';
import { Router, type Request } from 'express';
import * as z from 'zod';
import { parsed } from '../http/problem.js';
import { route } from '../http/route.js';
import type { Outbox } from './outbox.js';

const idOf = (request: Request): string => parsed(z.string().max(60), request.params.id);

/** @param wake called when something may be due */
export function outgoingRoutes(outbox: Outbox, wake: () => void): Router {
  const router = Router();
  router.get(
    '/',
    route('colleague', async (_request, response, asker) => void response.json(await outbox.list(asker))),
  );
  router.get(
    '/service',
    route('colleague', async (_request, response, asker) => void response.json(await outbox.service(asker))),
  );
  router.get(
    '/:id',
    route('colleague', async (request, response, asker) => void response.json(await outbox.get(idOf(request), asker))),
  );
  router.patch(
    '/:id',
    route('colleague', async (request, response, asker) => {
      response.json(await outbox.change(idOf(request), parsed(changeOutgoingSchema, request.body), asker));
      wake();
    }),
  );
  return router;
}
