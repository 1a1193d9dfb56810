/** The messages of a mailing, each to one recipient. */
import type { MailedRow } from '@vocabula/contract';
import type { FillChanges } from '@vocabula/core/filling';
import { schema } from '../db/database.js';
import type { Answered } from '../fills/rendering.js';

export type MailingRow = typeof schema.mailings.$inferSelect;
export type MailedOutgoing = typeof schema.outgoing.$inferSelect;

/** What one message is rendered with: the mailing's answers, and on top of them the recipient's own. */
export const answeredFor = (
  { answers: shared }: Pick<MailingRow, 'answers'>,
  { fields, answers }: Pick<MailedOutgoing, 'fields' | 'answers'>,
): Answered => ({
  fields: JSON.parse(fields) as Record<string, string>,
  answers: { ...(JSON.parse(shared) as object), ...(JSON.parse(answers) as object) },
  offered: {},
  original: undefined,
  all: false,
});

/** What was changed in the words: for all, and for this one after that. */
export function changesFor(
  { changes: shared }: Pick<MailingRow, 'changes'>,
  { changes }: Pick<MailedOutgoing, 'changes'>,
): FillChanges {
  const [all, own] = [JSON.parse(shared) as FillChanges, JSON.parse(changes) as FillChanges];
  const same = (a: FillChanges['reworded'][number], b: FillChanges['reworded'][number]): boolean =>
    a.text === b.text && a.path.join('.') === b.path.join('.');
  return {
    parts: all.parts,
    reworded: [...all.reworded.filter((each) => !own.reworded.some((mine) => same(each, mine))), ...own.reworded],
  };
}

export const mailedRow = (row: MailedOutgoing): MailedRow => ({
  id: row.id,
  position: row.position ?? 0,
  address: row.address.startsWith('forgotten-') ? '' : row.address,
  name: row.name,
  state: row.state,
  why: row.why,
  fields: JSON.parse(row.fields) as Record<string, string>,
  answers: JSON.parse(row.answers) as Record<string, unknown>,
  changes: JSON.parse(row.changes) as FillChanges,
});
