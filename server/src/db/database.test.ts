/** Stopping, starting again, and being killed. */
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { documentOf, file, makeText, start } from '../testing/start.js';

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
    await makeText(first, 'Visit');
    const { body } = await first.call.post('/api/fills').send({ text: 'visit', answers: { name: 'Ann' } });
    await first.stop();
    const second = await start(url);
    expect((await second.call.get('/api/texts/visit')).body.document).toEqual(documentOf(file('Visit')));
    expect((await second.call.get(`/api/fills/${body.id}`)).body.answers).toEqual({ name: 'Ann' });
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
    const server = await spawnServer(url);
    const made = await post(server.base, '/api/texts', { kind: 'message', title: 'Visit' });
    let { revision } = made as { revision: number };
    let kept = '';
    let killed = false;
    const timer = setTimeout(() => {
      killed = true;
      server.process.kill('SIGKILL');
    }, 600);
    for (let at = 0; !killed && at < 5000; at += 1) {
      const words = `words ${at}`;
      const saved = await put(server.base, '/api/texts/visit', {
        document: documentOf(file('Visit', words)),
        revision,
      }).catch(() => undefined);
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
    expect((await again.call.get('/api/texts/search?q=words')).body).toHaveLength(1);
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

const send = async (method: string, base: string, path: string, body: unknown): Promise<unknown> => {
  const headers = { 'content-type': 'application/json' };
  return (await fetch(`${base}${path}`, { method, headers, body: JSON.stringify(body) })).json();
};
const post = (base: string, path: string, body: unknown) => send('POST', base, path, body);
const put = (base: string, path: string, body: unknown) => send('PUT', base, path, body);
