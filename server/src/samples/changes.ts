/** Changes of a set, made one after the other inside one transaction. */
import type { TableChange } from '@vocabula/contract';
import { fold } from '@vocabula/core';
import type { SampleColumn } from '@vocabula/core/proof';
import { MAX_COLUMNS, MAX_ROWS, type TableRow } from '@vocabula/core/tables';
import { and, count, eq, max } from 'drizzle-orm';
import { schema, type Writer } from '../db/database.js';
import { RequestProblem } from '../http/problem.js';
import { changeRow, insertRows, removeRows } from './store.js';

const { tableRows } = schema;
/** Rows put into one statement; SQLite takes some thousand parameters at once. */

/** What of a set's own row may change. */
export interface Head {
  title: string;
  columns: SampleColumn[];
  keepUntil: string | null;
  folder: string | null;
}

const refuse = (words: string): RequestProblem => new RequestProblem(422, 'bad-table', words);

/** Makes a change; `head` is changed in place, rows in the database. */
export async function makeChange(writer: Writer, tableId: string, head: Head, change: TableChange): Promise<void> {
  switch (change.what) {
    case 'title':
      head.title = change.title;
      return;
    case 'keep-until':
      head.keepUntil = change.day;
      return;
    case 'folder':
      head.folder = change.folder;
      return;
    case 'cells':
      return changeCells(writer, tableId, head, change);
    case 'add-rows':
      return addRows(writer, tableId, change.rows);
    case 'remove-rows':
      return removeRows(writer, tableId, change.positions);
    case 'column':
      return putColumn(head, change.column);
    case 'remove-column':
      head.columns = head.columns.filter(({ key }) => key !== change.key);
      if (head.columns.length === 0) throw refuse('A set has one column at least.');
  }
}

async function changeCells(
  writer: Writer,
  tableId: string,
  { columns }: Head,
  { position, cells }: Extract<TableChange, { what: 'cells' }>,
): Promise<void> {
  const unknown = Object.keys(cells).find((key) => !columns.some((column) => column.key === key && !column.value));
  if (unknown !== undefined) throw refuse(`There is no column “${unknown}” to write in.`);
  const where = and(eq(tableRows.tableId, tableId), eq(tableRows.position, position));
  const [row] = await writer.select().from(tableRows).where(where);
  if (!row) throw refuse('This row is not there any more.');
  const changed = { ...row.cells, ...cells };
  const folded = row.folded === '' ? '' : foldedRow(changed);
  await changeRow(writer, tableId, position, { cells: changed, folded });
}

/** Adds rows behind the last. */
export async function addRows(writer: Writer, tableId: string, rows: readonly TableRow[]): Promise<void> {
  const [found] = await writer
    .select({ last: max(tableRows.position), rows: count() })
    .from(tableRows)
    .where(eq(tableRows.tableId, tableId));
  const { last, rows: there } = found ?? { last: null, rows: 0 };
  if (there + rows.length > MAX_ROWS) throw refuse(`A set has ${MAX_ROWS} rows at most.`);
  const begin = (last ?? -1) + 1;
  const [table] = await writer
    .select({ use: schema.tables.use })
    .from(schema.tables)
    .where(eq(schema.tables.id, tableId));
  const wordsOf = table?.use === 'recipients' ? foldedRow : (): string => '';
  await insertRows(
    writer,
    tableId,
    begin,
    rows.map((cells) => ({ cells, folded: wordsOf(cells) })),
  );
}

/** The words by which a person of a list is found. */
export const foldedRow = (cells: TableRow): string => fold(Object.values(cells).join(' '));

function putColumn(head: Head, { value, ...given }: Extract<TableChange, { what: 'column' }>['column']): void {
  const column: SampleColumn = { ...given, ...(value ? { value } : {}) };
  const at = head.columns.findIndex(({ key }) => key === column.key);
  if (at >= 0) head.columns[at] = column;
  else if (head.columns.length >= MAX_COLUMNS) throw refuse(`A set has ${MAX_COLUMNS} columns at most.`);
  else head.columns.push(column);
}
