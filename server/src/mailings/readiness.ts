/** Which messages of a mailing are ready, and what the others lack. */
import type { OutgoingState } from '@vocabula/contract';
import { and, eq, inArray } from 'drizzle-orm';
import { schema, type Database } from '../db/database.js';
import { messageOf, whyNot } from '../fills/rendering.js';
import { refusedAmong } from '../recipients/service.js';
import { envelopeOf } from '../sending/outbox.js';
import { preparedOf } from './prepared.js';
import { answeredFor, type MailedOutgoing } from './rows.js';
import { changeOutgoing } from '../sending/store.js';

const { mailings, outgoing } = schema;
/** Messages that are judged before others get their turn. */
const TURN = 200;
/** States of rows that have not gone, and may still be judged anew. */
export const OPEN: OutgoingState[] = ['ready', 'apart'];

/** Renders every message that has not gone, and says which are ready and what the others lack. @param only some of them */
export async function judge(database: Database, id: string, only?: readonly string[]): Promise<void> {
  const { read } = database;
  const [mailing] = await read.select().from(mailings).where(eq(mailings.id, id));
  if (!mailing) return;
  const rows = await read
    .select()
    .from(outgoing)
    .where(
      and(eq(outgoing.mailing, id), inArray(outgoing.state, OPEN), only ? inArray(outgoing.id, [...only]) : undefined),
    );
  const { programFor, profile } = await preparedOf(read, mailing);
  const refused = await refusedAmong(
    read,
    rows.map(({ address }) => address),
  );
  const moment = { now: new Date(), zone: mailing.zone };
  const verdict = (row: MailedOutgoing): string => {
    if (refused.has(row.address)) return 'on the do-not-write list';
    const program = programFor(row);
    const message = messageOf(program, answeredFor(mailing, row), profile, moment);
    if (!message.ready) return whyNot(message, program);
    const { to } = envelopeOf(message, profile);
    return to.includes(row.address) ? '' : 'the template does not write to the recipient';
  };
  const changed: { id: string; state: OutgoingState; why: string }[] = [];
  for (const [at, row] of rows.entries()) {
    const why = verdict(row);
    const state = why === '' ? 'ready' : 'apart';
    if (state !== row.state || why !== row.why) changed.push({ id: row.id, state, why });
    if (at % TURN === TURN - 1) await new Promise((resolve) => setImmediate(resolve));
  }
  if (changed.length === 0) return;
  await database.write(async (writer) => {
    const groups = new Map<string, { state: OutgoingState; why: string; ids: string[] }>();
    for (const { id: rowId, state, why } of changed) {
      const key = `${state}\n${why}`;
      const group = groups.get(key) ?? { state, why, ids: [] };
      group.ids.push(rowId);
      groups.set(key, group);
    }
    // What has been claimed meanwhile stays claimed.
    for (const { state, why, ids } of groups.values())
      await changeOutgoing(writer, ids, { state, why }, inArray(outgoing.state, OPEN));
  });
}
