import { addressSchema, doNotWriteSchema, forgetSchema } from '@vocabula/contract';
import { Router } from 'express';
import * as z from 'zod';
import { parsed } from '../http/problem.js';
import { route } from '../http/route.js';
import type { Heavy } from '../workers/heavy.js';
import type { TableService } from '../samples/service.js';
import type { RecipientService } from './service.js';

const querySchema = z.object({ q: z.string().max(200).default('') });
const addressQuery = z.object({ address: addressSchema });

export function recipientRoutes(recipients: RecipientService, tables: TableService, heavy: Heavy): Router {
  const router = Router();
  router.get(
    '/lists',
    route('colleague', async (_request, response, asker) => {
      response.json(await tables.list('recipients', asker));
    }),
  );
  router.get(
    '/',
    route(
      'colleague',
      async (request, response, asker) =>
        void response.json(await recipients.search(parsed(querySchema, request.query).q, asker)),
    ),
  );
  router.get(
    '/record',
    route(
      'colleague',
      async (request, response, asker) =>
        void response.json(await recipients.record(parsed(addressQuery, request.query).address, asker)),
    ),
  );
  router.post(
    '/forget',
    route(
      'author',
      async (request, response, asker) =>
        void response.json(
          await heavy.call('recipients', 'forget', [parsed(forgetSchema, request.body).address, asker], asker.id),
        ),
    ),
  );
  router.get(
    '/do-not-write',
    route('colleague', async (_request, response) => void response.json(await recipients.notWritten())),
  );
  router.put(
    '/do-not-write',
    route('colleague', async (request, response, asker) => {
      await recipients.refuse(parsed(doNotWriteSchema, request.body), asker);
      response.status(204).end();
    }),
  );
  router.delete(
    '/do-not-write',
    route('author', async (request, response, asker) => {
      await recipients.allow(parsed(addressQuery, request.query).address, asker);
      response.status(204).end();
    }),
  );
  return router;
}
