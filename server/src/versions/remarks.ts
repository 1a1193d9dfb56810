/** Remarks on words of a working copy. They are kept beside the text and never become part of it. */
import { randomUUID } from 'node:crypto';
import type { ChangeRemark, MakeRemark, Remark } from '@vocabula/contract';
import { and, asc, eq } from 'drizzle-orm';
import { demanded } from '../catalogue/text-summaries.js';
import { schema, type Database, type Writer } from '../db/database.js';
import { notFound } from '../http/problem.js';
import type { User } from '../people/user.js';

const { remarks } = schema;
type Row = typeof remarks.$inferSelect;

export class RemarkService {
  constructor(private readonly database: Database) {}

  async list(name: string, user: User): Promise<Remark[]> {
    const { read } = this.database;
    await demanded(read, name, user, 'write');
    const rows = await read.select().from(remarks).where(eq(remarks.text, name)).orderBy(asc(remarks.at));
    return rows.map(remarkOf);
  }

  make(name: string, { quote, body }: MakeRemark, user: User): Promise<Remark> {
    return this.database.write(async (writer) => {
      await demanded(writer, name, user, 'write');
      return remarkOf(await addRemark(writer, name, user, { quote, body }));
    });
  }

  /** Answers a remark, settles it, or opens it again. */
  change(name: string, id: string, { settled, reply }: ChangeRemark, user: User): Promise<Remark> {
    return this.database.write(async (writer) => {
      await demanded(writer, name, user, 'write');
      const [row] = await writer
        .select()
        .from(remarks)
        .where(and(eq(remarks.id, id), eq(remarks.text, name)));
      if (!row) throw notFound('remark');
      const at = new Date().toISOString();
      const changed: Row = {
        ...row,
        ...(reply === undefined
          ? {}
          : {
              answers: [...row.answers, { who: user.name, at, body: reply }],
            }),
        ...(settled === undefined ? {} : { settledAt: settled ? at : null, settledBy: settled ? user.name : null }),
      };
      await writer.update(remarks).set(changed).where(eq(remarks.id, id));
      return remarkOf(changed);
    });
  }
}

const remarkOf = (row: Row): Remark => ({
  id: row.id,
  quote: { exact: row.exact, prefix: row.prefix, suffix: row.suffix },
  body: row.body,
  who: row.whoName,
  at: row.at,
  answers: row.answers,
  settled: row.settledAt ? { by: row.settledBy ?? '', at: row.settledAt } : undefined,
});

/** Adds a remark on words of a text. */
export async function addRemark(
  writer: Writer,
  text: string,
  user: Pick<User, 'id' | 'name'>,
  { quote, body }: MakeRemark,
): Promise<Row> {
  const row: Row = {
    id: randomUUID(),
    text,
    ...quote,
    body,
    who: user.id,
    whoName: user.name,
    at: new Date().toISOString(),
    answers: [],
    settledAt: null,
    settledBy: null,
  };
  await writer.insert(remarks).values(row);
  return row;
}

/** Takes the remarks on a text that is purged. */
export async function removeRemarks(writer: Writer, text: string): Promise<void> {
  await writer.delete(remarks).where(eq(remarks.text, text));
}
