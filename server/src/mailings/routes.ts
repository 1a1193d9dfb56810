import {
  addRecipientsSchema,
  changeMailedSchema,
  changeMailingSchema,
  driveMailingSchema,
  makeMailingSchema,
} from '@vocabula/contract';
import { Router, type Request } from 'express';
import * as z from 'zod';
import { json } from '../http/body.js';
import { parsed } from '../http/problem.js';
import { route, sendJson } from '../http/route.js';
import type { Heavy } from '../workers/heavy.js';
import type { MailingService } from './service.js';

const idOf = (request: Request, name: 'id' | 'row' = 'id'): string => parsed(z.string().max(60), request.params[name]);

/** @param wake called when something may be due */
export function mailingRoutes(mailings: MailingService, heavy: Heavy, wake: () => void): Router {
  const router = Router();
  router.get(
    '/',
    route('colleague', async (_request, response, asker) => void response.json(await mailings.list(asker))),
  );
  router.post(
    '/',
    route(
      'colleague',
      async (request, response, asker) =>
        void response.status(201).json(await mailings.make(parsed(makeMailingSchema, request.body), asker)),
    ),
  );
  router.get(
    '/:id',
    route(
      'colleague',
      async (request, response, asker) => void response.json(await mailings.get(idOf(request), asker)),
    ),
  );
  router.get(
    '/:id/progress',
    route(
      'colleague',
      async (request, response, asker) => void response.json(await mailings.progress(idOf(request), asker)),
    ),
  );
  router.get(
    '/:id/rows',
    route(
      'colleague',
      async (request, response, asker) => void response.json(await mailings.rows(idOf(request), asker)),
    ),
  );
  router.patch(
    '/:id',
    route(
      'colleague',
      async (request, response, asker) =>
        sendJson(
          response,
          await heavy.json(
            'mailings',
            'change',
            [idOf(request), parsed(changeMailingSchema, request.body), asker],
            asker.id,
          ),
        ),
      json(1_000_000),
    ),
  );
  router.post(
    '/:id/recipients',
    route(
      'colleague',
      async (request, response, asker) =>
        sendJson(
          response,
          await heavy.json(
            'mailings',
            'add',
            [idOf(request), parsed(addRecipientsSchema, request.body), asker],
            asker.id,
          ),
        ),
      json(2_000_000),
    ),
  );
  router.patch(
    '/:id/rows/:row',
    route(
      'colleague',
      async (request, response, asker) =>
        void response.json(
          await mailings.changeRow(
            idOf(request),
            idOf(request, 'row'),
            parsed(changeMailedSchema, request.body),
            asker,
          ),
        ),
      json(1_000_000),
    ),
  );
  router.post(
    '/:id/drive',
    route('colleague', async (request, response, asker) => {
      const args = [idOf(request), parsed(driveMailingSchema, request.body), asker] as const;
      // The first look at all messages is long; stopping waits behind nothing.
      const isLong = args[1].act === 'first';
      response.json(await (isLong ? heavy.call('mailings', 'drive', [...args], asker.id) : mailings.drive(...args)));
      wake();
    }),
  );
  return router;
}
