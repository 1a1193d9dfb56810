import { importTableSchema, listTablesSchema } from '@vocabula/contract';
import { Router, type Request } from 'express';
import * as z from 'zod';
import { parsed, route } from '../http/problem.js';
import { bytesOf, rawFile } from '../http/raw.js';
import { askerOf } from '../people/service.js';
import type { TableService } from './service.js';

const TABLE_LIMIT = 20_000_000;
const idOf = (request: Request): string => parsed(z.string().max(60), request.params.id);

export function tableRoutes(tables: TableService): Router {
  const router = Router();
  const file = rawFile(TABLE_LIMIT);
  router.get(
    '/',
    route(
      async (request, response) =>
        void response.json(await tables.list(parsed(listTablesSchema, request.query).use, askerOf())),
    ),
  );
  router.post(
    '/recognise',
    file,
    route((request, response) => void response.json(tables.recognise(bytesOf(request)))),
  );
  router.post(
    '/',
    file,
    route(async (request, response) => {
      const { use, title, accept } = parsed(importTableSchema, request.query);
      response.status(201).json(await tables.import(use, title, bytesOf(request), accept === 'true', askerOf()));
    }),
  );
  router.get(
    '/recipients',
    route(
      async (request, response) =>
        void response.json(
          await tables.recipients(parsed(z.object({ q: z.string().max(200).default('') }), request.query).q, askerOf()),
        ),
    ),
  );
  router.get(
    '/:id',
    route(async (request, response) => void response.json(await tables.get(idOf(request), askerOf()))),
  );
  router.get(
    '/:id/csv',
    route(async (request, response) => {
      const { title, csv } = await tables.csv(idOf(request), askerOf());
      response
        .attachment(`${title.replace(/[^\p{L}\p{N} _-]/gu, '')}.csv`)
        .type('text/csv; charset=utf-8')
        .send(csv);
    }),
  );
  router.delete(
    '/:id',
    route(
      async (request, response) => void response.status(204).send(await tables.bin(idOf(request), true, askerOf())),
    ),
  );
  router.post(
    '/:id/restore',
    route(
      async (request, response) => void response.status(204).send(await tables.bin(idOf(request), false, askerOf())),
    ),
  );
  return router;
}
