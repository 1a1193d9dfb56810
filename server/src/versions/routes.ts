import {
  answerSchema,
  askSchema,
  becauseSchema,
  changeRemarkSchema,
  checkpointSchema,
  makeRemarkSchema,
  nameSchema,
  publishSchema,
  restoreStateSchema,
  retireSchema,
  subjectSchema,
} from '@vocabula/contract';
import { Router, type Request } from 'express';
import * as z from 'zod';
import { json } from '../http/body.js';
import { parsed } from '../http/problem.js';
import { route, sendJson } from '../http/route.js';
import type { Heavy } from '../workers/heavy.js';
import type { ImpactService } from './impact.js';
import type { RemarkService } from './remarks.js';
import type { RequestService } from './requests.js';
import type { VersionService } from './service.js';

const nameOf = (request: Request): string => parsed(subjectSchema, request.params.name);
const textOf = (request: Request): string => parsed(nameSchema, request.params.name);
const idOf = (request: Request): string => parsed(z.string().max(60), request.params.id);
const numberOf = (request: Request): number => parsed(z.coerce.number().int().min(1), request.params.number);

export function versionRoutes({
  versions,
  impact,
  remarks,
  heavy,
}: {
  readonly versions: VersionService;
  readonly impact: ImpactService;
  readonly remarks: RemarkService;
  readonly heavy: Heavy;
}): Router {
  const router = Router();
  router.get(
    '/:name',
    route(
      'colleague',
      async (request, response, asker) => void response.json(await versions.standing(nameOf(request), asker)),
    ),
  );
  router.get(
    '/:name/findings',
    route('author', async (request, response, asker) =>
      sendJson(response, await heavy.json('versions', 'findings', [nameOf(request), asker], asker.id)),
    ),
  );
  router.post(
    '/:name/publish',
    route(
      'author',
      async (request, response, asker) =>
        void response.json(
          await heavy.call(
            'versions',
            'publish',
            [nameOf(request), parsed(publishSchema, request.body), asker],
            asker.id,
          ),
        ),
    ),
  );
  router.delete(
    '/:name/timed/:id',
    route('author', async (request, response, asker) => {
      await versions.takeBack(nameOf(request), idOf(request), asker);
      response.status(204).end();
    }),
  );
  router.get(
    '/:name/states/:state',
    route(
      'colleague',
      async (request, response, asker) =>
        void response.json(
          await versions.state(nameOf(request), parsed(z.string().max(80), request.params.state), asker),
        ),
    ),
  );
  router.post(
    '/:name/restore',
    route('author', async (request, response, asker) =>
      sendJson(
        response,
        await heavy.json(
          'versions',
          'restore',
          [nameOf(request), parsed(restoreStateSchema, request.body), asker],
          asker.id,
        ),
      ),
    ),
  );
  router.post(
    '/:name/checkpoints',
    route('author', async (request, response, asker) => {
      await versions.checkpoint(textOf(request), parsed(checkpointSchema, request.body).reason, asker);
      response.status(204).end();
    }),
  );
  router.get(
    '/:name/versions/:number/sent',
    route(
      'author',
      async (request, response, asker) =>
        void response.json(await versions.sentFrom(nameOf(request), numberOf(request), asker)),
    ),
  );
  router.post(
    '/:name/versions/:number/withdraw',
    route('author', async (request, response, asker) => {
      await versions.withdraw(nameOf(request), numberOf(request), parsed(becauseSchema, request.body), asker);
      response.status(204).end();
    }),
  );
  router.put(
    '/:name/retired',
    route('author', async (request, response, asker) => {
      await versions.retire(textOf(request), parsed(retireSchema, request.body), asker);
      response.status(204).end();
    }),
  );
  router.delete(
    '/:name/retired',
    route('author', async (request, response, asker) => {
      await versions.retire(textOf(request), undefined, asker);
      response.status(204).end();
    }),
  );
  router.get(
    '/:name/dependents',
    route(
      'author',
      async (request, response, asker) => void response.json(await impact.dependents(nameOf(request), asker)),
    ),
  );
  router.get(
    '/:name/impact/:template',
    route('author', async (request, response, asker) => {
      const template = parsed(nameSchema, request.params.template);
      sendJson(response, await heavy.json('impact', 'impact', [nameOf(request), template, asker], asker.id));
    }),
  );
  router.get(
    '/:name/remarks',
    route('author', async (request, response, asker) => void response.json(await remarks.list(textOf(request), asker))),
  );
  router.post(
    '/:name/remarks',
    route(
      'author',
      async (request, response, asker) =>
        void response
          .status(201)
          .json(await remarks.make(textOf(request), parsed(makeRemarkSchema, request.body), asker)),
    ),
  );
  router.patch(
    '/:name/remarks/:id',
    route(
      'author',
      async (request, response, asker) =>
        void response.json(
          await remarks.change(textOf(request), idOf(request), parsed(changeRemarkSchema, request.body), asker),
        ),
    ),
  );
  return router;
}

export function requestRoutes(requests: RequestService): Router {
  const router = Router();
  router.get(
    '/',
    route('author', async (_request, response, asker) => void response.json(await requests.list(asker))),
  );
  router.post(
    '/for/:name',
    route(
      'author',
      async (request, response, asker) =>
        void response.status(201).json(await requests.ask(nameOf(request), parsed(askSchema, request.body), asker)),
      json(1_000_000),
    ),
  );
  router.post(
    '/:id/answer',
    route(
      'author',
      async (request, response, asker) =>
        void response.json(await requests.answer(idOf(request), parsed(answerSchema, request.body), asker)),
    ),
  );
  router.delete(
    '/:id',
    route('author', async (request, response, asker) => {
      await requests.takeBack(idOf(request), asker);
      response.status(204).end();
    }),
  );
  return router;
}
