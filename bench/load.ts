/**
 * 200 people reading and 20 writing for a minute on loopback, each beginning anew as soon as an answer came. Reading is
 * opening the catalogue's line for a text, searching, and a closure; writing is saving a working copy. As ratios to bare
 * Express with one query of a text on the same database, driver and queue of requests, measured the same way in the same
 * run.
 */
import { figure } from './figures.js';
import { spawn } from 'node:child_process';
import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { quantile, startServer, stopServer, temporaryFolder } from './server.js';

const READERS = 200;
const WRITERS = 20;
/** Milliseconds between one person’s beginning and the next’s. */
const STAGGER = 15;
const SECONDS = Number(process.env.SECONDS ?? 60);

interface Outcome {
  readonly times: number[];
  errors: number;
}
const outcome = (): Outcome => ({ times: [], errors: 0 });

/** Calls again and again until the time is up. */
async function keepCalling(until: number, into: Outcome, call: () => Promise<Response>, at: number): Promise<void> {
  // One after the other, as people come: a crowd at one moment waits in the queue of the system, not in ours.
  await wait(at * STAGGER);
  while (performance.now() < until) {
    const begun = performance.now();
    try {
      const answer = await call();
      await answer.arrayBuffer();
      if (!answer.ok) into.errors += 1;
      into.times.push(performance.now() - begun);
    } catch {
      into.errors += 1;
    }
  }
}

/** One query through bare Express, on the same database, driver and queue of requests. */
const BARE = (database: string, root: string): string => `
import { createServer } from 'node:http';
import express from 'express';
import { clientFor } from '${root}/server/src/db/driver.ts';
import { inTurns } from '${root}/server/src/http/request-queue.ts';
const client = clientFor(${JSON.stringify(database)}, 5);
const app = express();
app.set('etag', false);
app.get('/text/:name', async (request, response) => {
  const { rows } = await client.execute({ sql: 'SELECT name, revision, updated_at, document FROM texts WHERE name = ?', args: [request.params.name] });
  const [name, revision, updatedAt, document] = rows[0];
  response.json({ name, revision, updatedAt, document: JSON.parse(String(document)) });
});
const server = createServer(inTurns(app)).listen(0, '127.0.0.1', () => console.log('http://127.0.0.1:' + server.address().port + '/'));
`;

async function bare(database: string): Promise<Outcome> {
  // Below this project, so that its packages are found.
  const root = process.cwd();
  const file = join(root, 'node_modules', '.cache', `bare-${process.pid}.mjs`);
  mkdirSync(join(root, 'node_modules', '.cache'), { recursive: true });
  writeFileSync(file, BARE(database, root));
  const child = spawn(process.execPath, ['--import', 'tsx', file], { stdio: ['ignore', 'pipe', 'inherit'] });
  const base = await new Promise<string>((resolve, reject) => {
    child.once('exit', () => reject(new Error('it ended')));
    child.stdout.once('data', (data: Buffer) => resolve(data.toString().trim()));
  });
  const found = await many(SECONDS / 4, () => fetch(`${base}text/group-visit-confirmed`));
  child.kill();
  rmSync(file, { force: true });
  return found;
}

/** As many as read, calling the same for so many seconds. */
async function many(seconds: number, call: () => Promise<Response>): Promise<Outcome> {
  const found = outcome();
  const until = performance.now() + seconds * 1000;
  await Promise.all(Array.from({ length: READERS }, (_, at) => keepCalling(until, found, call, at)));
  return found;
}

export async function bench(): Promise<void> {
  const folder = temporaryFolder();
  const server = await startServer(folder);
  const [reader, writer] = [await server.signIn('ines'), await server.signIn('maeve')];
  const get = (path: string) => (): Promise<Response> =>
    fetch(`${server.base}/api${path}`, { headers: { cookie: reader } });
  const READS = [
    get('/texts/group-visit-confirmed/closure?for=fill'),
    get('/texts/search?q=visit'),
    get('/texts/plant-adopted/closure?for=fill'),
    get('/folders'),
  ];
  /** Each writer has a text of their own and saves it over and over. */
  const mine = await Promise.all(
    Array.from({ length: WRITERS }, async (_, at) => {
      const headers = { 'content-type': 'application/json', cookie: writer };
      const body = JSON.stringify({ kind: 'block', title: `Load ${at}` });
      const made = (await (await fetch(`${server.base}/api/texts`, { method: 'POST', headers, body })).json()) as {
        name: string;
        revision: number;
        document: { content: unknown[] };
      };
      let { revision } = made;
      let turn = 0;
      return async (): Promise<Response> => {
        turn += 1;
        const paragraph = { type: 'paragraph', content: [{ type: 'text', text: `words ${turn}` }] };
        const document = {
          ...made.document,
          content: (made.document.content as { type: string }[]).map((part) =>
            part.type === 'body' ? { ...part, content: [paragraph] } : part,
          ),
        };
        const answer = await fetch(`${server.base}/api/texts/${made.name}`, {
          method: 'PUT',
          headers,
          body: JSON.stringify({ document, revision }),
        });
        if (answer.ok) revision += 1;
        return answer;
      };
    }),
  );
  const [reads, writes] = [outcome(), outcome()];
  const until = performance.now() + SECONDS * 1000;
  await Promise.all([
    ...Array.from({ length: READERS }, (_, at) => {
      let turn = at;
      return keepCalling(until, reads, () => (READS[(turn += 1) % READS.length] as () => Promise<Response>)(), at);
    }),
    ...mine.map((save, at) => keepCalling(until, writes, save, at * 10)),
  ]);
  const closures = await many(SECONDS / 4, READS[0] as () => Promise<Response>);
  await stopServer(server);
  const plain = await bare(server.database);
  const rate = ({ times }: Outcome, seconds: number): number => times.length / seconds;
  const plainRate = rate(plain, SECONDS / 4);
  const p99 = ({ times }: Outcome): number => quantile(times, 0.99);
  console.log(
    `${READERS} reading, ${WRITERS} writing, ${SECONDS} s: ${reads.times.length} reads, ${writes.times.length} writes`,
  );
  const median = ({ times }: Outcome): string => (quantile(times, 0.5) / quantile(plain.times, 0.5)).toFixed(2);
  console.log(`median: reading ${median(reads)}×, writing ${median(writes)}× of bare Express`);
  console.log(`errors: ${reads.errors} reading, ${writes.errors} writing; bare: ${plain.errors}`);
  const share = (count: number): string => (count / plainRate).toFixed(2);
  const all = rate(reads, SECONDS) + rate(writes, SECONDS);
  const alone = rate(closures, SECONDS / 4);
  figure('requests under load, of bare Express', all / plainRate, 0.6, 'more');
  figure('a closure alone, of bare Express', alone / plainRate, 0.8, 'more');
  figure('p99 of reading, of its median', p99(reads) / quantile(reads.times, 0.5), 2);
  figure('p99 of writing, of its median', p99(writes) / quantile(writes.times, 0.5), 2);
  console.log(`requests: ${share(all)}× of bare Express with one query; a closure alone ${share(alone)}×`);
  const tail = (own: Outcome): string => (p99(own) / quantile(own.times, 0.5)).toFixed(2);
  console.log(`99th percentile: reading ${tail(reads)}×, writing ${tail(writes)}× of its own median`);
}
