/** The application: safety first, then one router a subject, then the pages. */
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import express, { type Express, type RequestHandler } from 'express';
import helmet from 'helmet';
import { type Logger } from 'pino';
import { auditRoutes } from '../audit/routes.js';
import { apiRoutes } from '../api/routes.js';
import { assetRoutes } from '../assets/routes.js';
import { catalogueRoutes } from '../catalogue/routes.js';
import { convertRoutes } from '../convert/routes.js';
import type { Door } from '@vocabula/contract';
import { libraryRoutes } from '../exchange/routes.js';
import { fillRoutes } from '../fills/routes.js';
import { houseRoutes } from '../house/routes.js';
import { mailroomRoutes } from '../mailroom/routes.js';
import { mailingRoutes } from '../mailings/routes.js';
import { doorRoutes, meRoutes, peopleRoutes } from '../people/routes.js';
import { proofRoutes } from '../proofs/routes.js';
import { recipientRoutes } from '../recipients/routes.js';
import { folderRoutes } from '../rights/routes.js';
import { tableRoutes } from '../samples/routes.js';
import { countingRoutes } from '../sending/counting.js';
import { outgoingRoutes } from '../sending/routes.js';
import { requestRoutes, versionRoutes } from '../versions/routes.js';
import { loggedPath } from './log.js';
import { problems, RequestProblem } from './problem.js';
import { identified } from './session.js';
import type { Services } from '../services.js';

const PAGES = fileURLToPath(new URL('../../../web/dist', import.meta.url));

export interface AppOptions {
  /** The folder of the built pages. */
  readonly pages?: string;
  /** Accounts that the sign-in page lists to pick from. */
  readonly demo?: Door['demo'];
  /** The proxies before this server, as Express takes them: only what they say of a request’s origin is believed. */
  readonly trustProxy?: boolean | number | string;
}

export function makeApp(
  services: Services,
  log: Logger,
  { pages = PAGES, demo = [], trustProxy = false }: AppOptions = {},
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
  app.get('/api/health', (_request, response) => {
    const { trouble } = services.database;
    response
      .status(trouble === undefined ? 200 : 503)
      .json(trouble === undefined ? { ok: true } : { ok: false, why: trouble });
  });
  app.use('/api/tables', tableRoutes(services.tables, services.heavy));
  app.use('/api/assets', assetRoutes(services.assets));
  app.use('/api/library', libraryRoutes(services.heavy));
  app.use('/api', convertRoutes(services.converter));
  app.use('/api/v1', apiRoutes(services));
  app.use('/api/texts', catalogueRoutes(services));
  app.use('/api/house', houseRoutes(services.houses));
  app.use('/api/fills', fillRoutes(services.fills, services.handOvers, services.wake));
  app.use('/api/recipients', recipientRoutes(services.recipients, services.tables, services.heavy));
  app.use('/api/outgoing', outgoingRoutes(services.outbox, services.wake));
  app.use('/api/mailings', mailingRoutes(services.mailings, services.heavy, services.wake));
  app.use('/api/proofs', proofRoutes(services.proofs));
  app.use('/api/mailroom', mailroomRoutes(services));
  app.use('/api/folders', folderRoutes(services.folders));
  app.use('/api/versions', versionRoutes(services));
  app.use('/api/requests', requestRoutes(services.requests));
  app.use('/api/audit', auditRoutes(services.audit));
  const people = { ...services, demo };
  app.use('/api/door', doorRoutes(people));
  app.use('/api/me', meRoutes(people));
  app.use('/api/people', peopleRoutes(people));
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
