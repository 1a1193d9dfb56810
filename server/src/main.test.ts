import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';

let folder: string;
let child: ChildProcess;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'vocabula-'));
});
afterEach(() => {
  child.kill('SIGKILL');
  rmSync(folder, { recursive: true, force: true });
});

const start = (environment: Readonly<Record<string, string>>): ChildProcess =>
  spawn(process.execPath, ['--import', 'tsx', fileURLToPath(new URL('./main.ts', import.meta.url))], {
    env: {
      ...process.env,
      DATABASE_URL: `file:${join(folder, 'main.db')}`,
      PORT: '0',
      LOG_LEVEL: 'silent',
      WORKERS: '2',
      ...environment,
    },
    stdio: ['ignore', 'pipe', 'ignore'],
  });
/** Where it says that it is. Its output goes on being read: a pipe that is closed would end it. */
const address = (of: ChildProcess): Promise<string> =>
  new Promise((resolve, reject) => {
    of.once('exit', () => reject(new Error('it ended')));
    of.stdout?.on('data', (data) => {
      const found = /http:\/\/[^\s/]+/.exec(String(data))?.[0];
      if (found) resolve(found);
    });
  });
/** A port that nobody listens on: one that the system gives is given up when its last process ends. */
async function freePort(): Promise<string> {
  const server = createServer().listen(0, '127.0.0.1');
  await once(server, 'listening');
  const { port } = server.address() as AddressInfo;
  server.close();
  await once(server, 'close');
  return String(port);
}
/** The processes that another has started (Linux). */
const childrenOf = (pid: number): number[] =>
  readFileSync(`/proc/${pid}/task/${pid}/children`, 'utf8').trim().split(' ').filter(Boolean).map(Number);
const WAIT = { timeout: 60_000, interval: 200 };

describe.runIf(process.platform === 'linux')('a server of two processes', () => {
  it('goes on answering when one is killed, starts another, and ends whole', async () => {
    child = start({ PORT: await freePort() });
    const base = await address(child);
    const pid = child.pid as number;
    const answers = async (): Promise<void> => {
      const answer = await fetch(`${base}/api/health`);
      expect(answer.status).toBe(200);
      // Longer than proxies keep idle connections, so that none is closed just as a request is sent on it.
      expect(answer.headers.get('keep-alive')).toBe('timeout=75');
    };
    await answers();
    await vi.waitFor(() => expect(childrenOf(pid)).toHaveLength(2), WAIT);
    const [first = 0] = childrenOf(pid);
    process.kill(first, 'SIGKILL');
    await vi.waitFor(() => {
      expect(childrenOf(pid)).toHaveLength(2);
      expect(childrenOf(pid)).not.toContain(first);
    }, WAIT);
    await vi.waitFor(answers, WAIT);
    child.kill('SIGTERM');
    const [code] = (await once(child, 'exit')) as [number];
    expect(code).toBe(0);
  }, 120_000);

  it('ends where it cannot start, and is not started again and again', async () => {
    // A folder cannot be made below a file.
    writeFileSync(join(folder, 'file'), '');
    child = start({ DATABASE_URL: `file:${join(folder, 'file', 'main.db')}` });
    const [code] = (await once(child, 'exit')) as [number];
    expect(code).toBe(1);
  }, 120_000);
});
