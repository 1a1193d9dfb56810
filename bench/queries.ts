/**
 * How many queries the commonest requests make, on the demo's data: everything that goes to the database but the
 * beginning and end of a transaction. And how long each takes of what bare Express needs for as many queries.
 */
import { createServer, type RequestListener } from 'node:http';
import type { AddressInfo } from 'node:net';
import express from 'express';
import Libsql from 'libsql';
import { pino } from 'pino';
import { figure } from './figures.js';
import { HOUSE_NAME } from '@vocabula/contract';
import { readText } from '@vocabula/core/markdown';
import { clientFor } from '../server/src/db/driver.js';
import { sessionCookie } from '../server/src/http/session.js';
import { newToken } from '../server/src/people/secrets.js';
import { addSession } from '../server/src/people/sessions.js';
import { makeApp } from '../server/src/http/app.js';
import { makePublished, publish, start, type Started } from '../server/src/testing/start.js';
import { quantile, temporaryFolder } from './server.js';

const MOST = 6;
const MOST_TIMES = 3;
const ROUNDS = 60;

/** Statements since it was last emptied. */
const executed: string[] = [];

interface Countable {
  all(parameters: unknown): unknown;
  run(parameters: unknown): unknown;
}
/** Notes every statement that is executed through the driver from now on. */
function countStatements(): void {
  const { prototype } = Libsql as unknown as { prototype: { prepare(sql: string): Countable } };
  const { prepare } = prototype;
  prototype.prepare = function (sql) {
    const statement = prepare.call(this, sql);
    for (const name of ['all', 'run'] as const) {
      const own = statement[name].bind(statement);
      statement[name] = (parameters) => {
        if (!/^(BEGIN|COMMIT|ROLLBACK|PRAGMA)/i.test(sql)) executed.push(sql);
        return own(parameters);
      };
    }
    return statement;
  };
}

const TEMPLATE = `---
vocabula: 1
kind: message
title: Visit
subject: "Your visit on {{day}}"
to: "{{recipient.email}}"
variables:
  day: { type: date, required: true }
  name: { type: text, required: true, remember: last }
---
Dear {{name}},

{{> hours}}

See you on {{day}}.
`;
const BLOCK = `---
vocabula: 1
kind: block
title: Hours
---
We are open from nine to five.
`;

type Call = (method: string, path: string, body?: unknown) => Promise<unknown>;
type Act = (turn: number) => Promise<unknown>;

/** What is measured, each ready to be done again and again. */
async function acts(server: Started, call: Call): Promise<Readonly<Record<string, Act>>> {
  const recipient = { email: 'ann@larkmoor.example' };
  const { house } = (await call('GET', '/house')) as { house: unknown };
  await call('PUT', '/house', { house, revision: 0 });
  await publish(server, HOUSE_NAME);
  await makePublished(server, 'Hours', BLOCK);
  let { revision } = await makePublished(server, 'Visit', TEMPLATE);
  const begin = (): Promise<unknown> => call('POST', '/fills', { text: 'visit', recipient });
  const { id } = (await begin()) as { id: string };
  return {
    beginning: begin,
    'autosave of a message': (turn) => call('PUT', `/fills/${id}`, { recipient, answers: { name: `Ann ${turn}` } }),
    'saving a text': async (turn) => {
      const { document } = readText(
        TEMPLATE.replace('See you', `See you, guest ${String.fromCharCode(97 + (turn % 26))},`),
      );
      await call('PUT', '/texts/visit', { document, revision });
      revision += 1;
    },
    closure: () => call('GET', '/texts/visit/closure?for=fill'),
    folders: () => call('GET', '/folders'),
    inbox: () => call('GET', '/fills'),
  };
}

/** The address of an app on a port of its own. */
function listening(app: RequestListener): Promise<{ readonly base: string; close(): void }> {
  return new Promise((resolve) => {
    const server = createServer(app).listen(0, '127.0.0.1', () =>
      resolve({
        base: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
        close: () => void server.close(),
      }),
    );
  });
}

/** Express with nothing but so many queries of a text, the last of which writes it where the act it is held against writes. */
function bare(url: string): ReturnType<typeof express> {
  const client = clientFor(url, 5);
  const app = express();
  app.set('etag', false);
  app.get('/:queries/:writes', async ({ params }, response) => {
    const writes = params.writes === 'true';
    let document = '';
    for (let at = writes ? 1 : 0; at < Number(params.queries); at += 1) {
      const { rows } = await client.execute({ sql: 'SELECT document FROM texts WHERE name = ?', args: ['hours'] });
      document = String(rows[0]?.[0]);
    }
    if (writes) {
      const transaction = await client.transaction();
      await transaction.execute({ sql: 'UPDATE texts SET document = ? WHERE name = ?', args: [document, 'hours'] });
      await transaction.commit();
    }
    response.json(JSON.parse(document));
  });
  return app;
}

/** Milliseconds that something takes. */
async function timeOf(work: () => Promise<unknown>): Promise<number> {
  const begun = performance.now();
  await work();
  return performance.now() - begun;
}

export async function bench(): Promise<void> {
  countStatements();
  const server = await start(`file:${temporaryFolder()}/queries.db`);
  // As it is served, without what only tests check of answers.
  const app = makeApp(server.services, pino({ level: 'silent' }), { pages: 'no pages', checked: false });
  const token = newToken();
  await server.database.write((writer) => addSession(writer, server.user.id, 'bench', token));
  const headers = { cookie: sessionCookie(token), 'content-type': 'application/json' };
  const [own, other] = [await listening(app), await listening(bare(server.url))];
  const call: Call = async (method, path, body) => {
    const answer = await fetch(`${own.base}/api${path}`, { method, headers, body: JSON.stringify(body) });
    const text = await answer.text();
    if (!answer.ok) throw new Error(`${method} ${path}: ${text}`);
    return text === '' ? undefined : JSON.parse(text);
  };
  for (const [name, act] of Object.entries(await acts(server, call))) {
    // Twice first: what is kept from request to request is there then, as in daily use.
    await act(0);
    await act(1);
    await server.services.findings.countAll();
    executed.length = 0;
    await act(2);
    const statements = [...executed];
    const writes = statements.some((sql) => !/^select/i.test(sql));
    const [mine, theirs]: [number[], number[]] = [[], []];
    for (let turn = 3; turn < ROUNDS; turn += 1) {
      mine.push(await timeOf(() => act(turn)));
      theirs.push(await timeOf(async () => (await fetch(`${other.base}/${statements.length}/${writes}`)).text()));
    }
    const ratio = quantile(mine, 0.5) / quantile(theirs, 0.5);
    figure(`queries of ${name}`, statements.length, MOST);
    figure(`${name}, of bare Express with as many`, ratio, MOST_TIMES);
    console.log(`${name}: ${statements.length} queries, ${ratio.toFixed(2)}× of bare Express with as many`);
    if (process.env.SHOW) for (const sql of statements) console.log(`    ${sql.replace(/\s+/g, ' ').slice(0, 150)}`);
  }
  own.close();
  other.close();
  await server.stop();
}
