import { lookedAtSchema, nameSchema, sendProofSchema, setAsideSchema } from '@vocabula/contract';
import { Router, type Request } from 'express';
import * as z from 'zod';
import { json } from '../http/body.js';
import { parsed } from '../http/problem.js';
import { route } from '../http/route.js';
import type { ProofService } from './service.js';

const textOf = (request: Request): string => parsed(nameSchema, request.params.name);
const digestOf = (request: Request): string => parsed(z.string().max(64), request.params.digest);

export function proofRoutes(proofs: ProofService): Router {
  const router = Router();
  router.get(
    '/:name',
    route(
      'author',
      async (request, response, asker) => void response.json(await proofs.record(textOf(request), asker)),
    ),
  );
  router.post(
    '/:name/looked-at',
    route('author', async (request, response, asker) => {
      await proofs.look(textOf(request), parsed(lookedAtSchema, request.body), asker);
      response.status(204).end();
    }),
  );
  router.delete(
    '/:name/looked-at/:digest',
    route('author', async (request, response, asker) => {
      await proofs.unlook(textOf(request), digestOf(request), asker);
      response.status(204).end();
    }),
  );
  router.post(
    '/:name/set-aside',
    route('author', async (request, response, asker) => {
      await proofs.setAside(textOf(request), parsed(setAsideSchema, request.body), asker);
      response.status(204).end();
    }),
  );
  router.delete(
    '/:name/set-aside/:digest',
    route('author', async (request, response, asker) => {
      await proofs.bringBack(textOf(request), digestOf(request), asker);
      response.status(204).end();
    }),
  );
  router.post(
    '/:name/send',
    route(
      'author',
      async (request, response, asker) =>
        void response.json(await proofs.send(textOf(request), parsed(sendProofSchema, request.body), asker)),
      json(2_000_000),
    ),
  );
  return router;
}
