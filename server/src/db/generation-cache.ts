/**
 * A cache of values that depend only on some tables. Triggers raise a number in the database whenever one of these tables
 * changes, in the same transaction. A cached value is valid while the number is the same, in every process.
 */
import { sql } from 'drizzle-orm';
import { among } from './in-list.js';
import type { generations } from './schema/generations.js';
import { databaseOf, type Database, type Reader, type Writer } from './database.js';

/** What a generation is counted of. */
export type Topic = (typeof generations.$inferSelect)['topic'];

interface Stored<V> {
  readonly at: number;
  readonly value: V;
}

export class Kept<V> {
  private readonly stored = new WeakMap<Database, Map<string, Stored<V>>>();

  constructor(
    private readonly topics: readonly Topic[],
    /** How many values are kept of one database; the last asked for stay. */
    private readonly most: number,
  ) {}

  /**
   * The value of a key: as it was kept, or made now.
   * @param make asks nothing that the topics do not tell of
   */
  async get(reader: Reader | Writer, key: string, make: () => Promise<V>): Promise<V> {
    const database = databaseOf(reader);
    const at = await generationOf(reader, this.topics);
    // A transaction that has changed these tables may still be rolled back, so nothing it sees is cached.
    if (reader !== database.read && at !== (await generationOf(database.read, this.topics))) return make();
    const values = this.stored.get(database) ?? new Map<string, Stored<V>>();
    this.stored.set(database, values);
    const known = values.get(key);
    values.delete(key);
    if (known?.at === at) {
      values.set(key, known);
      return known.value;
    }
    const value = await make();
    // If the tables changed while the value was made, the number is higher now and this entry is never used.
    values.set(key, { at, value });
    for (const [oldest] of values) {
      if (values.size <= this.most) break;
      values.delete(oldest);
    }
    return value;
  }
}

/** The sum of some generations: it changes with each of them. */
async function generationOf(reader: Reader | Writer, topics: readonly Topic[]): Promise<number> {
  const [row] = await reader.values<[number]>(sql`SELECT sum(number) FROM generations WHERE topic IN ${among(topics)}`);
  return row?.[0] ?? 0;
}
