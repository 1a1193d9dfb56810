/** What is kept of messages that were handed over, and who may not be written to. */
import type { Fill, Way } from '@vocabula/contract';
import { foldedMailbox, writtenMailbox, type Message } from '@vocabula/core';
import { bareAddress } from '@vocabula/core/filling';
import { eq } from 'drizzle-orm';
import type { Recorded } from '../db/schema/sending.js';
import { schema, type Writer } from '../db/database.js';
import { RequestProblem } from '../http/problem.js';
import type { User } from '../people/user.js';
import { refusedAmong } from '../recipients/service.js';
import { inputOf, type Answered } from './rendering.js';
import { nameOfFields } from './rows.js';
import { setDealtWith } from '../mailroom/store.js';

/** Throws where one of a message's addresses is on the do-not-write list. */
export async function demandWritable(
  reader: Parameters<typeof refusedAmong>[0],
  { to, cc, bcc }: Pick<Message, 'to' | 'cc' | 'bcc'>,
): Promise<void> {
  demandNoneOf([...(await refusedAmong(reader, [...to, ...cc, ...bcc].map(foldedMailbox)))]);
}
export function demandNoneOf(refused: readonly string[]): void {
  if (refused.length > 0)
    throw new RequestProblem(
      422,
      'do-not-write',
      `${refused.join(', ')}: on the do-not-write list. Nothing was handed over.`,
    );
}

/** The letter that a message answers is dealt with. */
export async function answered(writer: Writer, fill: string, at: Date): Promise<void> {
  const [row] = await writer
    .select({ letter: schema.fills.letter })
    .from(schema.fills)
    .where(eq(schema.fills.id, fill));
  if (row?.letter) await setDealtWith(writer, row.letter, at.toISOString());
}

/** What is kept of a message that was handed over. */
export function recordOf(
  fill: Answered & Pick<Fill, 'text' | 'version' | 'changes' | 'trial'>,
  message: Message,
  { offered = {} }: ReturnType<typeof inputOf>,
  user: Pick<User, 'id'>,
  way: Way,
): Recorded {
  const borrowed = Object.fromEntries(Object.entries(offered).map(([key, { value }]) => [key, value]));
  return {
    way,
    subject: message.subject,
    recipients: message.to.map(writtenMailbox),
    html: message.html,
    plain: message.text,
    person: user.id,
    text: fill.text,
    version: fill.version ?? null,
    trial: fill.trial ?? null,
    address: message.to[0] ? foldedMailbox(message.to[0]) : bareAddress(fill.fields.email ?? ''),
    name: nameOfFields(fill.fields),
    answers: { ...borrowed, ...fill.answers },
    reworded: fill.changes.reworded.length,
    stitched: fill.changes.parts.length,
    missing: message.blanks.length,
  };
}
