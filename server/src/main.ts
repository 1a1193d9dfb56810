/** Starts the server: one process, one database, one address. */
import { mkdirSync } from 'node:fs';
import { dirname, resolve } from 'node:path';
import { pino } from 'pino';
import { Database } from './db/database.js';
import { makeApp, makeServices } from './http/app.js';
import { adopt } from './db/adopt.js';
import { demoAccounts, loadDemo } from './demo/demo.js';
import { startStandIn, type StandIn } from './mailroom/stand-in.js';

const host = process.env.HOST ?? '127.0.0.1';
const port = Number(process.env.PORT ?? 4180);
const url = process.env.DATABASE_URL ?? `file:${resolve('data/vocabula.db')}`;
const log = pino({ level: process.env.LOG_LEVEL ?? 'info' });

if (url.startsWith('file:')) mkdirSync(dirname(url.slice('file:'.length)), { recursive: true });
const database = await Database.open(url);
await adopt(database);
// Without a mail service of its own, mail goes to the stand-in, which keeps it and delivers nothing.
const mail: { smtp: string | undefined; standIn?: StandIn } = { smtp: process.env.SMTP_URL || undefined };
let origin = process.env.PUBLIC_URL ?? '';
const services = makeServices(database, {
  smtp: () => mail.smtp,
  isStandIn: () => mail.standIn !== undefined,
  origin: () => origin,
  log,
});
if (mail.smtp === undefined) {
  mail.standIn = await startStandIn(services.letters);
  mail.smtp = mail.standIn.url;
}
const demo = process.env.VOCABULA_DEMO ? resolve(process.env.VOCABULA_DEMO) : undefined;
if (demo !== undefined) await loadDemo(database, services, demo, log);

const accounts = demo === undefined ? [] : demoAccounts(demo);
const server = makeApp(services, log, undefined, accounts).listen(port, host, () => {
  const address = server.address();
  const actual = typeof address === 'object' && address ? address.port : port;
  origin ||= `http://${host}:${actual}`;
  log.info({ host, port: actual }, 'listening');
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
const ticking = setInterval(() => {
  services.versions.tick().catch((error: unknown) => log.error({ err: error }, 'publishing at a time failed'));
  services.clock.tick().catch((error: unknown) => log.error({ err: error }, 'the mailroom’s recipients failed'));
}, TICK);
const sending = setInterval(services.wake, SENDING_TICK);
services.wake();
const forgetting = setInterval(forget, FORGETTING_TICK);
forget();
await services.versions.forgetOld();

let stopping = false;
const stop = (): void => {
  if (stopping) return;
  stopping = true;
  for (const each of [ticking, sending, forgetting]) clearInterval(each);
  server.close(
    () =>
      void Promise.all([services.courier.stop(), mail.standIn?.close(), services.workers.close()])
        .then(() => database.close())
        .then(() => process.exit(0)),
  );
  server.closeIdleConnections();
};
process.on('SIGINT', stop);
process.on('SIGTERM', stop);
