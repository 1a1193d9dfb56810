/** A mailing compiled: once for all its messages, and once more for each that was changed by itself. */
import type { Profile } from '@vocabula/contract';
import type { Program } from '@vocabula/core';
import type { FillChanges } from '@vocabula/core/filling';
import type { Reader } from '../db/database.js';
import { programOf } from '../fills/rendering.js';
import { frozenOf } from '../fills/rows.js';
import { profileOf } from '../people/service.js';
import { changesFor, isUnchanged, UNCHANGED, type MailedOutgoing, type MailingRow } from './rows.js';

export interface Prepared {
  readonly mailing: MailingRow;
  readonly profile: Profile;
  programFor(row: Pick<MailedOutgoing, 'changes'>): Program;
}

export async function preparedOf(reader: Reader, mailing: MailingRow): Promise<Prepared> {
  const { texts, house } = await frozenOf(reader, mailing);
  const signature = mailing.signature ?? undefined;
  const compile = (changes: FillChanges): Program =>
    programOf({ texts, house, signature, changes: changesFor(mailing, { changes }) });
  const shared = compile(UNCHANGED);
  return {
    mailing,
    profile: await profileOf(reader, mailing.person),
    programFor: ({ changes }) => (isUnchanged(changes) ? shared : compile(changes)),
  };
}
