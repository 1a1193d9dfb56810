/**
 * What depends on nothing but a generation, kept for as long as that stays the same: in every process, since the number
 * stands in the database and is raised by the transaction of each change.
 */
import { sql } from 'drizzle-orm';
import { among } from './among.js';
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
    // Inside a transaction that has changed something, what is seen may yet be taken back: nothing is kept of it.
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
    // What changed meanwhile raised the number: then this is not found again.
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
