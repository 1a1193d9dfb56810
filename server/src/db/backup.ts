/** Copies of a database that is in use, and putting one back, in use too. */
import { copyFileSync, existsSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { createClient, type Client } from '@libsql/client';
import { Database } from './database.js';

/** Milliseconds that the driver waits for whoever writes. A copy is in no hurry. */
const WAIT = 10_000;
const open = (url: string): Client => createClient({ url, timeout: WAIT } as Parameters<typeof createClient>[0]);

export class BackupProblem extends Error {}

/**
 * Writes a copy of a database to a file, as it is at one moment, while others go on writing.
 * @param url of the database, a `file:` path
 * @throws BackupProblem where there is a file already, or no database
 */
export async function backUp(url: string, to: string): Promise<void> {
  if (existsSync(to)) throw new BackupProblem(`${to} is there already. Name another file.`);
  if (!url.startsWith('file:')) throw new BackupProblem('Only a database in a file is copied here.');
  if (!existsSync(url.slice('file:'.length))) throw new BackupProblem(`There is no database at ${url}.`);
  const client = open(url);
  try {
    await client.execute({ sql: 'VACUUM INTO ?', args: [resolve(to)] });
  } finally {
    client.close();
  }
}

/**
 * Puts a copy in the place of what a database holds, in one transaction: whoever reads meanwhile sees all of the old or
 * all of the new. A copy from before a migration is migrated first, itself untouched.
 * @returns how many rows there are now
 * @throws BackupProblem where the file is no copy of a database of ours
 */
export async function restore(url: string, from: string): Promise<number> {
  if (!existsSync(from)) throw new BackupProblem(`There is no file ${from}.`);
  sweepRestores();
  const folder = mkdtempSync(join(tmpdir(), `${FOLDER}${process.pid}-`));
  const copy = join(folder, 'copy.db');
  const remove = (): void => rmSync(folder, { recursive: true, force: true });
  const ended = (): never => {
    remove();
    process.exit(1);
  };
  for (const signal of SIGNALS) process.once(signal, ended);
  try {
    copyFileSync(from, copy);
    await sound(copy);
    // Both of one shape: the newest.
    for (const each of [`file:${copy}`, url]) await (await Database.open(each)).close();
    const client = open(url);
    try {
      await client.execute({ sql: 'ATTACH DATABASE ? AS copy', args: [copy] });
      return await replaced(client);
    } finally {
      client.close();
    }
  } finally {
    for (const signal of SIGNALS) process.off(signal, ended);
    remove();
  }
}

/** What folders of copies are called, with the number of their process behind it. */
const FOLDER = 'vocabula-restore-';
const SIGNALS = ['SIGINT', 'SIGTERM', 'SIGHUP'] as const;

/** Removes what restores left behind that were killed: their processes are there no more. */
export function sweepRestores(): void {
  for (const name of readdirSync(tmpdir())) {
    const [, pid] = /^vocabula-restore-(\d+)-/.exec(name) ?? [];
    if (pid === undefined || isRunning(Number(pid))) continue;
    rmSync(join(tmpdir(), name), { recursive: true, force: true });
  }
}

function isRunning(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return true;
  } catch {
    return false;
  }
}

async function sound(path: string): Promise<void> {
  const client = open(`file:${path}`);
  try {
    const { rows } = await client.execute('PRAGMA integrity_check');
    const [first] = rows;
    if (first?.integrity_check !== 'ok') throw new BackupProblem('The copy is damaged.');
    const texts = await client.execute("SELECT name FROM sqlite_master WHERE name = 'texts'");
    if (texts.rows.length === 0) throw new BackupProblem('This is no copy of a database of ours.');
  } catch (problem) {
    if (problem instanceof BackupProblem) throw problem;
    throw new BackupProblem('This is no database that can be read.');
  } finally {
    client.close();
  }
}

/**
 * What was to go when the copy was made may have gone since: it is set apart until its person decides, and mailings that
 * ran are paused.
 */
const RESTORED = 'A backup was restored: this may have gone after the copy was made.';
const SET_APART = [
  `UPDATE main.outgoing SET state = 'uncertain', claimed_by = NULL, why = '${RESTORED}'
   WHERE state IN ('waiting', 'sending')
   OR (state = 'ready' AND mailing IN (SELECT id FROM main.mailings WHERE state IN ('first', 'going', 'paused')))`,
  `UPDATE main.mailings SET state = 'paused' WHERE state IN ('first', 'going')`,
  'DELETE FROM main.pauses',
];

/** Puts all rows of the attached copy in the place of those there are. */
async function replaced(client: Client): Promise<number> {
  const names = async (type: 'table' | 'trigger'): Promise<{ name: string; sql: string }[]> => {
    const { rows } = await client.execute({
      sql: 'SELECT name, sql FROM main.sqlite_master WHERE type = ?',
      args: [type],
    });
    return rows.map((row) => ({ name: String(row.name), sql: String(row.sql) }));
  };
  const triggers = await names('trigger');
  const tables = (await names('table')).filter(
    ({ name }) => !/^(?:sqlite_|__|search$|search_|generations$)/.test(name),
  );
  const moves: string[] = [];
  const counts: string[] = [];
  for (const { name } of tables) {
    const { rows } = await client.execute(`PRAGMA main.table_info("${name}")`);
    const columns = rows.map((column) => `"${String(column.name)}"`).join(', ');
    moves.push(
      `DELETE FROM main."${name}"`,
      `INSERT INTO main."${name}" (${columns}) SELECT ${columns} FROM copy."${name}"`,
    );
    counts.push(`SELECT count(*) AS rows FROM main."${name}"`);
  }
  const words = 'title, subject, "call", labels, body';
  // As one script: between statements of its own the driver ends a transaction.
  const script = [
    'PRAGMA foreign_keys = OFF',
    'BEGIN IMMEDIATE',
    ...triggers.map(({ name }) => `DROP TRIGGER main."${name}"`),
    ...moves,
    'DELETE FROM main.search',
    `INSERT INTO main.search (rowid, ${words}) SELECT rowid, ${words} FROM copy.search`,
    ...triggers.map(({ sql }) => sql),
    ...SET_APART,
    // These only ever rise: what a process has kept must not be found again.
    'UPDATE main.generations SET number = number + 1',
    'COMMIT',
  ];
  await client.executeMultiple(`${script.join(';\n')};`);
  const { rows } = await client.execute(`SELECT sum(rows) AS rows FROM (${counts.join(' UNION ALL ')})`);
  return Number(rows[0]?.rows ?? 0);
}
