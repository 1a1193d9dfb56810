/** Sample sets and recipient lists. */
import { integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core';

/** Sample sets and recipient lists. */
export const tables = sqliteTable('tables', {
  id: text().primaryKey(),
  use: text({ enum: ['sample', 'recipients'] }).notNull(),
  title: text().notNull(),
  columns: text().notNull(),
  revision: integer().notNull().default(1),
  updatedAt: text().notNull(),
  binnedAt: text(),
});

/** The sample set that is a template's own. */
export const ownSets = sqliteTable('own_sets', {
  text: text().primaryKey(),
  tableId: text()
    .notNull()
    .references(() => tables.id),
});

export const tableRows = sqliteTable(
  'table_rows',
  {
    tableId: text()
      .notNull()
      .references(() => tables.id),
    position: integer().notNull(),
    cells: text().notNull(),
  },
  (table) => [primaryKey({ columns: [table.tableId, table.position] })],
);
