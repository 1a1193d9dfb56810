/** Everything that is written of the stand-in's letters, of who has them, and of what its recipients are going to do. */
import { and, eq, inArray, isNull, like, or } from 'drizzle-orm';
import { schema, type Writer } from '../db/database.js';
import type { LetterColumns } from './reading.js';

const { letters, deliveries, intentions } = schema;
export type LetterRow = typeof letters.$inferSelect;

export async function addLetter(writer: Writer, row: LetterRow): Promise<void> {
  await writer.insert(letters).values(row);
}
/** Keeps what lists show beside a letter that was taken before they did. */
export async function describeLetter(
  writer: Writer,
  id: string,
  columns: Pick<LetterColumns, 'from' | 'opening' | 'thread' | 'readable'>,
): Promise<void> {
  await writer.update(letters).set(columns).where(eq(letters.id, id));
}
export async function deliver(writer: Writer, delivery: typeof deliveries.$inferInsert): Promise<void> {
  await writer.insert(deliveries).values(delivery);
}
/**
 * Says since when a letter is dealt with; null for not yet.
 * @param among mailboxes; all where none are given
 * @returns false where it is in none of them
 */
export async function setDealtWith(
  writer: Writer,
  letter: string,
  doneAt: string | null,
  among?: readonly string[],
): Promise<boolean> {
  const { rowsAffected } = await writer
    .update(deliveries)
    .set({ doneAt })
    .where(and(eq(deliveries.letter, letter), among && inArray(deliveries.address, [...among])));
  return rowsAffected > 0;
}

export async function addIntentions(writer: Writer, rows: readonly (typeof intentions.$inferInsert)[]): Promise<void> {
  if (rows.length > 0) await writer.insert(intentions).values([...rows]);
}
/** Takes an intention as carried out. @returns false where another has done so */
export async function takeIntention(writer: Writer, id: string): Promise<boolean> {
  const { rowsAffected } = await writer
    .update(intentions)
    .set({ doneAt: new Date().toISOString() })
    .where(and(eq(intentions.id, id), isNull(intentions.doneAt)));
  return rowsAffected > 0;
}

/** Erases somebody's letters, and what they were going to do. */
export async function forgetInMailroom(writer: Writer, bare: string): Promise<void> {
  const mails = await writer
    .select({ id: letters.id, sender: letters.sender, recipients: letters.recipients })
    .from(letters)
    .where(or(eq(letters.sender, bare), like(letters.recipients, `%${bare}%`)));
  for (const { id, sender, recipients } of mails) {
    const others = recipients.filter((each) => each !== bare);
    if (sender !== bare && others.length === recipients.length) continue;
    const left = { sender: sender === bare ? '' : sender, recipients: others };
    const emptied = { subject: '', from: '', opening: '', raw: Buffer.alloc(0), readable: false };
    await writer
      .update(letters)
      .set({ ...left, ...emptied })
      .where(eq(letters.id, id));
    await writer.delete(deliveries).where(and(eq(deliveries.letter, id), eq(deliveries.address, bare)));
  }
  await writer.delete(intentions).where(eq(intentions.recipient, bare));
}
