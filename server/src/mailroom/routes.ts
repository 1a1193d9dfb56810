import { Router } from 'express';
import * as z from 'zod';
import { parsed, route } from '../http/problem.js';
import type { LetterService } from './service.js';

export function mailroomRoutes(letters: LetterService): Router {
  const router = Router();
  router.get(
    '/letters',
    route('author', async (_request, response, asker) => void response.json(await letters.list(asker))),
  );
  router.get(
    '/letters/:id',
    route(
      'author',
      async (request, response, asker) =>
        void response.json(await letters.get(parsed(z.string().max(60), request.params.id), asker)),
    ),
  );
  return router;
}
