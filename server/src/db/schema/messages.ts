/** Messages being filled, and those handed over, which never change but to forget somebody. */
import { WAYS } from '@vocabula/contract';
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
    /** Values taken over from elsewhere, those of them that were confirmed, and what else was changed; as JSON. */
    offered: text().notNull().default('{}'),
    confirmed: text().notNull().default('[]'),
    changes: text().notNull().default('{"parts":[],"reworded":[]}'),
    /** The mail that is answered, as JSON, and its letter in the mailroom. */
    original: text(),
    letter: text(),
    replyAll: integer({ mode: 'boolean' }).notNull().default(false),
    state: text({ enum: ['unfinished', 'handed over', 'sent'] }).notNull(),
    createdAt: text().notNull(),
    updatedAt: text().notNull(),
    binnedAt: text(),
  },
  (table) => [index('fills_person').on(table.person, table.updatedAt), index('fills_text').on(table.text)],
);

/** What was handed over, as it was. */
export const handedOver = sqliteTable(
  'handed_over',
  {
    id: text().primaryKey(),
    fillId: text()
      .notNull()
      .references(() => fills.id),
    way: text({ enum: WAYS }).notNull(),
    subject: text().notNull(),
    recipients: text().notNull(),
    html: text().notNull(),
    plain: text().notNull(),
    at: text().notNull(),
    person: text().notNull().default(''),
    text: text().notNull().default(''),
    version: integer(),
    /** The first recipient's bare address, folded, and name: by which the record of a person is found. */
    address: text().notNull().default(''),
    name: text().notNull().default(''),
    answers: text().notNull().default('{}'),
    /** How many lines were reworded, and how many texts stitched to it. */
    reworded: integer().notNull().default(0),
    stitched: integer().notNull().default(0),
    /** What it went by, if it went through the mail service. */
    outgoing: text(),
  },
  (table) => [
    index('handed_over_address').on(table.address, table.at),
    index('handed_over_person').on(table.person, table.at),
    index('handed_over_text').on(table.text, table.at),
  ],
);
