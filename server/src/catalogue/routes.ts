import { createTextSchema, importFilesSchema, nameSchema, saveTextSchema } from '@vocabula/contract';
import { Router, type Request } from 'express';
import * as z from 'zod';
import { parsed, route } from '../http/problem.js';
import { askerOf } from '../people/service.js';
import type { CatalogueService } from './service.js';

const searchSchema = z.object({ q: z.string().max(200).default('') });
const nameOf = (request: Request): string => parsed(nameSchema, request.params.name);

export function catalogueRoutes(catalogue: CatalogueService): Router {
  const router = Router();
  router.get(
    '/',
    route(async (_request, response) => void response.json(await catalogue.list(askerOf()))),
  );
  router.post(
    '/',
    route(
      async (request, response) =>
        void response.status(201).json(await catalogue.create(parsed(createTextSchema, request.body), askerOf())),
    ),
  );
  router.get(
    '/search',
    route(
      async (request, response) =>
        void response.json(await catalogue.search(parsed(searchSchema, request.query).q, askerOf())),
    ),
  );
  router.post(
    '/import',
    route(
      async (request, response) =>
        void response.json(await catalogue.import(parsed(importFilesSchema, request.body), askerOf())),
    ),
  );
  router.get(
    '/:name',
    route(async (request, response) => void response.json(await catalogue.get(nameOf(request), askerOf()))),
  );
  router.get(
    '/:name/closure',
    route(async (request, response) => void response.json(await catalogue.closure(nameOf(request), askerOf()))),
  );
  router.get(
    '/:name/file',
    route(async (request, response) => {
      const name = nameOf(request);
      const file = await catalogue.file(name, askerOf());
      response.attachment(`${name}.md`).type('text/markdown; charset=utf-8').send(file);
    }),
  );
  router.put(
    '/:name',
    route(
      async (request, response) =>
        void response.json(await catalogue.save(nameOf(request), parsed(saveTextSchema, request.body), askerOf())),
    ),
  );
  router.delete(
    '/:name',
    route(
      async (request, response) =>
        void response.status(204).send(await catalogue.bin(nameOf(request), true, askerOf())),
    ),
  );
  router.post(
    '/:name/restore',
    route(
      async (request, response) =>
        void response.status(204).send(await catalogue.bin(nameOf(request), false, askerOf())),
    ),
  );
  return router;
}
