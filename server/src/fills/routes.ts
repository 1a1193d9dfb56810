import { handOverSchema, saveFillSchema, startFillSchema } from '@vocabula/contract';
import { Router, type Request } from 'express';
import * as z from 'zod';
import { parsed, route } from '../http/problem.js';
import { askerOf } from '../people/service.js';
import type { FillService } from './service.js';

const idOf = (request: Request): string => parsed(z.string().max(60), request.params.id);

export function fillRoutes(fills: FillService): Router {
  const router = Router();
  router.get(
    '/',
    route(async (_request, response) => void response.json(await fills.list(askerOf()))),
  );
  router.post(
    '/',
    route(
      async (request, response) =>
        void response.status(201).json(await fills.start(parsed(startFillSchema, request.body), askerOf())),
    ),
  );
  router.get(
    '/:id',
    route(async (request, response) => void response.json(await fills.get(idOf(request), askerOf()))),
  );
  router.put(
    '/:id',
    route(
      async (request, response) =>
        void response.json(await fills.save(idOf(request), parsed(saveFillSchema, request.body), askerOf())),
    ),
  );
  router.post(
    '/:id/hand-over',
    route(async (request, response) => {
      const { result, eml, name } = await fills.handOver(
        idOf(request),
        parsed(handOverSchema, request.body),
        askerOf(),
      );
      if (eml) response.attachment(name).type('message/rfc822').send(Buffer.from(eml));
      else response.json(result);
    }),
  );
  router.delete(
    '/:id',
    route(async (request, response) => void response.status(204).send(await fills.bin(idOf(request), true, askerOf()))),
  );
  router.post(
    '/:id/restore',
    route(
      async (request, response) => void response.status(204).send(await fills.bin(idOf(request), false, askerOf())),
    ),
  );
  return router;
}
