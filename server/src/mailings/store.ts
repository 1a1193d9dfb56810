/** Everything that is written of mailings; their messages are rows of what goes out. */
import { and, eq, inArray } from 'drizzle-orm';
import { schema, type Writer } from '../db/database.js';

const { mailings } = schema;
export type MailingRow = typeof mailings.$inferSelect;

export async function addMailing(writer: Writer, row: MailingRow): Promise<void> {
  await writer.insert(mailings).values(row);
}
/** Changes one, where it is in one of these states; in any where none is given. */
export async function changeMailing(
  writer: Writer,
  id: string,
  changed: Partial<MailingRow>,
  states?: readonly MailingRow['state'][],
): Promise<void> {
  await writer
    .update(mailings)
    .set(changed)
    .where(and(eq(mailings.id, id), states && inArray(mailings.state, [...states])));
}
/** A mailing that was over goes on when one of its messages is to go again; a paused one stays so until it goes on. */
export const reopenMailing = (writer: Writer, id: string): Promise<void> =>
  changeMailing(writer, id, { state: 'going', endedAt: null }, ['done', 'stopped']);

/** Erases lines that name somebody. @param known their address and names */
export async function forgetInMailings(writer: Writer, known: readonly string[]): Promise<void> {
  const folded = known.map((words) => words.toLowerCase());
  for (const { id, broken } of await writer.select({ id: mailings.id, broken: mailings.broken }).from(mailings)) {
    const left = broken.filter((line) => !folded.some((words) => line.toLowerCase().includes(words)));
    if (left.length < broken.length) await changeMailing(writer, id, { broken: left });
  }
}
