import { createTextSchema, importFilesSchema, manySchema, nameSchema, saveTextSchema } from '@vocabula/contract';
import { Router, type Request } from 'express';
import * as z from 'zod';
import { json } from '../http/body.js';
import { parsed } from '../http/problem.js';
import { route, sendJson } from '../http/route.js';
import type { Heavy } from '../workers/heavy.js';
import type { SearchService } from './search.js';
import type { CatalogueService } from './service.js';
import type { UseService } from './uses.js';

const purpose = z.enum(['fill', 'write']);
const searchSchema = z.object({
  q: z.string().max(200).default(''),
  for: purpose.default('fill'),
  /** The address of who is written to: what went to them comes first. */
  to: z.string().max(320).default(''),
});
const closureSchema = z.object({ for: purpose.default('write') });
const targetSchema = z.union([nameSchema, z.string().regex(/^house\.yaml\/[a-z][a-z0-9_]{0,79}$/)]);
/** Bytes and values of a document as JSON: what a text within its bounds comes to. */
const [DOCUMENT_BYTES, DOCUMENT_VALUES] = [1_500_000, 120_000];
const LIMIT = { fill: 12, write: 200 } as const;
const nameOf = (request: Request): string => parsed(nameSchema, request.params.name);

export function catalogueRoutes({
  catalogue,
  search,
  uses,
  heavy,
}: {
  readonly catalogue: CatalogueService;
  readonly search: SearchService;
  readonly uses: UseService;
  readonly heavy: Heavy;
}): Router {
  const router = Router();
  router.get(
    '/',
    route('colleague', async (_request, response, asker) => void response.json(await catalogue.list(asker))),
  );
  router.post(
    '/',
    route(
      'author',
      async (request, response, asker) =>
        void response
          .status(201)
          .json(await heavy.call('catalogue', 'create', [parsed(createTextSchema, request.body), asker], asker.id)),
      json(DOCUMENT_BYTES, DOCUMENT_VALUES),
    ),
  );
  router.get(
    '/search',
    route('colleague', async (request, response, asker) => {
      const { q, for: wanted, to } = parsed(searchSchema, request.query);
      response.json(await search.search(q, asker, { purpose: wanted, limit: LIMIT[wanted], to }));
    }),
  );
  router.get(
    '/alike',
    route('author', async (_request, response, asker) =>
      sendJson(response, await heavy.json('alike', 'groups', [asker], asker.id)),
    ),
  );
  router.get(
    '/neighbours',
    route('colleague', async (request, response, asker) => {
      const { of } = parsed(z.object({ of: targetSchema }), request.query);
      response.json(await uses.neighbours(of, asker));
    }),
  );
  router.post(
    '/import',
    route(
      'author',
      async (request, response, asker) =>
        sendJson(
          response,
          await heavy.json('files', 'import', [parsed(importFilesSchema, request.body), asker], asker.id),
        ),
      json(4_000_000),
    ),
  );
  router.post(
    '/many',
    route(
      'author',
      async (request, response, asker) => {
        await catalogue.many(parsed(manySchema, request.body), asker);
        response.status(204).end();
      },
      json(1_000_000),
    ),
  );
  router.get(
    '/:name',
    route(
      'colleague',
      async (request, response, asker) => void response.json(await catalogue.get(nameOf(request), asker)),
    ),
  );
  router.get(
    '/:name/closure',
    route(
      'colleague',
      async (request, response, asker) =>
        void response.json(await catalogue.closure(nameOf(request), asker, parsed(closureSchema, request.query).for)),
    ),
  );
  router.get(
    '/:name/file',
    route('colleague', async (request, response, asker) => {
      const name = nameOf(request);
      const file = await catalogue.file(name, asker);
      response.attachment(`${name}.md`).type('text/markdown; charset=utf-8').send(file);
    }),
  );
  router.put(
    '/:name',
    route(
      'colleague',
      async (request, response, asker) =>
        sendJson(
          response,
          await heavy.json(
            'catalogue',
            'save',
            [nameOf(request), parsed(saveTextSchema, request.body), asker],
            asker.id,
          ),
        ),
      json(DOCUMENT_BYTES, DOCUMENT_VALUES),
    ),
  );
  router.delete(
    '/:name',
    route('colleague', async (request, response, asker) => {
      await catalogue.bin(nameOf(request), true, asker);
      response.status(204).end();
    }),
  );
  router.post(
    '/:name/restore',
    route('colleague', async (request, response, asker) => {
      await catalogue.bin(nameOf(request), false, asker);
      response.status(204).end();
    }),
  );
  return router;
}
