/** All services of the server on one database. */
import { pino, type Logger } from 'pino';
import { AuditService } from './audit/service.js';
import { AssetService } from './assets/service.js';
import { AtHandService } from './catalogue/at-hand.js';
import { AlikeService } from './catalogue/alike.js';
import { FindingCounts } from './catalogue/finding-counts.js';
import { SearchService } from './catalogue/search.js';
import { CatalogueService } from './catalogue/service.js';
import { UseService } from './catalogue/uses.js';
import { ConvertService } from './convert/service.js';
import type { Database } from './db/database.js';
import { FileService } from './exchange/files.js';
import { LibraryService } from './exchange/library.js';
import { HandOverService } from './fills/handing-over.js';
import { FillService } from './fills/service.js';
import { HouseService } from './house/service.js';
import { InsightService } from './insight/service.js';
import { ClockService } from './mailroom/clock.js';
import { MailboxReader } from './mailroom/mailbox-reader.js';
import { LanguageService } from './languages/agreed.js';
import { LetterService } from './mailroom/service.js';
import { MailingService } from './mailings/service.js';
import { AddressService } from './people/addresses.js';
import { KeyService } from './people/keys.js';
import { PeopleService } from './people/service.js';
import { SessionService } from './people/sessions.js';
import { SignInService } from './people/sign-in.js';
import { ProofService } from './proofs/service.js';
import { RecipientService } from './recipients/service.js';
import { FolderService } from './rights/folders.js';
import { TableService } from './samples/service.js';
import type { ClaimTimes } from './sending/claims.js';
import { Courier } from './sending/courier.js';
import { Outbox } from './sending/outbox.js';
import { ImpactService } from './versions/impact.js';
import { RemarkService } from './versions/remarks.js';
import { RequestService } from './versions/requests.js';
import { TrialService } from './trials/service.js';
import { aheadOf } from './mailroom/recipient-behaviour.js';
import { SeriesRunner } from './series/runner.js';
import { SeriesService } from './series/service.js';
import { MailShelf } from './standing-replies/mails.js';
import { ReplyMaker } from './standing-replies/replying.js';
import { StandingRunner } from './standing-replies/runner.js';
import { StandingService } from './standing-replies/service.js';
import { PastTrial } from './standing-replies/trying.js';
import { WebhookSender } from './webhooks/sender.js';
import { WebhookService } from './webhooks/service.js';
import { VersionService } from './versions/service.js';
import { Heavy } from './workers/heavy.js';
import type { HeavyServices } from './workers/served.js';
import { Workers } from './workers/pool.js';
import { GroupService } from './people/groups.js';

export interface Services extends HeavyServices {
  readonly database: Database;
  readonly workers: Workers;
  readonly heavy: Heavy;
  readonly findings: FindingCounts;
  readonly fills: FillService;
  readonly people: PeopleService;
  readonly groups: GroupService;
  readonly addresses: AddressService;
  readonly assets: AssetService;
  readonly houses: HouseService;
  readonly converter: ConvertService;
  readonly proofs: ProofService;
  readonly sessions: SessionService;
  readonly signIns: SignInService;
  readonly keys: KeyService;
  readonly audit: AuditService;
  readonly folders: FolderService;
  readonly search: SearchService;
  readonly uses: UseService;
  readonly requests: RequestService;
  readonly remarks: RemarkService;
  readonly languages: LanguageService;
  readonly trials: TrialService;
  readonly series: SeriesService;
  readonly webhooks: WebhookService;
  readonly handOvers: HandOverService;
  readonly atHand: AtHandService;
  readonly outbox: Outbox;
  readonly courier: Courier;
  readonly clock: ClockService;
  readonly mailbox: MailboxReader;
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
  /** Threads for what is heavy, where they are shared with other servers. */
  readonly workers?: Workers;
  /** How often claims of what is being sent are renewed, where it is not as usual. */
  readonly claims?: ClaimTimes;
}

// eslint-disable-next-line max-lines-per-function -- every service is made here, once
export function makeServices(
  database: Database,
  {
    smtp = () => undefined,
    isStandIn = () => false,
    isDemo = () => false,
    origin = () => '',
    log = pino({ level: 'silent' }),
    claims,
    workers = new Workers(),
  }: Surroundings = {},
): Services {
  const heavy = new Heavy(workers, () => ({ url: database.url, smtp: smtp() }));
  const people = new PeopleService(database);
  const groups = new GroupService(database);
  const catalogue = new CatalogueService(database);
  const assets = new AssetService(database);
  const folders = new FolderService(database);
  const tables = new TableService(database);
  const recipients = new RecipientService(database);
  const fills = new FillService(database, recipients, workers);
  const letters = new LetterService(database, workers);
  const outbox = new Outbox(database, smtp, origin, isStandIn);
  const courier = new Courier(database, outbox, assets, smtp, isStandIn, log, claims);
  const wake = (): void =>
    void courier.run().catch((error: unknown) => log.error({ err: error }, 'sending what is due failed'));
  const now = async (): Promise<Date> => new Date(Date.now() + (isStandIn() ? await aheadOf(database.read) : 0));
  const runner = new SeriesRunner(database, outbox, assets, now, wake, log);
  const shelf = new MailShelf(database.read, workers);
  const replies = new ReplyMaker(database, recipients, workers);
  const answering = new StandingRunner(database, shelf, replies, outbox, assets, now, wake, log);
  return {
    database,
    workers,
    heavy,
    findings: new FindingCounts(heavy, log),
    people,
    groups,
    addresses: new AddressService(database),
    catalogue,
    assets,
    houses: new HouseService(database),
    converter: new ConvertService(database, assets, workers),
    tables,
    recipients,
    fills,
    webhooks: new WebhookService(database, new WebhookSender(database, log)),
    series: new SeriesService(database, tables, outbox, runner),
    standing: new StandingService(database, new PastTrial(database, shelf, replies), answering),
    handOvers: new HandOverService(database, fills, assets, outbox),
    atHand: new AtHandService(database),
    outbox,
    courier,
    mailings: new MailingService(database, fills, tables, outbox),
    clock: new ClockService(database, isStandIn, origin),
    wake,
    letters,
    mailbox: new MailboxReader(database, letters, log),
    proofs: new ProofService(database, people, assets, smtp),
    sessions: new SessionService(database),
    signIns: new SignInService(database, isDemo),
    keys: new KeyService(database),
    audit: new AuditService(database),
    insight: new InsightService(database),
    folders,
    library: new LibraryService(database, assets, folders),
    search: new SearchService(database),
    uses: new UseService(database),
    alike: new AlikeService(database),
    files: new FileService(database),
    versions: new VersionService(database),
    requests: new RequestService(database),
    remarks: new RemarkService(database),
    languages: new LanguageService(database),
    trials: new TrialService(database),
    impact: new ImpactService(database),
  };
}
