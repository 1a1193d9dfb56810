/**
 * Statements that are built once for each database: building one takes several times as long as executing it. For those
 * that are executed in nearly every request.
 */
import { databaseOf, type Database, type Reader, type Writer } from './database.js';

export class Built<S> {
  private readonly reading = new WeakMap<Database, S>();
  private readonly writing = new WeakMap<Database, S>();

  /** @param build makes the statement, with placeholders for what varies, and prepares it */
  constructor(private readonly build: (on: Reader | Writer) => S) {}

  /** The statement, to be executed where this reads or writes: inside the transaction of a writer, while that goes on. */
  on(reader: Reader | Writer): S {
    const database = databaseOf(reader);
    const [on, known] =
      reader === database.read ? [database.read, this.reading] : [database.inside ?? reader, this.writing];
    const statement = known.get(database) ?? this.build(on);
    // Without a connection that all transactions share, a statement belongs to one transaction.
    if (on !== reader || on === database.read) known.set(database, statement);
    return statement;
  }
}
