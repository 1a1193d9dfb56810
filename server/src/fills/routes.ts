import { handOverSchema, saveFillSchema, startFillSchema } from '@vocabula/contract';
import { Router, type Request } from 'express';
import * as z from 'zod';
import { parsed, route } from '../http/problem.js';
import type { FillService } from './service.js';

const idOf = (request: Request): string => parsed(z.string().max(60), request.params.id);

export function fillRoutes(fills: FillService): Router {
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
    ),
  );
  router.post(
    '/:id/hand-over',
    route('colleague', async (request, response, asker) => {
      const { result, eml, name } = await fills.handOver(idOf(request), parsed(handOverSchema, request.body), asker);
      if (eml) response.attachment(name).type('message/rfc822').send(Buffer.from(eml));
      else response.json(result);
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
