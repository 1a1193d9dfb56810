/** Everything that is written of sample sets and recipient lists. */
import type { TableRow } from '@vocabula/core/tables';
import { and, eq, inArray, sql } from 'drizzle-orm';
import { schema, type Writer } from '../db/database.js';

const { tables, tableRows, ownSets } = schema;
export type SetRow = typeof tables.$inferSelect;
/** Rows put into one statement. */
const CHUNK = 1000;

export async function addTable(writer: Writer, row: SetRow): Promise<void> {
  await writer.insert(tables).values(row);
}
export async function changeTable(writer: Writer, id: string, changed: Partial<SetRow>): Promise<void> {
  await writer.update(tables).set(changed).where(eq(tables.id, id));
}
/** Adds rows from a position on. @param folded what each is found by; empty for samples */
export async function insertRows(
  writer: Writer,
  tableId: string,
  begin: number,
  rows: readonly { readonly cells: TableRow; readonly folded: string }[],
): Promise<void> {
  for (let from = 0; from < rows.length; from += CHUNK)
    await writer
      .insert(tableRows)
      .values(rows.slice(from, from + CHUNK).map((row, at) => ({ tableId, position: begin + from + at, ...row })));
}
export async function changeRow(
  writer: Writer,
  tableId: string,
  position: number,
  changed: { readonly cells?: TableRow; readonly folded: string },
): Promise<void> {
  await writer
    .update(tableRows)
    .set(changed)
    .where(and(eq(tableRows.tableId, tableId), eq(tableRows.position, position)));
}
export async function removeRows(writer: Writer, tableId: string, positions: readonly number[]): Promise<void> {
  for (let from = 0; from < positions.length; from += CHUNK)
    await writer
      .delete(tableRows)
      .where(and(eq(tableRows.tableId, tableId), inArray(tableRows.position, positions.slice(from, from + CHUNK))));
}
export async function emptyTable(writer: Writer, tableId: string): Promise<void> {
  await writer.delete(tableRows).where(eq(tableRows.tableId, tableId));
}
/** Makes a sample set a text's own; none takes it away. */
export async function setOwnSet(writer: Writer, text: string, tableId: string | null): Promise<void> {
  if (tableId === null) await writer.delete(ownSets).where(eq(ownSets.text, text));
  else
    await writer
      .insert(ownSets)
      .values({ text, tableId })
      .onConflictDoUpdate({ target: ownSets.text, set: { tableId } });
}

/** Takes rows of somebody out, and tells those who have the lists open by their revision. */
export async function forgetRows(
  writer: Writer,
  rows: readonly { readonly tableId: string; readonly position: number }[],
): Promise<void> {
  for (const { tableId, position } of rows) {
    await removeRows(writer, tableId, [position]);
    await writer
      .update(tables)
      .set({ revision: sql`${tables.revision} + 1` })
      .where(eq(tables.id, tableId));
  }
}
