import {
  addRowsSchema,
  changeTableSchema,
  copyTableSchema,
  importTableSchema,
  listTablesSchema,
  makeTableSchema,
  nameSchema,
  ownSetSchema,
  recogniseSchema,
} from '@vocabula/contract';
import { Router, type Request, type Response } from 'express';
import * as z from 'zod';
import { parsed } from '../http/problem.js';
import { route, sendJson } from '../http/route.js';
import type { Heavy } from '../workers/heavy.js';
import { bytesOf, file, json } from '../http/body.js';
import type { Asker } from '../people/asker.js';
import type { TableService } from './service.js';

/** Bytes of a table's file, and of changes made to one at once. */
const TABLE_LIMIT = 20_000_000;
const CHANGES_LIMIT = 2_000_000;
const idOf = (request: Request): string => parsed(z.string().max(60), request.params.id);

export function tableRoutes(tables: TableService, heavy: Heavy): Router {
  const router = Router();
  const received = file(TABLE_LIMIT);
  const changes = json(CHANGES_LIMIT);
  router.get(
    '/',
    route(
      'author',
      async (request, response, asker) =>
        void response.json(await tables.list(parsed(listTablesSchema, request.query).use, asker)),
    ),
  );
  router.post(
    '/recognise',
    route(
      'author',
      async (request, response, asker) => {
        const { choices, into } = parsed(recogniseSchema, request.query);
        sendJson(response, await heavy.json('tables', 'recognise', [bytesOf(request), choices, into, asker], asker.id));
      },
      received,
    ),
  );
  router.post(
    '/',
    route(
      'author',
      async (request, response, asker) => {
        const { use, title, accept, choices } = parsed(importTableSchema, request.query);
        const options = { accept: accept === 'true', choices };
        const args = [use, title, bytesOf(request), options, asker] as const;
        response.status(201).json(await heavy.call('tables', 'import', [...args], asker.id));
      },
      received,
    ),
  );
  router.post(
    '/made',
    route(
      'author',
      async (request, response, asker) =>
        void response
          .status(201)
          .json(await heavy.call('tables', 'make', [parsed(makeTableSchema, request.body), asker], asker.id)),
      changes,
    ),
  );
  router.put(
    '/own/:name',
    route(
      'author',
      async (request, response, asker) => {
        const text = parsed(nameSchema, request.params.name);
        await tables.own(text, parsed(ownSetSchema, request.body).table, asker);
        response.status(204).end();
      },
      changes,
    ),
  );
  router.get(
    '/:id',
    route('author', async (request, response, asker) =>
      sendJson(response, await heavy.json('tables', 'get', [idOf(request), asker], asker.id)),
    ),
  );
  router.patch(
    '/:id',
    route(
      'author',
      async (request, response, asker) =>
        void response.json(
          await heavy.call(
            'tables',
            'change',
            [idOf(request), parsed(changeTableSchema, request.body), asker],
            asker.id,
          ),
        ),
      changes,
    ),
  );
  router.post(
    '/:id/rows',
    route(
      'author',
      async (request, response, asker) =>
        void response.json(
          await heavy.call(
            'tables',
            'addFile',
            [idOf(request), bytesOf(request), parsed(addRowsSchema, request.query), asker],
            asker.id,
          ),
        ),
      received,
    ),
  );
  router.post(
    '/:id/copy',
    route(
      'author',
      async (request, response, asker) =>
        void response
          .status(201)
          .json(
            await heavy.call('tables', 'copy', [idOf(request), parsed(copyTableSchema, request.body), asker], asker.id),
          ),
      changes,
    ),
  );
  const saved =
    (as: 'csv' | 'json', type: string) =>
    async (request: Request, response: Response, asker: Asker): Promise<void> => {
      const { title, content } = await heavy.call('tables', 'file', [idOf(request), as, asker], asker.id);
      response
        .attachment(`${title.replace(/[^\p{L}\p{N} _-]/gu, '')}.${as}`)
        .type(`${type}; charset=utf-8`)
        .send(content);
    };
  router.get('/:id/csv', route('author', saved('csv', 'text/csv')));
  router.get('/:id/json', route('author', saved('json', 'application/json')));
  router.delete(
    '/:id',
    route(
      'author',
      async (request, response, asker) => void response.status(204).send(await tables.bin(idOf(request), true, asker)),
    ),
  );
  router.post(
    '/:id/restore',
    route(
      'author',
      async (request, response, asker) => void response.status(204).send(await tables.bin(idOf(request), false, asker)),
    ),
  );
  return router;
}
