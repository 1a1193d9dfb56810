/**
 * A database client for Drizzle over SQLite files: one connection for reading, one for writing. Each statement is prepared
 * once and cached. Reads do not wait for an open transaction.
 *
 * The client in `@libsql/client` prepares every statement again and opens a connection for every transaction. It is still
 * used for addresses that are not files, see `clientFor`.
 */
import {
  createClient,
  LibsqlError,
  type Client,
  type InArgs,
  type InStatement,
  type ResultSet,
  type Row,
  type Transaction,
} from '@libsql/client';
import Libsql from 'libsql';

/** Statements that change nothing, whatever they give back. */
const READS = /^\s*(?:select|begin)\b/i;

/** Statements that a connection keeps, the last used; longer ones than this many characters are not kept. */
const [MOST_KEPT, LONGEST_KEPT] = [500, 4000];

interface Statement {
  raw(on: boolean): unknown;
  all(parameters: readonly unknown[]): unknown[];
  run(parameters: readonly unknown[]): { readonly changes: number; readonly lastInsertRowid: number | bigint };
}

interface Prepared {
  readonly statement: Statement;
  /** Whether it gives rows. Asked once: the library asks SQLite each time. */
  readonly givesRows: boolean;
  readonly changes: boolean;
}

/** One connection to a file. Everything on it happens at once, in this thread. */
class Connection {
  /** Statements so far that may have changed something. */
  written = 0;
  private database: InstanceType<typeof Libsql> | undefined;
  private readonly kept = new Map<string, Prepared>();

  constructor(
    private readonly path: string,
    /** Milliseconds that SQLite waits for who writes, which blocks this thread. */
    private readonly timeout: number,
  ) {
    this.open();
  }

  open(): void {
    this.close();
    this.database = new Libsql(this.path, { timeout: this.timeout });
  }
  close(): void {
    this.kept.clear();
    this.database?.close();
    this.database = undefined;
  }
  /** Brings all that is written into the one file of the database, as far as no reader is in the way; never waits. */
  checkpoint(): void {
    try {
      this.database?.pragma('wal_checkpoint(PASSIVE)');
    } catch {
      // What stays in the log is read from there at the next start; a disk in trouble is told by the next act.
    }
  }
  get inTransaction(): boolean {
    return this.database?.inTransaction ?? false;
  }
  /** Runs statements that give nothing back. */
  script(sql: string): void {
    this.written += 1;
    this.opened().exec(sql);
  }
  /** Rows are arrays of values, in the order of their columns. */
  execute(given: InStatement): ResultSet {
    const { sql, args = [] } = typeof given === 'string' ? { sql: given } : given;
    const { statement: prepared, givesRows, changes: writes } = this.prepared(sql);
    const parameters = bindable(args);
    if (writes) this.written += 1;
    if (givesRows) return resultOf(prepared.all(parameters) as unknown as Row[], 0, undefined);
    const { changes, lastInsertRowid } = prepared.run(parameters);
    return resultOf([], changes, BigInt(lastInsertRowid));
  }

  private opened(): InstanceType<typeof Libsql> {
    if (!this.database) throw new LibsqlError('The connection is closed.', 'CLIENT_CLOSED');
    return this.database;
  }
  private prepared(sql: string): Prepared {
    const known = this.kept.get(sql);
    if (known) {
      // The last used are at the end.
      this.kept.delete(sql);
      this.kept.set(sql, known);
      return known;
    }
    const statement = this.opened().prepare(sql) as unknown as Statement & { readonly reader: boolean };
    const made: Prepared = { statement, givesRows: statement.reader, changes: !READS.test(sql) };
    if (made.givesRows) statement.raw(true);
    if (sql.length > LONGEST_KEPT) return made;
    this.kept.set(sql, made);
    for (const [oldest] of this.kept) {
      if (this.kept.size <= MOST_KEPT) break;
      this.kept.delete(oldest);
    }
    return made;
  }
}

const resultOf = (rows: Row[], rowsAffected: number, lastInsertRowid: bigint | undefined): ResultSet => ({
  rows,
  rowsAffected,
  lastInsertRowid,
  columns: [],
  columnTypes: [],
  toJSON: () => ({ rows, rowsAffected }),
});

/** Converts parameters for the native binding. Other types would abort the process, so they throw here. */
function bindable(args: InArgs): unknown[] {
  if (!Array.isArray(args)) throw new TypeError('Parameters are given by their position.');
  return args.map((value: unknown) => {
    if (typeof value === 'boolean') return value ? 1 : 0;
    if (value === null || typeof value === 'string' || typeof value === 'number' || typeof value === 'bigint')
      return value;
    if (Buffer.isBuffer(value)) return value;
    if (value instanceof Uint8Array) return Buffer.from(value);
    throw new TypeError(`A parameter of type ${typeof value} cannot be bound.`);
  });
}

/** A client over two connections to one file. */
class FileClient implements Client {
  readonly protocol = 'file';
  closed = false;
  private readonly reading: Connection;
  private readonly writing: Connection;

  constructor(path: string, timeout: number) {
    this.reading = new Connection(path, timeout);
    this.writing = new Connection(path, timeout);
  }

  /** Statements so far, in all transactions, that may have changed something. */
  get written(): number {
    return this.writing.written;
  }
  execute(statement: InStatement | string, args?: InArgs): Promise<ResultSet> {
    return attempt(() =>
      this.reading.execute(typeof statement === 'string' && args ? { sql: statement, args } : statement),
    );
  }
  /** Begins to write. One transaction at a time: whoever calls this waits for the one before. */
  transaction(): Promise<Transaction> {
    return attempt(() => {
      this.writing.execute('BEGIN IMMEDIATE');
      return new FileTransaction(this.writing);
    });
  }
  async batch(statements: (InStatement | [string, InArgs?])[]): Promise<ResultSet[]> {
    const transaction = await this.transaction();
    try {
      const results = await transaction.batch(
        statements.map((each) => (Array.isArray(each) ? { sql: each[0], args: each[1] ?? [] } : each)),
      );
      await transaction.commit();
      return results;
    } finally {
      transaction.close();
    }
  }
  async migrate(statements: InStatement[]): Promise<ResultSet[]> {
    // References may point nowhere while tables are made anew.
    this.writing.script('PRAGMA foreign_keys = off');
    try {
      return await this.batch(statements);
    } finally {
      this.writing.script('PRAGMA foreign_keys = on');
    }
  }
  executeMultiple(sql: string): Promise<void> {
    return attempt(() => this.writing.script(sql));
  }
  /** The same client, but for single statements, which run on the writing connection. */
  inside(): Client {
    const execute: Client['execute'] = (statement: InStatement | string, args?: InArgs) =>
      attempt(() => this.writing.execute(typeof statement === 'string' && args ? { sql: statement, args } : statement));
    return Object.create(this, { execute: { value: execute } }) as Client;
  }
  sync(): Promise<undefined> {
    return Promise.resolve(undefined);
  }
  reconnect(): void {
    this.reading.open();
    this.writing.open();
  }
  close(): void {
    this.closed = true;
    this.reading.close();
    // Kept statements hold the file open in the library, so that SQLite would not do this by itself at the end.
    this.writing.checkpoint();
    this.writing.close();
  }
}

class FileTransaction implements Transaction {
  closed = false;
  constructor(private readonly connection: Connection) {}

  execute(statement: InStatement): Promise<ResultSet> {
    return attempt(() => this.connection.execute(statement));
  }
  batch(statements: InStatement[]): Promise<ResultSet[]> {
    return attempt(() => statements.map((each) => this.connection.execute(each)));
  }
  executeMultiple(sql: string): Promise<void> {
    return attempt(() => this.connection.script(sql));
  }
  commit(): Promise<void> {
    return attempt(() => {
      this.connection.execute('COMMIT');
      this.closed = true;
    });
  }
  rollback(): Promise<void> {
    return attempt(() => this.close());
  }
  /** Takes back what was not committed. A full disk has ended the transaction by itself. */
  close(): void {
    if (!this.closed && this.connection.inTransaction) this.connection.execute('ROLLBACK');
    this.closed = true;
  }
}

/** Does work at once; what it throws is a rejection. */
const attempt = <T>(work: () => T): Promise<T> =>
  new Promise((resolve) => {
    resolve(work());
  });

/**
 * A client for an address.
 * @param url a `file:` path, or a libSQL server's address, which goes through the driver's own client (untested)
 * @param timeout milliseconds that SQLite itself waits for who writes
 */
export function clientFor(url: string, timeout: number): Client {
  if (!url.startsWith('file:')) return createClient({ url, timeout } as Parameters<typeof createClient>[0]);
  return new FileClient(decodeURIComponent(url.slice('file:'.length).replace(/^\/\/(?=\/)/, '')), timeout);
}

/** Statements through a client so far that may have changed something, in its transactions; undefined for a server’s. */
export const writtenThrough = (client: Client): number | undefined =>
  client instanceof FileClient ? client.written : undefined;

/** A client whose single statements run inside whatever transaction is under way; undefined for a server’s. */
export const insideTransactions = (client: Client): Client | undefined =>
  client instanceof FileClient ? client.inside() : undefined;
