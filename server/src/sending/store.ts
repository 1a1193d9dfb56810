/** Everything that is written of what goes out through the mail service, and of what is counted of it. */
import { and, eq, inArray, sql, type SQL } from 'drizzle-orm';
import { schema, type Writer } from '../db/database.js';

const { outgoing, counted, counts } = schema;
export type OutgoingRow = typeof outgoing.$inferSelect;
/** Rows put into one statement. */
const CHUNK = 300;

export async function addOutgoing(writer: Writer, rows: readonly (typeof outgoing.$inferInsert)[]): Promise<void> {
  for (let at = 0; at < rows.length; at += CHUNK) await writer.insert(outgoing).values(rows.slice(at, at + CHUNK));
}
/** Changes the rows of these ids, as far as the condition holds of them. */
export async function changeOutgoing(
  writer: Writer,
  ids: readonly string[],
  changed: Partial<OutgoingRow>,
  ...as: readonly SQL[]
): Promise<void> {
  for (let at = 0; at < ids.length; at += CHUNK)
    await writer
      .update(outgoing)
      .set(changed)
      .where(and(inArray(outgoing.id, ids.slice(at, at + CHUNK)), ...as));
}
/** Changes the rows of a mailing that are in one of these states. */
export async function changeInMailing(
  writer: Writer,
  mailing: string,
  states: readonly OutgoingRow['state'][],
  changed: Partial<OutgoingRow>,
): Promise<void> {
  await writer
    .update(outgoing)
    .set(changed)
    .where(and(eq(outgoing.mailing, mailing), inArray(outgoing.state, [...states])));
}
/** Takes the draft of an unfinished message out: it is sent after all. */
export async function dropDraft(writer: Writer, fill: string): Promise<void> {
  await writer.delete(outgoing).where(and(eq(outgoing.fill, fill), eq(outgoing.state, 'draft')));
}

/** Says again that this process is sending the rows it claimed. */
export async function renewClaims(writer: Writer, me: string): Promise<void> {
  await writer
    .update(outgoing)
    .set({ claimedAt: new Date().toISOString() })
    .where(and(eq(outgoing.claimedBy, me), eq(outgoing.state, 'sending')));
}
/** The condition by which a settled row is still this courier's, or nobody's decision yet. */
export const stillOf = (me: string): SQL =>
  sql`((outgoing.state = 'sending' AND outgoing.claimed_by = ${me}) OR outgoing.state = 'uncertain')`;

/** A row that has gone, and when. */
export interface Gone {
  readonly id: string;
  readonly why: string;
  readonly subject: string;
  /** ISO moment. */
  readonly at: string;
}
/** Marks all that have gone in one statement, for there may be thousands. @param me whose claims they were */
export async function settleGone(writer: Writer, rows: readonly Gone[], me: string): Promise<void> {
  await writer.run(
    sql`UPDATE outgoing SET state = 'gone', claimed_by = NULL, record = NULL, why = each.value ->> 'why',
        gone_at = each.value ->> 'at', subject = each.value ->> 'subject'
        FROM json_each(${JSON.stringify(rows)}) AS each
        WHERE outgoing.id = each.value ->> 'id' AND (${stillOf(me)})`,
  );
}
/** What was given back to a mailing that was stopped meanwhile stays. */
export async function stopGivenBack(writer: Writer): Promise<void> {
  await writer.run(
    sql`UPDATE outgoing SET state = 'taken back', why = 'stopped' WHERE state IN ('ready', 'waiting')
        AND mailing IN (SELECT id FROM mailings WHERE state = 'stopped')`,
  );
}

/** Keeps addresses by which opening a message or following its links is counted. */
export async function addCounted(writer: Writer, rows: readonly (typeof counted.$inferInsert)[]): Promise<void> {
  for (let at = 0; at < rows.length; at += CHUNK) await writer.insert(counted).values(rows.slice(at, at + CHUNK));
}
export async function addCounts(writer: Writer, rows: readonly (typeof counts.$inferInsert)[]): Promise<void> {
  for (let at = 0; at < rows.length; at += CHUNK) await writer.insert(counts).values(rows.slice(at, at + CHUNK));
}

/** Erases somebody from what went to them, and takes back what waits. */
export async function forgetInOutgoing(writer: Writer, bare: string): Promise<void> {
  const mine = writer.select({ id: outgoing.id }).from(outgoing).where(eq(outgoing.address, bare));
  await writer.delete(counted).where(inArray(counted.outgoing, mine));
  for (const { id, state } of await writer
    .select({ id: outgoing.id, state: outgoing.state })
    .from(outgoing)
    .where(eq(outgoing.address, bare))) {
    const waits = state !== 'gone' && state !== 'sending' && state !== 'uncertain';
    await changeOutgoing(writer, [id], {
      // Keeps its place among those that went, and can no longer be told whose it was.
      address: `forgotten-${id}`,
      name: '',
      subject: '',
      raw: null,
      envelope: null,
      fields: {},
      answers: {},
      changes: { parts: [], reworded: [] },
      record: null,
      ...(waits ? { state: 'taken back', why: 'forgotten' } : {}),
    });
  }
}
