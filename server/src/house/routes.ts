import { saveHouseSchema } from '@vocabula/contract';
import { Router } from 'express';
import { json } from '../http/body.js';
import { parsed } from '../http/problem.js';
import { route } from '../http/route.js';
import type { HouseService } from './service.js';

export function houseRoutes(houses: HouseService): Router {
  const router = Router();
  router.get(
    '/',
    route('colleague', async (_request, response, asker) => void response.json(await houses.get(asker))),
  );
  router.put(
    '/',
    route(
      'author',
      async (request, response, asker) =>
        void response.json(await houses.save(parsed(saveHouseSchema, request.body), asker)),
      json(1_000_000),
    ),
  );
  router.get(
    '/file',
    route(
      'colleague',
      async (_request, response, asker) =>
        void response
          .attachment('house.yaml')
          .type('application/yaml; charset=utf-8')
          .send(await houses.file(asker)),
    ),
  );
  return router;
}
