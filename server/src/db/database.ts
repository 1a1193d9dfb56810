/** The database: opened, migrated, written through one queue. */
import { setTimeout as wait } from 'node:timers/promises';
import type { Client } from '@libsql/client';
import { drizzle, type LibSQLDatabase } from 'drizzle-orm/libsql';
import { migrate } from 'drizzle-orm/libsql/migrator';
import { clientFor, insideTransactions, writtenThrough } from './driver.js';
import * as schema from './schema.js';
import { DATABASE_TROUBLE, troubleOf } from './database-errors.js';
import { PLACES } from '../places.js';

export type Reader = LibSQLDatabase<typeof schema>;
export type Writer = Parameters<Parameters<Reader['transaction']>[0]>[0];

/** Milliseconds that the driver itself waits for whoever writes, which blocks this thread; the rest is waited for asynchronously. */
const BUSY_MS = 5;
/** After so long, in milliseconds, one is told that the database is busy: before a worker thread's time is over. */
const PATIENCE = 7_000;
/** The longest pause between two tries, in milliseconds. */
const LONGEST_PAUSE = 400;
/**
 * After so many tries the connections are opened anew: one on which a transaction could not begin while another process
 * held the database may go on failing at once after that is over.
 */
const ANEW_EVERY = 12;

const databases = new WeakMap<Reader | Writer, Database>();
/** The database that something reads, or writes in a transaction. */
export function databaseOf(reader: Reader | Writer): Database {
  const found = databases.get(reader);
  if (!found) throw new Error('This reads no database that was opened here.');
  return found;
}

export class Database {
  private queue: Promise<unknown> = Promise.resolve();
  private broken: string | undefined;
  /** What executes statements inside the transaction under way, for `Built`; undefined where that is not possible. */
  readonly inside: Reader | undefined;
  /** How many writing statements there had been when a transaction began. */
  private readonly writtenBefore = new WeakMap<Reader | Writer, number | undefined>();

  private constructor(
    /** What it was opened by. */
    readonly url: string,
    readonly read: Reader,
    private readonly client: Client,
  ) {
    databases.set(read, this);
    const inside = insideTransactions(client);
    this.inside = inside && drizzle(inside, { schema, casing: 'snake_case' });
  }

  /** Opens and migrates. `url` is a `file:` path, or a libSQL server's address (untested). */
  static async open(url: string): Promise<Database> {
    const client = clientFor(url, BUSY_MS);
    if (url.startsWith('file:')) await patiently(() => client.execute('PRAGMA journal_mode = WAL'));
    const read = drizzle(client, { schema, casing: 'snake_case' });
    await patiently(() => migrate(read, { migrationsFolder: PLACES.migrations }));
    // That it can be read is known by now; that it can be written is tried before anybody relies on it.
    await patiently(() => client.executeMultiple('BEGIN IMMEDIATE; PRAGMA user_version = 0; COMMIT;'));
    return new Database(url, read, client);
  }

  /** A further connection to a database that is open and migrated: for worker threads. */
  static join(url: string): Database {
    const client = clientFor(url, BUSY_MS);
    return new Database(url, drizzle(client, { schema, casing: 'snake_case' }), client);
  }

  /**
   * Runs one change as one transaction, after all changes asked for before it. Inside, nothing may be
   * awaited but the database: concurrent transactions on this driver end in SQLITE_BUSY.
   */
  write<T>(change: (writer: Writer) => Promise<T>): Promise<T> {
    const result = this.queue.then(() =>
      patiently(
        () => this.transaction(change),
        // Changes are made one after the other, so no transaction of ours is under way.
        () => this.client.reconnect(),
      ),
    );
    this.queue = result.then(
      () => (this.broken = undefined),
      (error: unknown) => this.noteTrouble(error),
    );
    return result;
  }

  /**
   * One transaction. What went wrong inside is what is thrown: a full disk ends a transaction by itself, and the driver’s
   * complaint that there is none left to roll back would hide why.
   */
  private async transaction<T>(change: (writer: Writer) => Promise<T>): Promise<T> {
    let failure: { readonly of: unknown } | undefined;
    try {
      return await this.read.transaction(
        async (writer) => {
          databases.set(writer, this);
          this.writtenBefore.set(writer, writtenThrough(this.client));
          try {
            return await change(writer);
          } catch (error) {
            failure = { of: error };
            throw error;
          }
        },
        { behavior: 'immediate' },
      );
    } catch (error) {
      throw failure ? failure.of : error;
    }
  }

  /** How many statements a transaction has executed that may have changed something; undefined where that is not known. */
  writtenIn(writer: Reader | Writer): number | undefined {
    const [before, now] = [this.writtenBefore.get(writer), writtenThrough(this.client)];
    return before === undefined || now === undefined ? undefined : now - before;
  }

  /** What is wrong with the database, in words; undefined as far as nothing is known to be. A change that succeeds ends it. */
  get trouble(): string | undefined {
    return this.broken;
  }

  /** Learns from an error whether something is wrong with the database itself. */
  noteTrouble(error: unknown): void {
    // What went wrong in another thread comes as the answer it becomes.
    const { code, message } = (error ?? {}) as { code?: unknown; message?: string };
    this.broken = (code === DATABASE_TROUBLE ? message : troubleOf(error)) ?? this.broken;
  }

  /** Waits for changes under way, then closes. */
  async close(): Promise<void> {
    await this.queue;
    this.client.close();
  }
}

/** Tries again while another process holds the database. */
async function patiently<T>(work: () => Promise<T>, anew: () => void = () => undefined): Promise<T> {
  const end = performance.now() + PATIENCE;
  for (let attempt = 1; ; attempt += 1) {
    try {
      return await work();
    } catch (error) {
      const busy = /SQLITE_BUSY|database is locked/.test(
        `${String(error)} ${String((error as { cause?: unknown }).cause ?? '')}`,
      );
      if (!busy || performance.now() > end) throw error;
      if (attempt % ANEW_EVERY === 0) anew();
      await wait(Math.min(LONGEST_PAUSE, 15 + 10 * attempt));
    }
  }
}

export { schema };
