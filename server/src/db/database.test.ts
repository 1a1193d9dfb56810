/** Stopping, starting again, and being killed. */
import { spawn, type ChildProcess } from 'node:child_process';
import { copyFileSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';
import { createClient } from '@libsql/client';
import { PLAIN_HOUSE } from '@vocabula/core';
import { sql } from 'drizzle-orm';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { adopt } from './adopt.js';
import { answerFor } from '../http/problem.js';
import { Database, schema } from './database.js';
import { documentOf, file, makePublished, makeText, start, type Started } from '../testing/start.js';
import { sessionCookie } from '../http/session.js';

let folder: string;
let url: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'vocabula-'));
  url = `file:${join(folder, 'test.db')}`;
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

describe('a database', () => {
  it('from before records were JSON throughout keeps what waits to be sent', async () => {
    const server = await start(url, { smtp: () => 'smtp://127.0.0.1:9' });
    await makePublished(server, 'Visit');
    const { id } = (await server.call.post('/api/fills').send({ text: 'visit' })).body;
    await server.call.put(`/api/fills/${id}`).send({ recipient: { email: 'ann@x.example' }, answers: { name: 'Ann' } });
    await server.call.post(`/api/fills/${id}/hand-over`).send({ way: 'service', at: 'draft' });
    const { outgoing } = schema;
    const record = async () =>
      (await server.database.read.select({ record: outgoing.record }).from(outgoing))[0]?.record;
    const kept = await record();
    const before = { ...kept, recipients: JSON.stringify(kept?.recipients), answers: JSON.stringify(kept?.answers) };
    await server.database.write((writer) => writer.run(sql`UPDATE outgoing SET record = ${JSON.stringify(before)}`));
    const migration = readFileSync(new URL('../../migrations/0010_records_as_json.sql', import.meta.url), 'utf8');
    await server.database.write((writer) => writer.run(sql.raw(migration)));
    expect(await record()).toEqual(kept);
    expect(kept?.answers).toEqual({ name: 'Ann' });
    await server.stop();
  });
  it('is whole in its one file after a stop, so that a copy of that file is a copy of all', async () => {
    const first = await start(url);
    await makePublished(first, 'Visit');
    await first.stop();
    const copy = join(folder, 'copy.db');
    copyFileSync(join(folder, 'test.db'), copy);
    const again = await start(`file:${copy}`);
    expect((await again.call.get('/api/texts/visit')).body.document).toEqual(documentOf(file('Visit')));
    await again.stop();
  });
  it('is found as it was after a stop', async () => {
    const first = await start(url);
    await makePublished(first, 'Visit');
    const { body } = await first.call.post('/api/fills').send({ text: 'visit', answers: { name: 'Ann' } });
    const cookie = await sessionOf(first);
    await first.stop();
    const second = await start(url);
    expect((await second.call.get('/api/texts/visit')).body.document).toEqual(documentOf(file('Visit')));
    // A session outlives the process that began it; a message is found by whose it is.
    const answer = await second.nobody.get(`/api/fills/${body.id}`).set('cookie', cookie);
    expect(answer.body.answers).toEqual({ name: 'Ann' });
    await second.stop();
  });

  it('serves two processes at once', async () => {
    const [one, two] = [await start(url), await start(url)];
    await makeText(one, 'Visit');
    const saves = Array.from({ length: 20 }, (_, at) =>
      (at % 2 ? one : two).call.post('/api/texts').send({ kind: 'block', title: `Block ${at}` }),
    );
    expect((await Promise.all(saves)).map((answer) => answer.status)).toEqual(Array<number>(20).fill(201));
    expect((await one.call.get('/api/texts')).body).toHaveLength(21);
    await one.stop();
    await two.stop();
  });
});

describe('a database in trouble', () => {
  it('that another holds is waited for, and read meanwhile', async () => {
    const server = await start(url);
    await makeText(server, 'Visit');
    const other = createClient({ url });
    const holding = await other.transaction('write');
    await holding.execute('UPDATE folders SET title = title');
    const saving = makeText(server, 'Waits');
    expect((await server.call.get('/api/texts/visit')).status).toBe(200);
    await wait(600);
    await holding.rollback();
    expect((await saving).name).toBe('waits');
    other.close();
    await server.stop();
  });

  it('that another holds for long is told of in words, and nothing is changed', async () => {
    const server = await start(url);
    const other = createClient({ url });
    const holding = await other.transaction('write');
    await holding.execute('UPDATE folders SET title = title');
    const answer = await server.call.post('/api/texts').send({ kind: 'block', title: 'Block' });
    expect([answer.status, answer.body.code]).toEqual([503, 'busy']);
    await holding.rollback();
    other.close();
    expect((await server.call.get('/api/texts')).body).toEqual([]);
    expect((await server.call.post('/api/texts').send({ kind: 'block', title: 'Block' })).status).toBe(201);
    await server.stop();
  }, 40_000);

  it('on a full disk is told of in words, keeps what there was, and goes on once there is room', async () => {
    const server = await start(url);
    const { revision } = await makeText(server, 'Visit');
    // No connection may have more pages than there are now, as on a disk without room.
    const room = async (pages: number): Promise<void> => {
      for (let each = 0; each < 4; each += 1)
        await server.database.write((writer) => writer.run(sql.raw(`PRAGMA max_page_count = ${pages}`)));
    };
    await room(1);
    const large = documentOf(file('Visit', 'many words '.repeat(8_000)));
    // On this connection, not on one of a worker thread, which would have pages of its own.
    const failure = await server.services.catalogue
      .save('visit', { document: large, revision }, server.user)
      .catch((error: unknown) => error);
    expect(answerFor(failure)).toMatchObject({ status: 507, code: 'disk-full' });
    expect((await server.call.get('/api/texts/visit')).body.document).toEqual(documentOf(file('Visit')));
    await room(1_000_000);
    const again = await server.call.put('/api/texts/visit').send({ document: large, revision });
    expect(again.status).toBe(200);
    await server.stop();
  });

  it('of before there were accounts and versions comes with all that was in it', async () => {
    await earlier(url);
    const database = await Database.open(url);
    await adopt(database);
    await adopt(database);
    await database.close();
    const server = await start(url);
    // Who wrote before is the first administrator, with their profile, messages and folder.
    await server.database.write((writer) => writer.update(schema.people).set({ password: null }));
    const first = { name: 'Maeve', address: 'maeve@larkmoor.example', password: 'a long sentence' };
    await server.nobody.post('/api/door/first').send(first).expect(204);
    expect((await server.nobody.get('/api/me')).body).toMatchObject({
      id: 'me',
      profile: { title: 'Visits', name: 'Maeve' },
    });
    expect((await server.nobody.get('/api/texts')).body).toMatchObject([
      { name: 'visit', folder: 'root', state: 'published', version: 1, binned: false },
    ]);
    expect((await server.nobody.get('/api/texts/search?q=dear')).body).toHaveLength(1);
    expect((await server.nobody.get('/api/fills')).body).toMatchObject([{ id: 'f1', version: 1, standing: 'current' }]);
    expect((await server.nobody.get('/api/house')).body).toMatchObject({ revision: 3, version: 1 });
    expect((await server.nobody.post('/api/fills').send({ text: 'visit' })).status).toBe(201);
    await server.stop();
  });
});

/** A database as it was before accounts: its migrations, and one row of everything that mattered. */
async function earlier(at: string): Promise<void> {
  const client = createClient({ url: at });
  const folderOf = fileURLToPath(new URL('../../migrations/', import.meta.url));
  const journal = JSON.parse(readFileSync(join(folderOf, 'meta/_journal.json'), 'utf8')) as {
    entries: { tag: string; when: number }[];
  };
  await client.execute(
    'CREATE TABLE __drizzle_migrations (id INTEGER PRIMARY KEY AUTOINCREMENT, hash text NOT NULL, created_at numeric)',
  );
  for (const { tag, when } of journal.entries.slice(0, 3)) {
    const source = readFileSync(join(folderOf, `${tag}.sql`), 'utf8');
    for (const statement of source.split('--> statement-breakpoint')) await client.execute(statement);
    await client.execute({
      sql: 'INSERT INTO __drizzle_migrations (hash, created_at) VALUES (?, ?)',
      args: [tag, when],
    });
  }
  const document = JSON.stringify(documentOf(file('Visit')));
  const now = '2026-10-01T10:00:00.000Z';
  const insert = (table: string, row: Record<string, string | number | null>): Promise<unknown> =>
    client.execute({
      sql: `INSERT INTO ${table} (${Object.keys(row).join(', ')}) VALUES (${Object.keys(row)
        .map(() => '?')
        .join(', ')})`,
      args: Object.values(row),
    });
  const text = {
    kind: 'message',
    title: 'Visit',
    subject: 'Hello',
    words: 'dear',
    document,
    revision: 4,
    updated_at: now,
  };
  await insert('texts', { name: 'visit', ...text });
  await insert('houses', { id: 'house', house: JSON.stringify(PLAIN_HOUSE), revision: 3, updated_at: now });
  await insert('people', {
    id: 'me',
    profile: JSON.stringify({ name: 'M', email: '', title: 'Visits' }),
    updated_at: now,
  });
  await insert('frozen', { id: 'd1', name: 'visit', revision: 4, digest: 'x', document, created_at: now });
  const fill = {
    title: 'Visit',
    frozen: '["d1"]',
    recipient: '{}',
    answers: '{}',
    state: 'unfinished',
    created_at: now,
    updated_at: now,
  };
  await insert('fills', { id: 'f1', text: 'visit', ...fill });
  client.close();
}

describe('a process that is killed while saving', () => {
  it('has lost nothing that it answered for, and the database is whole', async () => {
    const before = await start(url);
    const cookie = await sessionOf(before);
    await before.stop();
    const server = await spawnServer(url);
    const made = await send('POST', server.base, '/api/texts', { kind: 'message', title: 'Visit' }, cookie);
    let { revision } = made as { revision: number };
    let kept = '';
    let killed = false;
    const timer = setTimeout(() => {
      killed = true;
      server.process.kill('SIGKILL');
    }, 600);
    for (let at = 0; !killed && at < 5000; at += 1) {
      const words = `words ${at}`;
      const body = { document: documentOf(file('Visit', words)), revision };
      const saved = await send('PUT', server.base, '/api/texts/visit', body, cookie).catch(() => undefined);
      if (!saved) break;
      ({ revision } = saved as { revision: number });
      kept = words;
    }
    clearTimeout(timer);
    expect(kept).not.toBe('');

    const again = await start(url);
    const { body } = await again.call.get('/api/texts/visit');
    // What was answered is there; at most the one save that was under way came after it.
    expect(body.revision - revision).toBeLessThanOrEqual(1);
    expect(body.revision).toBeGreaterThanOrEqual(revision);
    if (body.revision === revision) expect(body.document).toEqual(documentOf(file('Visit', kept)));
    expect((await again.call.get('/api/texts/search?q=words&for=write')).body).toHaveLength(1);
    await again.stop();
  });
});

async function spawnServer(database: string): Promise<{ process: ChildProcess; base: string }> {
  const main = fileURLToPath(new URL('../main.ts', import.meta.url));
  const child = spawn(process.execPath, ['--import', 'tsx', main], {
    env: { ...process.env, DATABASE_URL: database, PORT: '0', LOG_LEVEL: 'silent' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const base = await new Promise<string>((resolve, reject) => {
    child.once('exit', (code) => reject(new Error(`ended with ${code}`)));
    child.stdout?.on('data', (data: Buffer) => {
      const address = /http:\/\/\S+/.exec(data.toString())?.[0];
      if (address) resolve(address.replace(/\/$/, ''));
    });
  });
  return { process: child, base };
}

const sessionOf = async ({ services, user }: Started): Promise<string> =>
  sessionCookie(await services.sessions.begin(user.id, 'test'));

async function send(method: string, base: string, path: string, body: unknown, cookie: string): Promise<unknown> {
  const headers = { 'content-type': 'application/json', cookie };
  return (await fetch(`${base}${path}`, { method, headers, body: JSON.stringify(body) })).json();
}
