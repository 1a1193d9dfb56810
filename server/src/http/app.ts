/** The application: safety first, then one router a subject, then the pages. */
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import express, { type Express, type RequestHandler } from 'express';
import helmet from 'helmet';
import { pino, type Logger } from 'pino';
import { auditRoutes } from '../audit/routes.js';
import { AuditService } from '../audit/service.js';
import { apiRoutes } from '../api/routes.js';
import { assetRoutes } from '../assets/routes.js';
import { AssetService } from '../assets/service.js';
import { catalogueRoutes } from '../catalogue/routes.js';
import { AtHandService } from '../catalogue/at-hand.js';
import { AlikeService } from '../catalogue/alike.js';
import { SearchService } from '../catalogue/search.js';
import { CatalogueService } from '../catalogue/service.js';
import { UseService } from '../catalogue/uses.js';
import { convertRoutes } from '../convert/routes.js';
import { ConvertService } from '../convert/service.js';
import type { Door } from '@vocabula/contract';
import type { Database } from '../db/database.js';
import { FileService } from '../exchange/files.js';
import { LibraryService } from '../exchange/library.js';
import { libraryRoutes } from '../exchange/routes.js';
import { fillRoutes } from '../fills/routes.js';
import { HandOverService } from '../fills/handing-over.js';
import { FillService } from '../fills/service.js';
import { houseRoutes } from '../house/routes.js';
import { HouseService } from '../house/service.js';
import { ClockService } from '../mailroom/clock.js';
import { mailroomRoutes } from '../mailroom/routes.js';
import { LetterService } from '../mailroom/service.js';
import { mailingRoutes } from '../mailings/routes.js';
import { MailingService } from '../mailings/service.js';
import { AddressService } from '../people/addresses.js';
import { KeyService } from '../people/keys.js';
import { doorRoutes, meRoutes, peopleRoutes } from '../people/routes.js';
import { PeopleService } from '../people/service.js';
import { SessionService } from '../people/sessions.js';
import { SignInService } from '../people/sign-in.js';
import { proofRoutes } from '../proofs/routes.js';
import { ProofService } from '../proofs/service.js';
import { recipientRoutes } from '../recipients/routes.js';
import { RecipientService } from '../recipients/service.js';
import { FolderService } from '../rights/folders.js';
import { folderRoutes } from '../rights/routes.js';
import { tableRoutes } from '../samples/routes.js';
import { TableService } from '../samples/service.js';
import { countingRoutes } from '../sending/counting.js';
import type { ClaimTimes } from '../sending/claims.js';
import { Courier } from '../sending/courier.js';
import { Outbox } from '../sending/outbox.js';
import { outgoingRoutes } from '../sending/routes.js';
import { ImpactService } from '../versions/impact.js';
import { RemarkService } from '../versions/remarks.js';
import { RequestService } from '../versions/requests.js';
import { requestRoutes, versionRoutes } from '../versions/routes.js';
import { VersionService } from '../versions/service.js';
import { Workers } from '../workers/pool.js';
import { loggedPath } from './log.js';
import { problems, RequestProblem } from './problem.js';
import { identified } from './session.js';

const PAGES = fileURLToPath(new URL('../../../web/dist', import.meta.url));

export interface Services {
  readonly database: Database;
  readonly workers: Workers;
  readonly catalogue: CatalogueService;
  readonly tables: TableService;
  readonly fills: FillService;
  readonly people: PeopleService;
  readonly addresses: AddressService;
  readonly assets: AssetService;
  readonly houses: HouseService;
  readonly converter: ConvertService;
  readonly letters: LetterService;
  readonly proofs: ProofService;
  readonly sessions: SessionService;
  readonly signIns: SignInService;
  readonly keys: KeyService;
  readonly audit: AuditService;
  readonly folders: FolderService;
  readonly search: SearchService;
  readonly uses: UseService;
  readonly alike: AlikeService;
  readonly files: FileService;
  readonly library: LibraryService;
  readonly versions: VersionService;
  readonly requests: RequestService;
  readonly remarks: RemarkService;
  readonly impact: ImpactService;
  readonly recipients: RecipientService;
  readonly handOvers: HandOverService;
  readonly atHand: AtHandService;
  readonly outbox: Outbox;
  readonly courier: Courier;
  readonly mailings: MailingService;
  readonly clock: ClockService;
  /** Looks for what is due to be sent. */
  readonly wake: () => void;
}

export interface Surroundings {
  /** The mail service's address, asked for when there is something to send. */
  readonly smtp?: () => string | undefined;
  /** Whether that is the stand-in of this process. */
  readonly isStandIn?: () => boolean;
  /** Whether this is the demo, whose accounts have a password that everybody knows. */
  readonly isDemo?: () => boolean;
  /** Where this server is reached from outside; empty while that is not known. */
  readonly origin?: () => string;
  readonly log?: Logger;
  /** How often claims of what is being sent are renewed, where it is not as usual. */
  readonly claims?: ClaimTimes;
}

export function makeServices(
  database: Database,
  {
    smtp = () => undefined,
    isStandIn = () => false,
    isDemo = () => false,
    origin = () => '',
    log = pino({ level: 'silent' }),
    claims,
  }: Surroundings = {},
): Services {
  const workers = new Workers();
  const people = new PeopleService(database);
  const catalogue = new CatalogueService(database);
  const assets = new AssetService(database);
  const folders = new FolderService(database);
  const tables = new TableService(database);
  const recipients = new RecipientService(database);
  const fills = new FillService(database, recipients, workers);
  const outbox = new Outbox(database, smtp, origin, isStandIn);
  const courier = new Courier(database, outbox, assets, smtp, isStandIn, log, claims);
  const wake = (): void =>
    void courier.run().catch((error: unknown) => log.error({ err: error }, 'sending what is due failed'));
  return {
    database,
    workers,
    people,
    addresses: new AddressService(database),
    catalogue,
    assets,
    houses: new HouseService(database),
    converter: new ConvertService(assets),
    tables,
    recipients,
    fills,
    handOvers: new HandOverService(database, fills, assets, outbox),
    atHand: new AtHandService(database),
    outbox,
    courier,
    mailings: new MailingService(database, fills, tables, outbox, wake),
    clock: new ClockService(database, isStandIn, origin),
    wake,
    letters: new LetterService(database, workers),
    proofs: new ProofService(database, people, assets, smtp),
    sessions: new SessionService(database),
    signIns: new SignInService(database, isDemo),
    keys: new KeyService(database),
    audit: new AuditService(database),
    folders,
    library: new LibraryService(database, assets, folders),
    search: new SearchService(database),
    uses: new UseService(database),
    alike: new AlikeService(database),
    files: new FileService(database),
    versions: new VersionService(database),
    requests: new RequestService(database),
    remarks: new RemarkService(database),
    impact: new ImpactService(database),
  };
}

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
  app.use('/api/tables', tableRoutes(services.tables));
  app.use('/api/assets', assetRoutes(services.assets));
  app.use('/api/library', libraryRoutes(services.library));
  app.use('/api', convertRoutes(services.converter));
  app.use('/api/v1', apiRoutes(services));
  app.use('/api/texts', catalogueRoutes(services));
  app.use('/api/house', houseRoutes(services.houses));
  app.use('/api/fills', fillRoutes(services.fills, services.handOvers, services.wake));
  app.use('/api/recipients', recipientRoutes(services.recipients, services.tables));
  app.use('/api/outgoing', outgoingRoutes(services.outbox, services.wake));
  app.use('/api/mailings', mailingRoutes(services.mailings));
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
