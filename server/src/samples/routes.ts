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
import { askerOf } from '../people/service.js';
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
      async (request, response) =>
        void response.json(await tables.list(parsed(listTablesSchema, request.query).use, askerOf())),
    ),
  );
  router.post(
    '/recognise',
    file,
    route(async (request, response) => {
      const { choices, into } = parsed(recogniseSchema, request.query);
      response.json(await tables.recognise(bytesOf(request), choices, into, askerOf()));
    }),
  );
  router.post(
    '/',
    file,
    route(async (request, response) => {
      const { use, title, accept, choices } = parsed(importTableSchema, request.query);
      const options = { accept: accept === 'true', choices };
      response.status(201).json(await tables.import(use, title, bytesOf(request), options, askerOf()));
    }),
  );
  router.post(
    '/made',
    json,
    route(
      async (request, response) =>
        void response.status(201).json(await tables.make(parsed(makeTableSchema, request.body), askerOf())),
    ),
  );
  router.put(
    '/own/:name',
    json,
    route(async (request, response) => {
      const text = parsed(nameSchema, request.params.name);
      await tables.own(text, parsed(ownSetSchema, request.body).table, askerOf());
      response.status(204).end();
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
  router.patch(
    '/:id',
    json,
    route(
      async (request, response) =>
        void response.json(await tables.change(idOf(request), parsed(changeTableSchema, request.body), askerOf())),
    ),
  );
  router.post(
    '/:id/rows',
    file,
    route(
      async (request, response) =>
        void response.json(
          await tables.addFile(idOf(request), bytesOf(request), parsed(addRowsSchema, request.query), askerOf()),
        ),
    ),
  );
  router.post(
    '/:id/copy',
    json,
    route(
      async (request, response) =>
        void response
          .status(201)
          .json(await tables.copy(idOf(request), parsed(copyTableSchema, request.body), askerOf())),
    ),
  );
  const saved =
    (as: 'csv' | 'json', type: string) =>
    async (request: Request, response: Response): Promise<void> => {
      const { title, content } = await tables.file(idOf(request), as, askerOf());
      response
        .attachment(`${title.replace(/[^\p{L}\p{N} _-]/gu, '')}.${as}`)
        .type(`${type}; charset=utf-8`)
        .send(content);
    };
  router.get('/:id/csv', route(saved('csv', 'text/csv')));
  router.get('/:id/json', route(saved('json', 'application/json')));
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
