/** A server of its own, with the demo, for what is measured over HTTP. */
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { parse } from 'yaml';

export interface RunningServer {
  readonly base: string;
  readonly database: string;
  readonly process: ChildProcess;
  /** The cookie of somebody of the demo, by their key. */
  signIn(key: string): Promise<string>;
}

/** With `PROFILE=folder` the server writes a profile of its processor time there when it ends. */
const PROFILING = process.env.PROFILE ? ['--cpu-prof', `--cpu-prof-dir=${process.env.PROFILE}`] : [];

/** A folder that goes away with the process. */
export function temporaryFolder(): string {
  const folder = mkdtempSync(join(tmpdir(), 'vocabula-bench-'));
  process.once('exit', () => rmSync(folder, { recursive: true, force: true }));
  return folder;
}

/** Starts a server on a database in a folder; one that is there already goes on. @param checkout where its code is */
export async function startServer(folder: string, port = 0, checkout = process.cwd()): Promise<RunningServer> {
  const database = `file:${join(folder, 'bench.db')}`;
  const child = spawn(process.execPath, [...PROFILING, '--enable-source-maps', 'server/dist/main.js'], {
    env: { ...process.env, PORT: String(port), DATABASE_URL: database, VOCABULA_DEMO: 'demo', LOG_LEVEL: 'silent' },
    stdio: ['ignore', 'pipe', 'inherit'],
    cwd: checkout,
  });
  const base = await new Promise<string>((resolve, reject) => {
    child.once('exit', () => reject(new Error('the server ended')));
    child.stdout.on('data', (data: Buffer) => {
      const [, found] = /(http:\/\/[^\s/]+)\//.exec(data.toString()) ?? [];
      if (found) resolve(found);
    });
  });
  const { password } = parse(readFileSync('demo/people.yaml', 'utf8')) as { password: string };
  return {
    base,
    database,
    process: child,
    async signIn(key) {
      const answer = await fetch(`${base}/api/door/sign-in`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ address: `${key}@larkmoor.example`, password }),
      });
      const cookie = answer.headers.get('set-cookie')?.split(';')[0];
      if (!cookie) throw new Error(`${key} could not sign in: ${await answer.text()}`);
      return cookie;
    },
  };
}

/** Ends a server, and waits until it has. */
export async function stopServer({ process: child }: RunningServer, signal: NodeJS.Signals = 'SIGTERM'): Promise<void> {
  if (child.exitCode !== null || child.signalCode !== null) return;
  const ended = new Promise<void>((resolve) => child.once('exit', () => resolve()));
  child.kill(signal);
  await ended;
}

/** The value below which a share of them lies. */
export const quantile = (values: readonly number[], share: number): number =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))] ?? NaN;
