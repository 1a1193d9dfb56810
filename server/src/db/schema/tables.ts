/** Sample sets and recipient lists. */
import type { SampleColumn } from '@vocabula/core/proof';
import type { TableRow } from '@vocabula/core/tables';
import { index, integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { json } from './json.js';

/** Sample sets and recipient lists. */
export const tables = sqliteTable('tables', {
  id: text().primaryKey(),
  use: text({ enum: ['sample', 'recipients'] }).notNull(),
  title: text().notNull(),
  columns: json<readonly SampleColumn[]>().notNull(),
  revision: integer().notNull().default(1),
  updatedAt: text().notNull(),
  binnedAt: text(),
  /** Of recipient lists: whose it is, by id, and the day after which its rows go. */
  owner: text(),
  keepUntil: text(),
  /** Of recipient lists: a folder whose writers may change it, besides its owner. */
  folder: text(),
});

/** Addresses, folded, that nothing is ever sent to. */
export const doNotWrite = sqliteTable('do_not_write', {
  address: text().primaryKey(),
  because: text().notNull(),
  who: text().notNull(),
  whoName: text().notNull(),
  at: text().notNull(),
});

/** The sample set that is a template's own. */
export const ownSets = sqliteTable(
  'own_sets',
  {
    text: text().primaryKey(),
    tableId: text()
      .notNull()
      .references(() => tables.id),
  },
  (table) => [index('own_sets_table').on(table.tableId)],
);

export const tableRows = sqliteTable(
  'table_rows',
  {
    tableId: text()
      .notNull()
      .references(() => tables.id),
    position: integer().notNull(),
    cells: json<TableRow>().notNull(),
    /** Of recipient lists: all words of the row, folded, to be found by. */
    folded: text().notNull().default(''),
  },
  (table) => [primaryKey({ columns: [table.tableId, table.position] })],
);
