/** The mailroom, which stands in for a mail service. */
import { blob, index, sqliteTable, text } from 'drizzle-orm/sqlite-core';

/** Mail that the stand-in for a mail service has taken. Never changed. */
export const letters = sqliteTable(
  'letters',
  {
    id: text().primaryKey(),
    sender: text().notNull(),
    recipients: text().notNull(),
    subject: text().notNull(),
    raw: blob({ mode: 'buffer' }).notNull(),
    at: text().notNull(),
  },
  (table) => [index('letters_at').on(table.at)],
);
