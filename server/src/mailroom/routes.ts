import { Router } from 'express';
import * as z from 'zod';
import { parsed, route } from '../http/problem.js';
import { askerOf } from '../people/service.js';
import type { LetterService } from './service.js';

export function mailroomRoutes(letters: LetterService): Router {
  const router = Router();
  router.get(
    '/letters',
    route(async (_request, response) => void response.json(await letters.list(askerOf()))),
  );
  router.get(
    '/letters/:id',
    route(
      async (request, response) =>
        void response.json(await letters.get(parsed(z.string().max(60), request.params.id), askerOf())),
    ),
  );
  return router;
}
