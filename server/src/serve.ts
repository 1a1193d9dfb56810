/** One process of the server: it opens the database, answers requests, and does what is due. */
import { mkdirSync } from 'node:fs';
import { createServer } from 'node:http';
import { dirname, resolve } from 'node:path';
import { sweepRestores } from './db/backup.js';
import { Database } from './db/database.js';
import { makeApp } from './http/app.js';
import { makeServices } from './services.js';
import { makeLog } from './http/log.js';
import { proxies } from './http/proxies.js';
import { inTurns } from './http/request-queue.js';
import { troubleOf } from './db/database-errors.js';
import { adopt } from './db/adopt.js';
import { demoAccounts, loadDemo } from './demo/demo.js';
import { startStandIn, type StandIn } from './mailroom/stand-in.js';

const host = process.env.HOST ?? '127.0.0.1';
const port = Number(process.env.PORT ?? 4180);
const url = process.env.DATABASE_URL ?? `file:${resolve('data/vocabula.db')}`;
const log = makeLog(process.env.LOG_LEVEL ?? 'info');
/** The first process does what is to be done once. */
const isFirst = (process.env.WORKER ?? '1') === '1';
const demo = process.env.VOCABULA_DEMO ? resolve(process.env.VOCABULA_DEMO) : undefined;

const database = await opened();
const mail: { smtp: string | undefined; standIn?: StandIn } = { smtp: process.env.SMTP_URL || undefined };
let origin = process.env.PUBLIC_URL ?? '';
const services = makeServices(database, {
  smtp: () => mail.smtp,
  isStandIn: () => mail.standIn !== undefined,
  isDemo: () => demo !== undefined,
  origin: () => origin,
  log,
});
// The stand-in keeps mail and delivers nothing. Only who asks for it gets it in place of a mail service.
if (mail.smtp === undefined && (demo !== undefined || process.env.STAND_IN === 'yes')) {
  mail.standIn = await startStandIn(services.letters);
  mail.smtp = mail.standIn.url;
}
if (mail.smtp === undefined && isFirst)
  process.stdout.write(
    'No mail service: SMTP_URL is empty, so nothing can be sent. STAND_IN=yes keeps mail here instead of sending it.\n',
  );
if (demo !== undefined && isFirst) await loadDemo(database, services, demo, log);

const accounts = demo === undefined ? [] : demoAccounts(demo);
const app = makeApp(services, log, {
  demo: accounts,
  trustProxy: proxies(process.env.TRUST_PROXY),
  checked: process.env.CHECK_ANSWERS === 'yes',
});
/**
 * How long an idle connection stays open, in milliseconds. It is longer than proxies and programs usually keep one
 * (60 s): with Node's 5 s a request could be sent on a connection just as it was closed, and fail.
 */
const KEEP_ALIVE = 75_000;
const server = createServer({ keepAliveTimeout: KEEP_ALIVE }, inTurns(app)).listen(port, host, () => {
  const address = server.address();
  const actual = typeof address === 'object' && address ? address.port : port;
  origin ||= `http://${host}:${actual}`;
  log.info({ host, port: actual }, 'listening');
  if (!isFirst) return;
  process.stdout.write(`Vocabula is at http://${host}:${actual}/\n`);
  for (const { name, address, role, password } of accounts)
    process.stdout.write(`  ${role.padEnd(13)} ${name.padEnd(16)} ${address.padEnd(28)} ${password}\n`);
});
server.on('error', (error) => {
  log.error({ err: error }, 'cannot listen');
  process.exit(1);
});

/** How often what is due is looked for, in milliseconds. */
const TICK = 5000;
/** How often what is due to be sent is looked for. */
const SENDING_TICK = 1000;
/** How often lists that are kept no longer are looked for. */
const FORGETTING_TICK = 3_600_000;
const forget = (): void =>
  void services.recipients
    .tick(new Date().toISOString().slice(0, 10))
    .catch((error: unknown) => log.error({ err: error }, 'emptying old lists failed'));
const ticking = everyFirst(TICK, () => {
  services.versions.tick().catch((error: unknown) => log.error({ err: error }, 'publishing at a time failed'));
  services.clock.tick().catch((error: unknown) => log.error({ err: error }, 'the mailroom’s recipients failed'));
});
const sending = everyFirst(SENDING_TICK, services.wake);
const series = everyFirst(TICK, () => {
  services.series.runner.tick().catch((error: unknown) => log.error({ err: error }, 'bringing series forward failed'));
  services.standing.runner.tick().catch((error: unknown) => log.error({ err: error }, 'deciding on mail failed'));
  services.webhooks.sender.tick().catch((error: unknown) => log.error({ err: error }, 'telling webhooks failed'));
});
const forgetting = everyFirst(FORGETTING_TICK, forget);
if (isFirst) {
  services.mailbox.start(process.env.IMAP_URL || undefined);
  services.wake();
  forget();
  await services.versions.forgetOld();
  void services.letters.readOld().catch((error: unknown) => log.error({ err: error }, 'reading old letters failed'));
}

/** Does something again and again in the first process; undefined in the others. */
function everyFirst(milliseconds: number, act: () => void): NodeJS.Timeout | undefined {
  return isFirst ? setInterval(act, milliseconds) : undefined;
}

let stopping = false;
const stop = (): void => {
  if (stopping) return;
  stopping = true;
  for (const each of [ticking, sending, series, forgetting]) clearInterval(each);
  server.close(
    () =>
      void Promise.all([
        services.courier.stop(),
        services.mailbox.stop(),
        services.webhooks.sender.stop(),
        mail.standIn?.close(),
        // Counted in threads, which end after that.
        services.findings.countAll().then(() => services.workers.close()),
      ])
        .then(() => database.close())
        .then(() => process.exit(0)),
  );
  server.closeIdleConnections();
};
process.on('SIGINT', stop);
process.on('SIGTERM', stop);

/** The database, ready for use. One that cannot be used ends the start in one line. */
async function opened(): Promise<Database> {
  try {
    if (isFirst) sweepRestores();
    if (url.startsWith('file:')) mkdirSync(dirname(url.slice('file:'.length)), { recursive: true });
    const made = await Database.open(url);
    if (isFirst) await adopt(made);
    return made;
  } catch (error) {
    const trouble = troubleOf(error);
    if (trouble === undefined) throw error;
    process.stderr.write(`${url}: ${trouble}\n`);
    process.exit(1);
  }
}
