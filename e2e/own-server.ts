/** A server of a journey's own, that is stopped and killed as it likes. */
import { spawn, type ChildProcess } from 'node:child_process';
import { copyFileSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

export class OwnServer {
  readonly url: string;
  private readonly folder = mkdtempSync(join(tmpdir(), 'vocabula-'));
  private child: ChildProcess | undefined;

  /** @param from a database to begin with; the demo is loaded where there is none */
  constructor(
    private readonly port: number,
    private readonly options: {
      readonly from?: string;
      readonly environment?: Readonly<Record<string, string>>;
    } = {},
  ) {
    this.url = `http://127.0.0.1:${port}`;
    if (options.from) copyFileSync(options.from, this.database);
  }

  private get database(): string {
    return join(this.folder, 'own.db');
  }

  /** Copies the database of a server that was stopped. */
  keep(path: string): void {
    copyFileSync(this.database, path);
  }

  /** Starts on the database there is; resolves when it listens. */
  async start(): Promise<void> {
    const child = spawn(process.execPath, ['--enable-source-maps', 'server/dist/main.js'], {
      env: {
        ...process.env,
        PORT: String(this.port),
        DATABASE_URL: `file:${this.database}`,
        VOCABULA_DEMO: 'demo',
        LOG_LEVEL: 'silent',
        ...this.options.environment,
      },
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    this.child = child;
    await new Promise<void>((resolve, reject) => {
      child.once('exit', () => reject(new Error('the server ended')));
      child.stdout?.on('data', (data: Buffer) => data.toString().includes('http://') && resolve());
    });
  }

  async stop(signal: NodeJS.Signals): Promise<void> {
    const { child } = this;
    this.child = undefined;
    if (!child || child.exitCode !== null) return;
    const ended = new Promise<void>((resolve) => child.once('exit', () => resolve()));
    child.kill(signal);
    await ended;
  }

  /** Ends it and forgets its database. */
  async end(): Promise<void> {
    await this.stop('SIGKILL');
    rmSync(this.folder, { recursive: true, force: true });
  }
}
