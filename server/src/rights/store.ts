/** Everything that is written of folders, and of who may do what in them. */
import type { Right } from '@vocabula/contract';
import { eq } from 'drizzle-orm';
import { schema, type Writer } from '../db/database.js';

const { folders, grants } = schema;
export type FolderRow = typeof folders.$inferSelect;

export async function addFolder(writer: Writer, row: typeof folders.$inferInsert): Promise<void> {
  await writer.insert(folders).values(row).onConflictDoNothing();
}
export async function changeFolder(writer: Writer, id: string, changed: Partial<FolderRow>): Promise<void> {
  if (Object.keys(changed).length > 0) await writer.update(folders).set(changed).where(eq(folders.id, id));
}
/** Takes a folder away, with what was granted in it. */
export async function removeFolder(writer: Writer, id: string): Promise<void> {
  await writer.delete(grants).where(eq(grants.folder, id));
  await writer.delete(folders).where(eq(folders.id, id));
}
/** Grants these, in the place of what was granted. @param given rights by holder */
export async function setGrants(writer: Writer, folder: string, given: ReadonlyMap<string, Right>): Promise<void> {
  await writer.delete(grants).where(eq(grants.folder, folder));
  const rows = [...given].map(([holder, right]) => ({ folder, holder, right }));
  if (rows.length > 0) await writer.insert(grants).values(rows);
}
/** Takes all rights of a holder. */
export async function dropHolder(writer: Writer, holder: string): Promise<void> {
  await writer.delete(grants).where(eq(grants.holder, holder));
}
