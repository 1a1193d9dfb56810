/** The application: safety first, then one router a subject, then the pages. */
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import express, { type Express, type RequestHandler } from 'express';
import helmet from 'helmet';
import { type Logger } from 'pino';
import { programHandlers } from '../api/handlers.js';
import { assetHandlers } from '../assets/handlers.js';
import { auditHandlers } from '../audit/handlers.js';
import { insightHandlers } from '../insight/handlers.js';
import { catalogueHandlers } from '../catalogue/handlers.js';
import { convertHandlers } from '../convert/handlers.js';
import { libraryHandlers } from '../exchange/handlers.js';
import { fillHandlers } from '../fills/handlers.js';
import { houseHandlers } from '../house/handlers.js';
import { mailingHandlers } from '../mailings/handlers.js';
import { seriesHandlers } from '../series/handlers.js';
import { standingHandlers } from '../standing-replies/handlers.js';
import { webhookHandlers } from '../webhooks/handlers.js';
import { mailroomHandlers } from '../mailroom/handlers.js';
import { doorHandlers, meHandlers, peopleHandlers } from '../people/handlers.js';
import { proofHandlers } from '../proofs/handlers.js';
import { recipientHandlers } from '../recipients/handlers.js';
import { folderHandlers } from '../rights/handlers.js';
import { tableHandlers } from '../samples/handlers.js';
import { outgoingHandlers } from '../sending/handlers.js';
import { languageHandlers } from '../languages/handlers.js';
import { requestHandlers, versionHandlers } from '../versions/handlers.js';
import type { Door } from '@vocabula/contract';
import { countingRoutes } from '../sending/counting.js';
import { loggedPath } from './log.js';
import { problems, RequestProblem } from './problem.js';
import { endpointRouter, type Handlers } from './endpoints.js';
import { identified, keyHolder } from './session.js';
import type { Services } from '../services.js';
import { PLACES } from '../places.js';

export interface AppOptions {
  /** The folder of the built pages. */
  readonly pages?: string;
  /** Accounts that the sign-in page lists to pick from. */
  readonly demo?: Door['demo'];
  /** The proxies before this server, as Express takes them: only what they say of a request’s origin is believed. */
  readonly trustProxy?: boolean | number | string;
  /** Holds every answer to its schema: for tests. */
  readonly checked?: boolean;
}

export function makeApp(
  services: Services,
  log: Logger,
  { pages = PLACES.pages, demo = [], trustProxy = false, checked = false }: AppOptions = {},
): Express {
  const app = express();
  app.disable('x-powered-by');
  // Private answers are never kept, so nothing is gained by telling whether they changed.
  app.set('etag', false);
  app.set('trust proxy', trustProxy);
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        // Styles may be inline, since messages are; code never is.
        directives: {
          'default-src': ["'self'"],
          'script-src': ["'self'"],
          'style-src': ["'self'", "'unsafe-inline'"],
          'img-src': ["'self'", 'data:', 'blob:'],
          'font-src': ["'self'"],
          'object-src': ["'none'"],
          'base-uri': ["'none'"],
          'form-action': ["'self'"],
          // Mail is shown in frames that hold their words themselves: nothing, and no page of ours, is framed by address.
          'frame-src': ["'none'"],
          'frame-ancestors': ["'none'"],
          'worker-src': ["'self'"],
        },
      },
      strictTransportSecurity: false,
    }),
  );
  app.use('/counted', countingRoutes(services.database));
  app.use(logged(log), sameOrigin, identified(services.sessions));
  app.use('/api', (_request, response, next) => {
    // Answers are for who asked, and for now.
    response.set('cache-control', 'no-store');
    next();
  });
  app.use('/api', endpointRouter(handlersOf(services, demo), { keyHolder: keyHolder(services.keys), checked }));
  app.use('/api', () => {
    throw new RequestProblem(404, 'not-found', 'There is nothing at this address.');
  });
  if (existsSync(pages)) {
    app.use('/assets', express.static(join(pages, 'assets'), { immutable: true, maxAge: '1y' }));
    app.use('/assets', (_request, response) => void response.status(404).type('text').send('There is no such file.'));
    app.use(express.static(pages, { index: false }));
    app.get(/.*/, (_request, response) => response.sendFile(join(pages, 'index.html')));
  }
  app.use(problems(log, services.database));
  return app;
}

/** What answers each endpoint of the table. */
const handlersOf = (services: Services, demo: Door['demo']): Handlers => ({
  'GET /health': ({ response }) => {
    const { trouble } = services.database;
    if (trouble === undefined) return { ok: true };
    response.status(503);
    return { ok: false, why: trouble };
  },
  ...assetHandlers(services),
  ...auditHandlers(services),
  ...insightHandlers(services),
  ...catalogueHandlers(services),
  ...convertHandlers(services),
  ...doorHandlers(services, demo),
  ...fillHandlers(services),
  ...folderHandlers(services),
  ...houseHandlers(services),
  ...libraryHandlers(services),
  ...mailingHandlers(services),
  ...seriesHandlers(services),
  ...standingHandlers(services),
  ...webhookHandlers(services),
  ...mailroomHandlers(services),
  ...meHandlers(services),
  ...outgoingHandlers(services),
  ...peopleHandlers(services),
  ...programHandlers(services),
  ...proofHandlers(services),
  ...recipientHandlers(services),
  ...requestHandlers(services),
  ...tableHandlers(services),
  ...languageHandlers(services),
  ...versionHandlers(services),
});

/** Requests that change something must come from our own pages. */
const sameOrigin: RequestHandler = (request, _response, next) => {
  const origin = request.get('origin');
  const changes = !['GET', 'HEAD', 'OPTIONS'].includes(request.method);
  let host: string | undefined;
  try {
    host = origin === undefined ? undefined : new URL(origin).host;
  } catch {
    host = '';
  }
  const foreign = (host !== undefined && host !== request.host) || request.get('sec-fetch-site') === 'cross-site';
  if (changes && foreign) throw new RequestProblem(403, 'foreign-origin', 'This request came from another site.');
  next();
};

function logged(log: Logger): RequestHandler {
  return (request, response, next) => {
    const start = performance.now();
    // Routers that are mounted change the path while they have the request.
    const path = loggedPath(request.path);
    response.on('finish', () =>
      log.info(
        {
          method: request.method,
          path,
          status: response.statusCode,
          ms: Math.round(performance.now() - start),
        },
        'request',
      ),
    );
    next();
  };
}
