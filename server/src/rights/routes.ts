import { changeFolderSchema, makeFolderSchema } from '@vocabula/contract';
import { Router, type Request } from 'express';
import * as z from 'zod';
import { parsed } from '../http/problem.js';
import { route } from '../http/route.js';
import type { FolderService } from './folders.js';

const idOf = (request: Request): string => parsed(z.string().max(60), request.params.id);

export function folderRoutes(folders: FolderService): Router {
  const router = Router();
  router.get(
    '/',
    route('colleague', async (_request, response, asker) => void response.json(await folders.list(asker))),
  );
  router.post(
    '/',
    route(
      'author',
      async (request, response, asker) =>
        void response.status(201).json(await folders.make(parsed(makeFolderSchema, request.body), asker)),
    ),
  );
  router.get(
    '/:id/rights',
    route('author', async (request, response, asker) => void response.json(await folders.rights(idOf(request), asker))),
  );
  router.patch(
    '/:id',
    route('author', async (request, response, asker) => {
      await folders.change(idOf(request), parsed(changeFolderSchema, request.body), asker);
      response.status(204).end();
    }),
  );
  router.delete(
    '/:id',
    route('author', async (request, response, asker) => {
      await folders.remove(idOf(request), asker);
      response.status(204).end();
    }),
  );
  return router;
}
