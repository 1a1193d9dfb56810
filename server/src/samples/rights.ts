/** Who may change a sample set or a recipient list, and who may say so. */
import { eq } from 'drizzle-orm';
import { schema, type Reader, type Writer } from '../db/database.js';
import { RequestProblem } from '../http/problem.js';
import type { User } from '../people/user.js';
import { accessOf, type Access } from '../rights/access.js';

export type TableRecord = typeof schema.tables.$inferSelect;
/** A template and the folder it is in, whose own set a table is. */
export interface OwnOf {
  readonly tableId: string;
  readonly text: string;
  readonly folder: string;
}

/** Which templates have a set of their own. @param table only that one's */
export function ownSetsOf(reader: Reader | Writer, table?: string): Promise<OwnOf[]> {
  const { ownSets, texts } = schema;
  return reader
    .select({ text: ownSets.text, tableId: ownSets.tableId, folder: texts.folder })
    .from(ownSets)
    .innerJoin(texts, eq(texts.name, ownSets.text))
    .where(table === undefined ? undefined : eq(ownSets.tableId, table));
}

/**
 * A recipient list is changed by its owner, by administrators, and by those who may write in the folder it is shared
 * with. A template's own sample set is changed by those who may write one of its templates; any other by all authors.
 * @param own the templates whose own set it is
 */
export function mayChange(
  { use, owner, folder }: Pick<TableRecord, 'use' | 'owner' | 'folder'>,
  own: readonly Pick<OwnOf, 'folder'>[],
  access: Access,
  user: User,
): boolean {
  if (isOwner({ owner }, user)) return true;
  if (use === 'recipients') return folder !== null && access.may('write', folder);
  return own.length === 0 || own.some((each) => access.may('write', each.folder));
}

/** Whether somebody decides who else may change it: its owner, and administrators. */
export const isOwner = ({ owner }: Pick<TableRecord, 'owner'>, user: User): boolean =>
  user.role === 'administrator' || owner === user.id;

/** @throws RequestProblem 403 where the user may not change the table */
export async function demandChange(reader: Reader | Writer, table: TableRecord, user: User): Promise<void> {
  const access = await accessOf(reader, user);
  if (mayChange(table, await ownSetsOf(reader, table.id), access, user)) return;
  throw new RequestProblem(
    403,
    'not-allowed',
    table.use === 'recipients'
      ? 'Only its owner, those it is shared with and administrators change this list.'
      : 'Only those who may write its template change this set.',
  );
}
