/** The application: safety first, then one router a subject, then the pages. */
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import express, { type Express, type RequestHandler } from 'express';
import helmet from 'helmet';
import type { Logger } from 'pino';
import { assetRoutes } from '../assets/routes.js';
import { AssetService } from '../assets/service.js';
import { catalogueRoutes } from '../catalogue/routes.js';
import { CatalogueService } from '../catalogue/service.js';
import { convertRoutes } from '../convert/routes.js';
import { ConvertService } from '../convert/service.js';
import type { Database } from '../db/database.js';
import { fillRoutes } from '../fills/routes.js';
import { FillService } from '../fills/service.js';
import { houseRoutes } from '../house/routes.js';
import { HouseService } from '../house/service.js';
import { mailroomRoutes } from '../mailroom/routes.js';
import { LetterService } from '../mailroom/service.js';
import { peopleRoutes } from '../people/routes.js';
import { PeopleService } from '../people/service.js';
import { proofRoutes } from '../proofs/routes.js';
import { ProofService } from '../proofs/service.js';
import { tableRoutes } from '../samples/routes.js';
import { TableService } from '../samples/service.js';
import { problems, RequestProblem } from './problem.js';

const JSON_LIMIT = '6mb';
const PAGES = fileURLToPath(new URL('../../../web/dist', import.meta.url));

export interface Services {
  readonly catalogue: CatalogueService;
  readonly tables: TableService;
  readonly fills: FillService;
  readonly people: PeopleService;
  readonly assets: AssetService;
  readonly houses: HouseService;
  readonly converter: ConvertService;
  readonly letters: LetterService;
  readonly proofs: ProofService;
}

/** @param smtp the mail service's address, asked for when there is something to send */
export function makeServices(database: Database, smtp: () => string | undefined = () => undefined): Services {
  const people = new PeopleService(database);
  const catalogue = new CatalogueService(database);
  const assets = new AssetService(database);
  return {
    people,
    catalogue,
    assets,
    houses: new HouseService(database),
    converter: new ConvertService(assets),
    tables: new TableService(database),
    fills: new FillService(database, people, assets),
    letters: new LetterService(database),
    proofs: new ProofService(database, people, assets, smtp),
  };
}

export function makeApp(services: Services, log: Logger, pages = PAGES): Express {
  const app = express();
  app.disable('x-powered-by');
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
          'frame-ancestors': ["'self'"],
          'worker-src': ["'self'"],
        },
      },
      strictTransportSecurity: false,
    }),
  );
  app.use(logged(log), sameOrigin);
  app.get('/api/health', (_request, response) => void response.json({ ok: true }));
  app.use('/api/tables', tableRoutes(services.tables));
  app.use('/api/assets', assetRoutes(services.assets));
  app.use('/api', convertRoutes(services.converter));
  app.use(express.json({ limit: JSON_LIMIT }));
  app.use('/api/texts', catalogueRoutes(services.catalogue));
  app.use('/api/house', houseRoutes(services.houses));
  app.use('/api/fills', fillRoutes(services.fills));
  app.use('/api/proofs', proofRoutes(services.proofs));
  app.use('/api/mailroom', mailroomRoutes(services.letters));
  app.use('/api', peopleRoutes(services.people));
  app.use('/api', () => {
    throw new RequestProblem(404, 'not-found', 'There is nothing at this address.');
  });
  if (existsSync(pages)) {
    app.use('/assets', express.static(join(pages, 'assets'), { immutable: true, maxAge: '1y' }));
    app.use(express.static(pages, { index: false }));
    app.get(/.*/, (_request, response) => response.sendFile(join(pages, 'index.html')));
  }
  app.use(problems(log));
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
  const foreign =
    (host !== undefined && host !== request.get('host')) || request.get('sec-fetch-site') === 'cross-site';
  if (changes && foreign) throw new RequestProblem(403, 'foreign-origin', 'This request came from another site.');
  next();
};

function logged(log: Logger): RequestHandler {
  return (request, response, next) => {
    const start = performance.now();
    response.on('finish', () =>
      log.info(
        {
          method: request.method,
          path: request.path,
          status: response.statusCode,
          ms: Math.round(performance.now() - start),
        },
        'request',
      ),
    );
    next();
  };
}
