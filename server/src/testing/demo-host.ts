/**
 * Servers on the demo for tests of pages, which run where no server can. A global set-up of the test runner: it listens
 * on a free port, and each `POST /` to it starts a server on a copy of the demo's database; `DELETE /?url=…` stops it.
 * The demo is loaded when it is first asked for.
 */
import { copyFileSync, mkdtempSync, rmSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { TestProject } from 'vitest/node';

declare module 'vitest' {
  interface ProvidedContext {
    /** Where servers on the demo are asked for. */
    readonly demoHost: string;
  }
}

/** A server on the demo, and how it ends. */
interface Running {
  readonly url: string;
  stop(): Promise<void>;
}

/** Listens on a free port of this machine; its address. */
async function listening(server: Server): Promise<string> {
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
}
const closed = (server: Server): Promise<void> =>
  new Promise((resolve) => {
    server.close(() => resolve());
    server.closeAllConnections();
  });

/** Starts a server on a database, with the stand-in for a mail service; loads the demo where nothing is in it. */
async function startOn(file: string): Promise<Running> {
  // Loaded here, so that tests that need no server do not wait for its code.
  const [{ pino }, { adopt }, { Database }, { loadDemo, demoAccounts }, { makeApp }, { startStandIn }, services] =
    await Promise.all([
      import('pino'),
      import('../db/adopt.js'),
      import('../db/database.js'),
      import('../demo/demo.js'),
      import('../http/app.js'),
      import('../mailroom/stand-in.js'),
      import('../services.js'),
    ]);
  const log = pino({ level: 'silent' });
  const database = await Database.open(`file:${file}`);
  await adopt(database);
  const mail: { url: string | undefined } = { url: undefined };
  const made = services.makeServices(database, {
    smtp: () => mail.url,
    isStandIn: () => true,
    isDemo: () => true,
    origin: () => 'http://vocabula.example',
    log,
  });
  const standIn = await startStandIn(made.letters);
  mail.url = standIn.url;
  await loadDemo(database, made, 'demo', log);
  const server = createServer(makeApp(made, log, { demo: demoAccounts('demo'), checked: true, pages: 'no pages' }));
  const url = await listening(server);
  const sending = setInterval(made.wake, 100);
  return {
    url,
    async stop() {
      clearInterval(sending);
      await closed(server);
      await made.courier.stop();
      await standIn.close();
      await made.findings.countAll();
      await made.workers.close();
      await database.close();
    },
  };
}

export default async function setup(project: TestProject): Promise<() => Promise<void>> {
  const folder = mkdtempSync(join(tmpdir(), 'vocabula-demo-'));
  const running = new Map<string, Running>();
  let count = 0;
  let demo: Promise<string> | undefined;
  /** The demo's database as it is before anybody has done anything. */
  async function loaded(): Promise<string> {
    const file = join(folder, 'demo.db');
    await (await startOn(file)).stop();
    return file;
  }
  async function another(): Promise<string> {
    count += 1;
    const file = join(folder, `${count}.db`);
    copyFileSync(await (demo ??= loaded()), file);
    const server = await startOn(file);
    running.set(server.url, server);
    return server.url;
  }
  const host = createServer((request, response) => {
    const which = new URL(request.url ?? '/', 'http://host.example').searchParams.get('url') ?? '';
    const work = request.method === 'DELETE' ? running.get(which)?.stop() : another();
    Promise.resolve(work).then(
      (url) => response.end(url ?? ''),
      (error: unknown) => response.writeHead(500).end(String(error)),
    );
    if (request.method === 'DELETE') running.delete(which);
  });
  project.provide('demoHost', await listening(host));
  return async () => {
    for (const server of running.values()) await server.stop();
    await closed(host);
    rmSync(folder, { recursive: true, force: true });
  };
}
