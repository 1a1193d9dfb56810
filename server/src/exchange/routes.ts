import { packLibrarySchema, takeLibrarySchema } from '@vocabula/contract';
import { Router, type Request } from 'express';
import { parsed, RequestProblem } from '../http/problem.js';
import { route, sendJson } from '../http/route.js';
import { bytesOf, file, form, json } from '../http/body.js';
import type { Heavy } from '../workers/heavy.js';

/** The most that a packed library may have, in bytes. */
const LIMIT = 50_000_000;
export function libraryRoutes(heavy: Heavy): Router {
  const router = Router();
  // It is noted in the trail, so it is no GET: reading writes nothing there.
  router.post(
    '/zip',
    route(
      'colleague',
      async (request, response, asker) => {
        const { folder, names } = parsed(packLibrarySchema, request.body);
        const of = { ...(folder ? { folder } : {}), ...(names ? { names } : {}) };
        const packed = await heavy.call('library', 'pack', [of, asker], asker.id);
        response.attachment('library.zip').type('application/zip').send(Buffer.from(packed));
      },
      json(1_000_000),
    ),
  );
  router.post(
    '/look',
    route(
      'author',
      async (request, response, asker) =>
        void sendJson(response, await heavy.json('library', 'look', [bytesOf(request), asker], asker.id)),
      file(LIMIT),
    ),
  );
  router.post(
    '/take',
    route(
      'author',
      async (request, response, asker) => {
        const args = [fileOf(request), parsed(takeLibrarySchema, choicesOf(request)), asker] as const;
        sendJson(response, await heavy.json('library', 'take', [...args], asker.id));
      },
      fileAndChoices,
    ),
  );
  return router;
}

/** A form with the file, and the choices as JSON. */
const fileAndChoices = form(LIMIT, 2_000_000);

function fileOf(request: Request): Uint8Array {
  if (!request.file) throw new RequestProblem(400, 'bad-request', 'Send the file as “file” of a form.');
  return request.file.buffer;
}

function choicesOf(request: Request): unknown {
  const { choices } = (request.body ?? {}) as { choices?: unknown };
  try {
    return JSON.parse(String(choices)) as unknown;
  } catch {
    throw new RequestProblem(400, 'bad-request', 'Send the choices as JSON.');
  }
}
