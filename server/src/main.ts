/** Starts the server: one process, one database, one address. */
import { mkdirSync } from 'node:fs';
import { dirname, resolve } from 'node:path';
import { pino } from 'pino';
import { Database } from './db/database.js';
import { makeApp, makeServices } from './http/app.js';
import { loadDemo } from './demo.js';
import { startStandIn } from './mailroom/stand-in.js';

const host = process.env.HOST ?? '127.0.0.1';
const port = Number(process.env.PORT ?? 4180);
const url = process.env.DATABASE_URL ?? `file:${resolve('data/vocabula.db')}`;
const log = pino({ level: process.env.LOG_LEVEL ?? 'info' });

if (url.startsWith('file:')) mkdirSync(dirname(url.slice('file:'.length)), { recursive: true });
const database = await Database.open(url);
// Without a mail service of its own, mail goes to the stand-in, which keeps it and delivers nothing.
let smtp = process.env.SMTP_URL || undefined;
const services = makeServices(database, () => smtp);
const standIn = smtp === undefined ? await startStandIn(services.letters) : undefined;
smtp ??= standIn?.url;
if (process.env.VOCABULA_DEMO) await loadDemo(services, resolve(process.env.VOCABULA_DEMO), log);

const server = makeApp(services, log).listen(port, host, () => {
  const address = server.address();
  const actual = typeof address === 'object' && address ? address.port : port;
  log.info({ host, port: actual }, 'listening');
  process.stdout.write(`Vocabula is at http://${host}:${actual}/\n`);
});
server.on('error', (error) => {
  log.error({ err: error }, 'cannot listen');
  process.exit(1);
});

let stopping = false;
const stop = (): void => {
  if (stopping) return;
  stopping = true;
  server.close(
    () =>
      void Promise.resolve(standIn?.close())
        .then(() => database.close())
        .then(() => process.exit(0)),
  );
  server.closeIdleConnections();
};
process.on('SIGINT', stop);
process.on('SIGTERM', stop);
