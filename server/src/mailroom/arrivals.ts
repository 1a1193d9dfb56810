/** What comes in for somebody here: the answer to a message of ours, or a report that one did not arrive. */
import { answeredBy, bounceOf, type SentMessage } from '@vocabula/core/insight';
import { bareAddress } from '@vocabula/core/filling';
import { and, desc, eq, gte, inArray, or } from 'drizzle-orm';
import { schema, type Reader, type Writer } from '../db/database.js';
import { addCounts } from '../sending/store.js';
import type { Arrival } from './reading.js';

const { outgoing, counts } = schema;
/** So long after ours, a mail of the same subject may be an answer, in milliseconds. */
const ANSWERED_WITHIN = 14 * 86_400_000;
/** Messages to one sender that are compared. */
const MOST = 200;

/** Counts an answer, or a message that came back, where a mail is one. @param at when it came, ISO */
export async function noteArrival(writer: Writer, arrival: Arrival, at: string): Promise<void> {
  for (const { recipient, status, messageId } of arrival.reports) {
    if (bounceOf(status) !== 'hard') continue;
    const [about] = await writer
      .select({ id: outgoing.id })
      .from(outgoing)
      .where(
        and(
          eq(outgoing.state, 'gone'),
          messageId === undefined ? eq(outgoing.address, recipient) : eq(outgoing.messageId, messageId),
        ),
      )
      .orderBy(desc(outgoing.goneAt))
      .limit(1);
    if (about) await countOnce(writer, about.id, 'bounced', at);
  }
  if (arrival.reports.length > 0) return;
  const answered = await answeredMessage(writer, arrival, at);
  if (answered !== undefined) await countOnce(writer, answered, 'answered', at);
}

/** The id of the message of ours that a mail answers; undefined where it answers none. @param at when it came, ISO */
export const answeredMessage = async (
  reader: Reader | Writer,
  arrival: Arrival,
  at: string,
): Promise<string | undefined> => answeredBy({ ...arrival, at }, await candidates(reader, arrival, at));

/** Messages of ours that a mail may answer: those that its thread names, and the last to its sender. */
async function candidates(reader: Reader | Writer, arrival: Arrival, at: string): Promise<SentMessage[]> {
  const named = [...new Set([...(arrival.inReplyTo ? [arrival.inReplyTo] : []), ...(arrival.references ?? [])])];
  const since = new Date(Date.parse(at) - ANSWERED_WITHIN).toISOString();
  const rows = await reader
    .select({
      id: outgoing.id,
      messageId: outgoing.messageId,
      address: outgoing.address,
      subject: outgoing.subject,
      at: outgoing.goneAt,
    })
    .from(outgoing)
    .where(
      and(
        eq(outgoing.state, 'gone'),
        or(
          inArray(outgoing.messageId, named),
          and(eq(outgoing.address, bareAddress(arrival.from)), gte(outgoing.goneAt, since)),
        ),
      ),
    )
    .orderBy(desc(outgoing.goneAt))
    .limit(MOST);
  // The stand-in's clock may be ahead of the moment that something went; what it answers is never later.
  return rows.map((row) => ({ ...row, at: row.at === null || row.at > at ? at : row.at }));
}

/** One message is answered once, however many mails come; so it is with those that came back. */
async function countOnce(writer: Writer, id: string, what: 'answered' | 'bounced', at: string): Promise<void> {
  const known = await writer
    .select({ id: counts.id })
    .from(counts)
    .where(and(eq(counts.outgoing, id), eq(counts.what, what)))
    .limit(1);
  if (known.length === 0) await addCounts(writer, [{ outgoing: id, what, at }]);
}
