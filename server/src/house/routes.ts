import { saveHouseSchema } from '@vocabula/contract';
import { Router } from 'express';
import { parsed, route } from '../http/problem.js';
import { askerOf } from '../people/service.js';
import type { HouseService } from './service.js';

export function houseRoutes(houses: HouseService): Router {
  const router = Router();
  router.get(
    '/',
    route(async (_request, response) => void response.json(await houses.get(askerOf()))),
  );
  router.put(
    '/',
    route(
      async (request, response) =>
        void response.json(await houses.save(parsed(saveHouseSchema, request.body), askerOf())),
    ),
  );
  router.get(
    '/file',
    route(
      async (_request, response) =>
        void response
          .attachment('house.yaml')
          .type('application/yaml; charset=utf-8')
          .send(await houses.file(askerOf())),
    ),
  );
  return router;
}
