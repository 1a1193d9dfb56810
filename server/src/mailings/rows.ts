/** The messages of a mailing, each to one recipient. */
import { randomUUID } from 'node:crypto';
import type { MailedRow } from '@vocabula/contract';
import { mergedChanges, type FillChanges } from '@vocabula/core/filling';
import { eq, max } from 'drizzle-orm';
import { schema, type Writer } from '../db/database.js';
import type { Answered } from '../fills/rendering.js';
import { nameOfFields } from '../fills/rows.js';
import type { User } from '../people/user.js';
import { newMessageId } from '../sending/outbox.js';
import { versionFor } from '../trials/assignment.js';
import type { Given } from './recipients.js';
import { addOutgoing, type OutgoingRow as MailedOutgoing } from '../sending/store.js';
import type { MailingRow } from './store.js';

const { outgoing } = schema;
export const UNCHANGED: FillChanges = { parts: [], reworded: [] };
export const isUnchanged = ({ parts, reworded }: FillChanges): boolean => parts.length === 0 && reworded.length === 0;

export type { MailingRow } from './store.js';
export type { OutgoingRow as MailedOutgoing } from '../sending/store.js';

/** What one message is rendered with: the mailing's answers, and on top of them the recipient's own. */
export const answeredFor = (
  { answers: shared }: Pick<MailingRow, 'answers'>,
  { fields, answers }: Pick<MailedOutgoing, 'fields' | 'answers'>,
): Answered => ({
  fields,
  answers: { ...shared, ...answers },
  offered: {},
  original: undefined,
  all: false,
});

/** What was changed in the words: for all, and for this one after that. */
export function changesFor(
  { changes: shared }: Pick<MailingRow, 'changes'>,
  { changes }: Pick<MailedOutgoing, 'changes'>,
): FillChanges {
  return mergedChanges(shared, changes);
}

/** What a recipient's message is made of: the version, and its frozen documents with the house. */
export function stateFor(
  mailing: Pick<MailingRow, 'trial' | 'arms' | 'version' | 'frozen' | 'house'>,
  address: string,
): Pick<MailingRow, 'version' | 'frozen' | 'house'> {
  const { trial, arms, house } = mailing;
  if (trial === null) return mailing;
  const version = versionFor({ id: trial, arms }, address);
  return { version, house, frozen: arms.find((arm) => arm.version === version)?.frozen ?? mailing.frozen };
}

export const mailedRow = (row: MailedOutgoing, mailing: MailingRow): MailedRow => ({
  id: row.id,
  position: row.position ?? 0,
  address: row.address.startsWith('forgotten-') ? '' : row.address,
  name: row.name,
  state: row.state,
  why: row.why,
  fields: row.fields,
  answers: row.answers,
  changes: row.changes,
  version: stateFor(mailing, row.address).version ?? undefined,
});

/** Puts people behind those who are there. */
export async function insertRows(
  writer: Writer,
  mailing: MailingRow,
  people: readonly Given[],
  user: User,
): Promise<void> {
  const [last] = await writer
    .select({ position: max(outgoing.position) })
    .from(outgoing)
    .where(eq(outgoing.mailing, mailing.id));
  const begin = (last?.position ?? -1) + 1;
  const now = new Date().toISOString();
  await addOutgoing(
    writer,
    people.map(({ fields, address }, at) => ({
      id: randomUUID(),
      person: user.id,
      mailing: mailing.id,
      position: begin + at,
      address,
      name: nameOfFields(fields),
      subject: '',
      state: 'ready' as const,
      due: now,
      messageId: newMessageId(user.address || 'vocabula@vocabula.example'),
      fields,
      changes: UNCHANGED,
      createdAt: now,
    })),
  );
}
