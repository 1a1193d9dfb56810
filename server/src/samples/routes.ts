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
import express, { Router, type Request, type Response } from 'express';
import * as z from 'zod';
import { parsed, route } from '../http/problem.js';
import { bytesOf, rawFile } from '../http/raw.js';
import type { Asker } from '../people/asker.js';
import type { TableService } from './service.js';

const TABLE_LIMIT = 60_000_000;
const idOf = (request: Request): string => parsed(z.string().max(60), request.params.id);

export function tableRoutes(tables: TableService): Router {
  const router = Router();
  const file = rawFile(TABLE_LIMIT);
  const json = express.json({ limit: '6mb' });
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
    file,
    route('author', async (request, response, asker) => {
      const { choices, into } = parsed(recogniseSchema, request.query);
      response.json(await tables.recognise(bytesOf(request), choices, into, asker));
    }),
  );
  router.post(
    '/',
    file,
    route('author', async (request, response, asker) => {
      const { use, title, accept, choices } = parsed(importTableSchema, request.query);
      const options = { accept: accept === 'true', choices };
      response.status(201).json(await tables.import(use, title, bytesOf(request), options, asker));
    }),
  );
  router.post(
    '/made',
    json,
    route(
      'author',
      async (request, response, asker) =>
        void response.status(201).json(await tables.make(parsed(makeTableSchema, request.body), asker)),
    ),
  );
  router.put(
    '/own/:name',
    json,
    route('author', async (request, response, asker) => {
      const text = parsed(nameSchema, request.params.name);
      await tables.own(text, parsed(ownSetSchema, request.body).table, asker);
      response.status(204).end();
    }),
  );
  router.get(
    '/:id',
    route('author', async (request, response, asker) => void response.json(await tables.get(idOf(request), asker))),
  );
  router.patch(
    '/:id',
    json,
    route(
      'author',
      async (request, response, asker) =>
        void response.json(await tables.change(idOf(request), parsed(changeTableSchema, request.body), asker)),
    ),
  );
  router.post(
    '/:id/rows',
    file,
    route(
      'author',
      async (request, response, asker) =>
        void response.json(
          await tables.addFile(idOf(request), bytesOf(request), parsed(addRowsSchema, request.query), asker),
        ),
    ),
  );
  router.post(
    '/:id/copy',
    json,
    route(
      'author',
      async (request, response, asker) =>
        void response.status(201).json(await tables.copy(idOf(request), parsed(copyTableSchema, request.body), asker)),
    ),
  );
  const saved =
    (as: 'csv' | 'json', type: string) =>
    async (request: Request, response: Response, asker: Asker): Promise<void> => {
      const { title, content } = await tables.file(idOf(request), as, asker);
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
