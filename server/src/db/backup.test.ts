/** Backup and restore, tested by using them while the place is in use. */
import { existsSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { makePublished, makeText, start, type Started } from '../testing/start.js';
import { backUp, restore } from './backup.js';
import { schema } from './database.js';

let server: Started;
let folder: string;
beforeEach(async () => {
  server = await start();
  folder = mkdtempSync(join(tmpdir(), 'vocabula-backup-'));
});
afterEach(async () => {
  await server.stop();
  rmSync(folder, { recursive: true, force: true });
});
const names = async (): Promise<string[]> =>
  (await server.call.get('/api/texts')).body.map(({ name }: { name: string }) => name);

describe('a copy', () => {
  it('is taken while others write, and put back while the place is in use', async () => {
    await makePublished(server, 'Before');
    const file = join(folder, 'copy.db');
    const writing = Array.from({ length: 12 }, (_, at) => makeText(server, `Meanwhile ${at}`));
    await Promise.all([...writing, backUp(server.url, file)]);
    expect(existsSync(file)).toBe(true);
    await makeText(server, 'After');
    await server.call.delete('/api/texts/before').expect(204);
    expect(await names()).toContain('after');

    const numbers = async () =>
      (await server.database.read.select().from(schema.generations)).map(({ number }) => number);
    const before = await numbers();
    expect(await restore(server.url, file)).toBeGreaterThan(0);
    // What was kept of rights and versions is made anew.
    expect((await numbers()).every((number, at) => number > (before[at] ?? Infinity))).toBe(true);
    const found = await names();
    expect([found.includes('before'), found.includes('after')]).toEqual([true, false]);
    // All that belongs to it is there: versions, search, sessions, and the guard of the audit trail.
    expect((await server.call.get('/api/versions/before')).body.published.number).toBe(1);
    expect((await server.call.get('/api/texts/search?q=before')).body).toHaveLength(1);
    expect((await server.call.get('/api/texts/search?q=after&for=write')).body).toEqual([]);
    const changed = server.database.write((writer) => writer.run('DELETE FROM audit' as never));
    await expect(changed).rejects.toThrow();
    await makePublished(server, 'Goes on');
    expect((await server.call.get('/api/texts/search?q=goes')).body).toHaveLength(1);
  });
  it('is refused where it would overwrite, and from what is no copy', async () => {
    const file = join(folder, 'copy.db');
    await backUp(server.url, file);
    await expect(backUp(server.url, file)).rejects.toThrow('there already');
    await expect(backUp('file:/nowhere/x.db', join(folder, 'x.db'))).rejects.toThrow('no database');
    writeFileSync(join(folder, 'words.db'), 'not a database, only words');
    await expect(restore(server.url, join(folder, 'words.db'))).rejects.toThrow(/no database that can be read|no copy/);
    await expect(restore(server.url, join(folder, 'missing.db'))).rejects.toThrow('no file');
    expect(await names()).toEqual([]);
  });
});
