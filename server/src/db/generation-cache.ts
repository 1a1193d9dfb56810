/**
 * A cache of values that depend only on some tables. Triggers raise a number in the database whenever one of these tables
 * changes, in the same transaction. A cached value is valid while the number is the same, in every process.
 */
import { Built } from './built.js';
import { databaseOf, schema, type Database, type Reader, type Writer } from './database.js';

/** What a generation is counted of. */
export type Topic = (typeof schema.generations.$inferSelect)['topic'];

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
    // What a transaction has changed of these tables may still be rolled back, so nothing it sees of them is cached.
    if (at === undefined) return make();
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

type Numbers = ReadonlyMap<Topic, number>;

/** What a transaction knows of the generations: read again only after it has written something. */
interface Seen {
  /** Statements it had written by then; undefined where that is not known. */
  readonly written: number | undefined;
  readonly numbers: Numbers;
  /** As they were before it began. */
  readonly before: Numbers;
}
const seen = new WeakMap<Reader | Writer, Seen>();

/** The sum of some generations: it changes with each of them. Undefined in a transaction that has changed one. */
async function generationOf(reader: Reader | Writer, topics: readonly Topic[]): Promise<number | undefined> {
  const database = databaseOf(reader);
  const sum = (numbers: Numbers): number => topics.reduce((all, topic) => all + (numbers.get(topic) ?? 0), 0);
  if (reader === database.read) return sum(await numbersOf(reader));
  const written = database.writtenIn(reader);
  let known = seen.get(reader);
  if (!known || written === undefined || known.written !== written) {
    const numbers = await numbersOf(reader);
    // While it goes on, nobody else can change them.
    const before = known?.before ?? (written === 0 ? numbers : await numbersOf(database.read));
    known = { written, numbers, before };
    seen.set(reader, known);
  }
  return sum(known.numbers) === sum(known.before) ? sum(known.numbers) : undefined;
}

const all = new Built((on) => on.select().from(schema.generations).prepare());

async function numbersOf(reader: Reader | Writer): Promise<Numbers> {
  const rows = await all.on(reader).all();
  return new Map(rows.map(({ topic, number }) => [topic, number]));
}
