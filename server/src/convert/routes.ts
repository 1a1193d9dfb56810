import { convertSchema } from '@vocabula/contract';
import { Router } from 'express';
import { parsed } from '../http/problem.js';
import { route } from '../http/route.js';
import { bytesOf, file } from '../http/body.js';
import type { ConvertService } from './service.js';
import { starters } from './starters.js';

const FILE_LIMIT = 30_000_000;

export function convertRoutes(converter: ConvertService): Router {
  const router = Router();
  router.get(
    '/starters',
    route('author', (_request, response) => void response.json(starters())),
  );
  router.post(
    '/convert',
    route(
      'author',
      async (request, response, asker) =>
        void response.json(await converter.convert(parsed(convertSchema, request.query).name, bytesOf(request), asker)),
      file(FILE_LIMIT),
    ),
  );
  return router;
}
