import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Client } from '@libsql/client';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { clientFor } from './driver.js';

let folder: string;
let client: Client;
beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'vocabula-'));
  client = clientFor(`file:${join(folder, 'a file.db')}`, 5);
  await client.executeMultiple('PRAGMA journal_mode = WAL; CREATE TABLE things (id INTEGER PRIMARY KEY, what)');
});
afterEach(() => {
  client.close();
  rmSync(folder, { recursive: true, force: true });
});
const whats = async (): Promise<unknown[]> =>
  (await client.execute('SELECT what FROM things ORDER BY id')).rows.map((row) => row[0]);
const add = (what: unknown) => ({ sql: 'INSERT INTO things (what) VALUES (?)', args: [what as string] });

describe('a client for a file', () => {
  it('takes values of every kind there is, and says how many rows it changed', async () => {
    const bytes = new Uint8Array([0, 1, 255]);
    for (const what of ['words', 'Ünïcode ✓', 7, 0.5, null, true, bytes]) await client.execute(add(what));
    expect(await whats()).toEqual(['words', 'Ünïcode ✓', 7, 0.5, null, 1, Buffer.from(bytes)]);
    expect((await client.execute('UPDATE things SET what = 1')).rowsAffected).toBe(7);
  });
  it.each([[{ a: 1 }], [undefined], [new Date()], [['a']]])('refuses %j in words, and goes on', async (what) => {
    await expect(client.execute(add(what))).rejects.toThrow('cannot be bound');
    await client.execute(add('after'));
    expect(await whats()).toEqual(['after']);
  });
  it('gives rows back from what changes rows', async () => {
    const { rows } = await client.execute({ ...add('new'), sql: `${add('').sql} RETURNING id, what` });
    expect(rows).toEqual([[1, 'new']]);
  });
  it('keeps many statements apart, with what each is given', async () => {
    for (let at = 0; at < 1200; at += 1) {
      const { rows } = await client.execute({ sql: `SELECT ? + ${at}`, args: [at] });
      expect(rows).toEqual([[2 * at]]);
    }
  });
});

describe('a transaction', () => {
  it('is not seen before it is committed, and does not keep readers waiting', async () => {
    const transaction = await client.transaction();
    await transaction.execute(add('in it'));
    expect((await transaction.execute('SELECT what FROM things')).rows).toEqual([['in it']]);
    expect(await whats()).toEqual([]);
    await transaction.commit();
    expect(await whats()).toEqual(['in it']);
  });
  it('leaves nothing when it is rolled back, or closed without an end', async () => {
    for (const end of ['rollback', 'close'] as const) {
      const transaction = await client.transaction();
      await transaction.execute(add(end));
      await transaction[end]();
    }
    expect(await whats()).toEqual([]);
    // And another can begin.
    await client.batch([add('a'), add('b')]);
    expect(await whats()).toEqual(['a', 'b']);
  });
  it('of several statements is done whole or not at all', async () => {
    await expect(client.batch([add('a'), 'INSERT INTO nowhere VALUES (1)'])).rejects.toThrow('nowhere');
    expect(await whats()).toEqual([]);
  });
});

describe('a client that was closed', () => {
  it('says so, and works again once it is connected anew', async () => {
    client.close();
    await expect(client.execute('SELECT 1')).rejects.toMatchObject({ code: 'CLIENT_CLOSED' });
    client.reconnect();
    expect((await client.execute('SELECT 1')).rows).toEqual([[1]]);
  });
});
