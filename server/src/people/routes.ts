import { profileSchema } from '@vocabula/contract';
import { Router } from 'express';
import { parsed, route } from '../http/problem.js';
import { askerOf, type PeopleService } from './service.js';

export function peopleRoutes(people: PeopleService): Router {
  const router = Router();
  router.get(
    '/me',
    route(async (_request, response) => void response.json(await people.profile(askerOf()))),
  );
  router.put(
    '/me',
    route(
      async (request, response) =>
        void response.json(await people.save(askerOf(), parsed(profileSchema, request.body))),
    ),
  );
  return router;
}
