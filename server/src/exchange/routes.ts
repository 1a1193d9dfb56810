import { takeLibrarySchema } from '@vocabula/contract';
import { Router, type Request, type RequestHandler } from 'express';
import multer from 'multer';
import * as z from 'zod';
import { parsed, RequestProblem, route } from '../http/problem.js';
import { bytesOf, rawFile } from '../http/raw.js';
import type { LibraryService } from './library.js';

/** The most that a packed library may have, in bytes. */
const LIMIT = 100_000_000;
const packSchema = z.object({
  folder: z.string().max(60).optional(),
  names: z
    .string()
    .max(200_000)
    .transform((list) => list.split(',').filter(Boolean))
    .optional(),
});

export function libraryRoutes(library: LibraryService): Router {
  const router = Router();
  router.get(
    '/zip',
    route('colleague', async (request, response, asker) => {
      const { folder, names } = parsed(packSchema, request.query);
      const packed = await library.pack({ ...(folder ? { folder } : {}), ...(names ? { names } : {}) }, asker);
      response.attachment('library.zip').type('application/zip').send(Buffer.from(packed));
    }),
  );
  router.post(
    '/look',
    rawFile(LIMIT),
    route(
      'author',
      async (request, response, asker) => void response.json(await library.look(bytesOf(request), asker)),
    ),
  );
  router.post(
    '/take',
    fileAndChoices,
    route('author', async (request, response, asker) => {
      response.json(await library.take(fileOf(request), parsed(takeLibrarySchema, choicesOf(request)), asker));
    }),
  );
  return router;
}

const upload = multer({
  storage: multer.memoryStorage(),
  limits: { fileSize: LIMIT, files: 1, fields: 1, fieldSize: 6_000_000 },
});

/** A form with the file, and the choices as JSON. */
const fileAndChoices: RequestHandler = (request, response, next) => {
  upload.single('file')(request, response, (problem: unknown) => {
    if (problem instanceof multer.MulterError)
      return next(
        problem.code === 'LIMIT_FILE_SIZE'
          ? new RequestProblem(413, 'too-large', 'This is larger than what is taken.')
          : new RequestProblem(400, 'bad-request', 'Send one file, and the choices.'),
      );
    next(problem);
  });
};

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
