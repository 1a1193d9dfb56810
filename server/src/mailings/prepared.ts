/** A mailing compiled: once for all its messages, and once more for each that was changed by itself. */
import type { Profile } from '@vocabula/contract';
import type { Program } from '@vocabula/core';
import type { FillChanges } from '@vocabula/core/filling';
import type { Reader } from '../db/database.js';
import { programOf } from '../fills/rendering.js';
import { frozenOf } from '../fills/rows.js';
import { profileOf } from '../people/service.js';
import { changesFor, isUnchanged, stateFor, UNCHANGED, type MailedOutgoing, type MailingRow } from './rows.js';

export interface Prepared {
  readonly mailing: MailingRow;
  readonly profile: Profile;
  programFor(row: Pick<MailedOutgoing, 'changes' | 'address'>): Program;
}

export async function preparedOf(reader: Reader, mailing: MailingRow): Promise<Prepared> {
  const signature = mailing.signature ?? undefined;
  const states: readonly Pick<MailingRow, 'version' | 'frozen'>[] = mailing.arms.length > 0 ? mailing.arms : [mailing];
  const versions = new Map<number | null, { compile(changes: FillChanges): Program; shared: Program }>();
  for (const { version, frozen } of states) {
    const { texts, house } = await frozenOf(reader, { frozen, house: mailing.house });
    const compile = (changes: FillChanges): Program =>
      programOf({ texts, house, signature, changes: changesFor(mailing, { changes }) });
    versions.set(version, { compile, shared: compile(UNCHANGED) });
  }
  return {
    mailing,
    profile: await profileOf(reader, mailing.person),
    programFor({ changes, address }) {
      const made = versions.get(stateFor(mailing, address).version);
      if (!made) throw new RangeError('a mailing has the version that it gives');
      return isUnchanged(changes) ? made.shared : made.compile(changes);
    },
  };
}
