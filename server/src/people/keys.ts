/** Keys by which other programs act for a person. */
import { randomUUID } from 'node:crypto';
import type { Key, MakeKey, NewKey } from '@vocabula/contract';
import { and, desc, eq, isNull } from 'drizzle-orm';
import { note } from '../audit/service.js';
import { schema, type Database, type Writer } from '../db/database.js';
import { notFound } from '../http/problem.js';
import type { User } from './user.js';
import { digestOf, newToken } from './secrets.js';
import { userOfRow } from './names.js';

const { keys, people } = schema;
/** What keys begin with, so that one that got lost is recognised. */
const MARK = 'voc_';

export class KeyService {
  constructor(private readonly database: Database) {}

  async list(user: User): Promise<Key[]> {
    const rows = await this.database.read
      .select()
      .from(keys)
      .where(and(eq(keys.person, user.id), isNull(keys.endedAt)))
      .orderBy(desc(keys.createdAt));
    return rows.map(keyOf);
  }

  /** Makes a key. It is shown now and never again. */
  make({ title, scopes }: MakeKey, user: User): Promise<NewKey> {
    const key = `${MARK}${newToken()}`;
    const row: typeof keys.$inferSelect = {
      id: randomUUID(),
      person: user.id,
      title,
      digest: digestOf(key),
      start: key.slice(0, 8),
      scopes: [...new Set(scopes)],
      createdAt: new Date().toISOString(),
      usedAt: null,
      endedAt: null,
    };
    return this.database.write(async (writer) => {
      await writer.insert(keys).values(row);
      await note(writer, user, 'made', 'key', row.id, `${title}: ${scopes.join(', ')}`);
      return { ...keyOf(row), key };
    });
  }

  end(id: string, user: User): Promise<void> {
    return this.database.write(async (writer) => {
      const [row] = await writer
        .select()
        .from(keys)
        .where(and(eq(keys.id, id), eq(keys.person, user.id), isNull(keys.endedAt)));
      if (!row) throw notFound('key');
      await writer.update(keys).set({ endedAt: new Date().toISOString() }).where(eq(keys.id, id));
      await note(writer, user, 'ended', 'key', id, row.title);
    });
  }

  /** The person a key acts for, with what it may do; undefined once it or they have ended. */
  async user(key: string): Promise<User | undefined> {
    const [found] = await this.database.read
      .select({ key: keys, person: people })
      .from(keys)
      .innerJoin(people, eq(people.id, keys.person))
      .where(and(eq(keys.digest, digestOf(key)), isNull(keys.endedAt)));
    if (!found || found.person.endedAt !== null) return undefined;
    const day = new Date().toISOString().slice(0, 10);
    if (found.key.usedAt?.slice(0, 10) !== day)
      await this.database.write((writer) =>
        writer.update(keys).set({ usedAt: new Date().toISOString() }).where(eq(keys.id, found.key.id)),
      );
    return { ...userOfRow(found.person), scopes: found.key.scopes };
  }
}

const keyOf = (row: typeof keys.$inferSelect): Key => ({
  id: row.id,
  title: row.title,
  start: row.start,
  scopes: row.scopes,
  createdAt: row.createdAt,
  usedAt: row.usedAt ?? undefined,
});

/** Ends all keys of a person, for good: they do not come back with the account. */
export async function endKeys(writer: Writer, person: string): Promise<void> {
  await writer
    .update(keys)
    .set({ endedAt: new Date().toISOString() })
    .where(and(eq(keys.person, person), isNull(keys.endedAt)));
}
