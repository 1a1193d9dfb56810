/** Everything that is written of messages being filled, and of those handed over. */
import { randomUUID } from 'node:crypto';
import { bareAddress } from '@vocabula/core/filling';
import { and, eq, like } from 'drizzle-orm';
import { schema, type Writer } from '../db/database.js';

const { fills, handedOver } = schema;
type FillRow = typeof fills.$inferSelect;
/** Rows put into one statement. */
const CHUNK = 300;

export async function addFills(writer: Writer, rows: readonly (typeof fills.$inferInsert)[]): Promise<void> {
  for (let at = 0; at < rows.length; at += CHUNK) await writer.insert(fills).values(rows.slice(at, at + CHUNK));
}
export async function changeFill(writer: Writer, id: string, changed: Partial<Omit<FillRow, 'id'>>): Promise<void> {
  await writer.update(fills).set(changed).where(eq(fills.id, id));
}
/** Puts somebody's own into the bin, or takes it out. @returns false where it is not theirs */
export async function binFill(writer: Writer, id: string, person: string, binnedAt: string | null): Promise<boolean> {
  const { rowsAffected } = await writer
    .update(fills)
    .set({ binnedAt })
    .where(and(eq(fills.id, id), eq(fills.person, person)));
  return rowsAffected > 0;
}
/** Says of all messages of a text which version they were begun on. */
export async function setVersionOf(writer: Writer, text: string, version: number): Promise<void> {
  await writer.update(fills).set({ version }).where(eq(fills.text, text));
}

/** Writes down messages that were handed over: these rows never change but to forget somebody. */
export async function addHandedOver(
  writer: Writer,
  records: readonly (Omit<typeof handedOver.$inferInsert, 'id'> & { readonly id?: string })[],
): Promise<void> {
  for (let at = 0; at < records.length; at += CHUNK)
    await writer
      .insert(handedOver)
      .values(records.slice(at, at + CHUNK).map((record) => ({ id: randomUUID(), ...record })));
}

/** Erases somebody: what went to them keeps its count, what was being written to them its text. @returns how many of each */
export async function forgetInFills(writer: Writer, bare: string): Promise<{ messages: number; unfinished: number }> {
  const gone = { address: '', name: '', recipients: [], subject: '', html: '', plain: '', answers: {} };
  const messages = await writer.update(handedOver).set(gone).where(eq(handedOver.address, bare));
  const mine = (await writer.select({ id: fills.id, recipient: fills.recipient }).from(fills)).filter(
    ({ recipient }) => bareAddress(recipient.email ?? '') === bare,
  );
  const changes = { parts: [], reworded: [] };
  const emptied = { recipient: {}, answers: {}, offered: {}, confirmed: [], changes, original: null };
  for (const { id } of mine) await changeFill(writer, id, emptied);
  // A pattern may find more than the address itself: what it finds is looked at again.
  const holds = `%${bare}%`;
  const answering = await writer
    .select({ id: fills.id, original: fills.original })
    .from(fills)
    .where(like(fills.original, holds));
  for (const { id, original } of answering)
    if (JSON.stringify(original).toLowerCase().includes(bare))
      await changeFill(writer, id, { original: null, letter: null });
  const others = await writer
    .select({ id: handedOver.id, recipients: handedOver.recipients })
    .from(handedOver)
    .where(like(handedOver.recipients, holds));
  for (const { id, recipients } of others) {
    const left = recipients.filter((each) => bareAddress(each) !== bare);
    await writer.update(handedOver).set({ recipients: left }).where(eq(handedOver.id, id));
  }
  return { messages: messages.rowsAffected, unfinished: mine.length };
}
