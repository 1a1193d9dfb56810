import { eq, sql } from 'drizzle-orm';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { start, type Started } from '../testing/start.js';
import { Built } from './built.js';
import { schema, type Reader, type Writer } from './database.js';

const { folders } = schema;
let made = 0;
const titled = new Built((on) => {
  made += 1;
  return on
    .select({ id: folders.id })
    .from(folders)
    .where(eq(folders.title, sql.placeholder('title')))
    .prepare();
});
const rename = new Built((on) =>
  on
    .update(folders)
    .set({ title: sql`${sql.placeholder('title')}` })
    .where(eq(folders.id, 'root'))
    .prepare(),
);
const idsOf = async (on: Reader | Writer, title: string): Promise<string[]> =>
  (await titled.on(on).all({ title })).map(({ id }) => id);

let server: Started;
beforeEach(async () => {
  made = 0;
  server = await start();
});
afterEach(() => server.stop());

describe('a statement that is built once', () => {
  it('is executed with what each is given, outside and inside transactions', async () => {
    const { database } = server;
    const [root] = await database.read.select().from(folders).where(eq(folders.id, 'root'));
    const title = root?.title ?? '';
    expect(await idsOf(database.read, title)).toEqual(['root']);
    expect(await idsOf(database.read, 'none')).toEqual([]);
    for (let turn = 0; turn < 3; turn += 1)
      await database.write(async (writer) => expect(await idsOf(writer, title)).toEqual(['root']));
    // One for reading, one for all transactions.
    expect(made).toBe(2);
  });
  it('sees and changes what its transaction has, which is taken back with it', async () => {
    const { database } = server;
    const failed = database.write(async (writer) => {
      await rename.on(writer).run({ title: 'Renamed' });
      expect(await idsOf(writer, 'Renamed')).toEqual(['root']);
      expect(await idsOf(database.read, 'Renamed')).toEqual([]);
      throw new Error('taken back');
    });
    await expect(failed).rejects.toThrow('taken back');
    expect(await idsOf(database.read, 'Renamed')).toEqual([]);
    await database.write((writer) =>
      rename
        .on(writer)
        .run({ title: 'Renamed' })
        .then(() => undefined),
    );
    expect(await idsOf(database.read, 'Renamed')).toEqual(['root']);
  });
  it('belongs to one database', async () => {
    const other = await start();
    await other.database.write((writer) =>
      rename
        .on(writer)
        .run({ title: 'Elsewhere' })
        .then(() => undefined),
    );
    expect([await idsOf(server.database.read, 'Elsewhere'), await idsOf(other.database.read, 'Elsewhere')]).toEqual([
      [],
      ['root'],
    ]);
    await other.stop();
  });
});
