import { handOverSchema, saveFillSchema, startFillSchema, stitchSchema, suggestSchema } from '@vocabula/contract';
import { Router, type Request } from 'express';
import * as z from 'zod';
import { parsed } from '../http/problem.js';
import { route } from '../http/route.js';
import { bytesOf, file, json } from '../http/body.js';
import type { HandOverService } from './handing-over.js';
import type { FillService } from './service.js';

const MAIL_LIMIT = 30_000_000;
const addressQuery = z.object({ address: z.string().max(320).default('') });

const idOf = (request: Request): string => parsed(z.string().max(60), request.params.id);

/** @param wake called when something may be due */
export function fillRoutes(fills: FillService, handOvers: HandOverService, wake: () => void): Router {
  const router = Router();
  router.get(
    '/',
    route('colleague', async (_request, response, asker) => void response.json(await fills.list(asker))),
  );
  router.post(
    '/',
    route(
      'colleague',
      async (request, response, asker) =>
        void response.status(201).json(await fills.start(parsed(startFillSchema, request.body), asker)),
      json(1_000_000),
    ),
  );
  router.post(
    '/read',
    route(
      'colleague',
      async (request, response, asker) => void response.json(await fills.readOriginal(bytesOf(request), asker)),
      file(MAIL_LIMIT),
    ),
  );
  router.get(
    '/read/:letter',
    route(
      'colleague',
      async (request, response, asker) =>
        void response.json(await fills.readLetter(parsed(z.string().max(60), request.params.letter), asker)),
    ),
  );
  router.get(
    '/:id',
    route('colleague', async (request, response, asker) => void response.json(await fills.get(idOf(request), asker))),
  );
  router.put(
    '/:id',
    route(
      'colleague',
      async (request, response, asker) =>
        void response.json(await fills.save(idOf(request), parsed(saveFillSchema, request.body), asker)),
      json(1_000_000),
    ),
  );
  router.get(
    '/:id/memory',
    route('colleague', async (request, response, asker) => {
      response.json(await fills.memory(idOf(request), parsed(addressQuery, request.query).address, asker));
    }),
  );
  router.get(
    '/:id/newest',
    route(
      'colleague',
      async (request, response, asker) => void response.json(await fills.newest(idOf(request), asker)),
    ),
  );
  router.post(
    '/:id/parts',
    route(
      'colleague',
      async (request, response, asker) =>
        void response.status(201).json(await fills.stitch(idOf(request), parsed(stitchSchema, request.body), asker)),
    ),
  );
  router.post(
    '/:id/suggest',
    route('colleague', async (request, response, asker) => {
      await fills.suggest(idOf(request), parsed(suggestSchema, request.body), asker);
      response.status(204).end();
    }),
  );
  router.post(
    '/:id/hand-over',
    route('colleague', async (request, response, asker) => {
      const given = parsed(handOverSchema, request.body);
      const { result, file } = await handOvers.handOver(idOf(request), given, asker);
      if (given.way === 'service') wake();
      if (!file) response.json(result);
      else response.attachment(file.name).type(file.type).send(Buffer.from(file.content));
    }),
  );
  router.delete(
    '/:id',
    route(
      'colleague',
      async (request, response, asker) => void response.status(204).send(await fills.bin(idOf(request), true, asker)),
    ),
  );
  router.post(
    '/:id/restore',
    route(
      'colleague',
      async (request, response, asker) => void response.status(204).send(await fills.bin(idOf(request), false, asker)),
    ),
  );
  return router;
}
