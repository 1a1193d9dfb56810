import { addAssetSchema, MAX_ASSET } from '@vocabula/contract';
import { Router } from 'express';
import { bytesOf, file } from '../http/body.js';
import { parsed } from '../http/problem.js';
import { route } from '../http/route.js';
import type { AssetService } from './service.js';

export function assetRoutes(assets: AssetService): Router {
  const router = Router();
  router.get(
    '/',
    route('colleague', async (_request, response, asker) => void response.json(await assets.list(asker))),
  );
  router.post(
    '/',
    route(
      'colleague',
      async (request, response, asker) => {
        const { name, exact } = parsed(addAssetSchema, request.query);
        response.status(201).json(await assets.add(name, bytesOf(request), exact === 'true', asker));
      },
      file(MAX_ASSET),
    ),
  );
  router.get(
    '/:file',
    route('colleague', async (request, response, asker) => {
      const { type, content } = await assets.content(`assets/${String(request.params.file)}`, asker);
      if (!type.startsWith('image/')) response.attachment(String(request.params.file));
      // Whatever a file is, it is shown as what it was found to be, and can do nothing.
      response
        .type(type)
        .set('content-security-policy', "default-src 'none'; sandbox")
        .set('cache-control', 'private, no-cache');
      response.send(content);
    }),
  );
  return router;
}
