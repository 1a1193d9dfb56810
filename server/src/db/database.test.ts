/** Stopping, starting again, and being killed. */
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
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

const sessionOf = async ({ services, asker }: Started): Promise<string> =>
  sessionCookie(await services.sessions.begin(asker.id, 'test'));

async function send(method: string, base: string, path: string, body: unknown, cookie: string): Promise<unknown> {
  const headers = { 'content-type': 'application/json', cookie };
  return (await fetch(`${base}${path}`, { method, headers, body: JSON.stringify(body) })).json();
}
