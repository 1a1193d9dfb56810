/** Messages being filled, and those handed over, which never change but to forget somebody. */
import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';

/** Messages being filled, and those handed over. */
export const fills = sqliteTable(
  'fills',
  {
    id: text().primaryKey(),
    text: text().notNull(),
    title: text().notNull(),
    /** Ids of frozen documents, the template's own first. */
    frozen: text().notNull(),
    /** Id of the frozen house. */
    house: text(),
    signature: text(),
    /** Whose it is. */
    person: text().notNull().default('me'),
    /** The version of the template it was begun on. */
    version: integer(),
    recipient: text().notNull(),
    answers: text().notNull(),
    state: text({ enum: ['unfinished', 'handed over'] }).notNull(),
    createdAt: text().notNull(),
    updatedAt: text().notNull(),
    binnedAt: text(),
  },
  (table) => [index('fills_person').on(table.person, table.updatedAt), index('fills_text').on(table.text)],
);

/** What was handed over, as it was. */
export const handedOver = sqliteTable('handed_over', {
  id: text().primaryKey(),
  fillId: text()
    .notNull()
    .references(() => fills.id),
  way: text({ enum: ['copy', 'draft'] }).notNull(),
  subject: text().notNull(),
  recipients: text().notNull(),
  html: text().notNull(),
  plain: text().notNull(),
  at: text().notNull(),
});
