import { packLibrarySchema, takeLibrarySchema } from '@vocabula/contract';
import { Router, type Request } from 'express';
import { parsed, RequestProblem } from '../http/problem.js';
import { route } from '../http/route.js';
import { bytesOf, file, form, json } from '../http/body.js';
import type { LibraryService } from './library.js';

/** The most that a packed library may have, in bytes. */
const LIMIT = 50_000_000;
export function libraryRoutes(library: LibraryService): Router {
  const router = Router();
  // It is noted in the trail, so it is no GET: reading writes nothing there.
  router.post(
    '/zip',
    route(
      'colleague',
      async (request, response, asker) => {
        const { folder, names } = parsed(packLibrarySchema, request.body);
        const packed = await library.pack({ ...(folder ? { folder } : {}), ...(names ? { names } : {}) }, asker);
        response.attachment('library.zip').type('application/zip').send(Buffer.from(packed));
      },
      json(1_000_000),
    ),
  );
  router.post(
    '/look',
    route(
      'author',
      async (request, response, asker) => void response.json(await library.look(bytesOf(request), asker)),
      file(LIMIT),
    ),
  );
  router.post(
    '/take',
    route(
      'author',
      async (request, response, asker) => {
        response.json(await library.take(fileOf(request), parsed(takeLibrarySchema, choicesOf(request)), asker));
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
