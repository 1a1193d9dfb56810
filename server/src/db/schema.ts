/** The tables. Frozen documents and handed-over messages are never changed; deleting is a date in the bin. */
import { blob, index, integer, primaryKey, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';

/** Working copies of templates, blocks and signatures. */
export const texts = sqliteTable('texts', {
  name: text().primaryKey(),
  kind: text({ enum: ['message', 'block', 'signature'] }).notNull(),
  title: text().notNull(),
  subject: text().notNull(),
  call: text(),
  locale: text(),
  /** All words of the text, for searching. */
  words: text().notNull(),
  document: text().notNull(),
  revision: integer().notNull(),
  updatedAt: text().notNull(),
  binnedAt: text(),
});

/** Documents as they were when something was begun on them. Versions will be rows of this table too. */
export const frozen = sqliteTable(
  'frozen',
  {
    id: text().primaryKey(),
    name: text().notNull(),
    revision: integer().notNull(),
    /** SHA-256 of the document, so that one state is kept once. */
    digest: text().notNull(),
    document: text().notNull(),
    createdAt: text().notNull(),
  },
  (table) => [uniqueIndex('frozen_name_digest').on(table.name, table.digest)],
);

/** The house: one row. */
export const houses = sqliteTable('houses', {
  id: text().primaryKey(),
  house: text().notNull(),
  revision: integer().notNull(),
  updatedAt: text().notNull(),
});

/** Files that texts show or attach. The same bytes are kept once. */
export const assets = sqliteTable(
  'assets',
  {
    path: text().primaryKey(),
    type: text().notNull(),
    size: integer().notNull(),
    digest: text().notNull(),
    content: blob({ mode: 'buffer' }).notNull(),
    createdAt: text().notNull(),
  },
  (table) => [uniqueIndex('assets_digest').on(table.digest)],
);

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
    recipient: text().notNull(),
    answers: text().notNull(),
    state: text({ enum: ['unfinished', 'handed over'] }).notNull(),
    createdAt: text().notNull(),
    updatedAt: text().notNull(),
    binnedAt: text(),
  },
  (table) => [index('fills_updated').on(table.updatedAt)],
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

/** Cases of a template that somebody has looked at, as they were. */
export const lookedAt = sqliteTable(
  'looked_at',
  {
    text: text().notNull(),
    /** Which case it was; the message itself is known by its digest. */
    case: text().notNull(),
    digest: text().notNull(),
    who: text().notNull(),
    at: text().notNull(),
  },
  (table) => [primaryKey({ columns: [table.text, table.case, table.digest] })],
);

/** Findings that somebody has set aside, with the reason. */
export const setAside = sqliteTable(
  'set_aside',
  {
    text: text().notNull(),
    /** Of the finding and the words it is about: it comes back when they change. */
    fingerprint: text().notNull(),
    code: text().notNull(),
    message: text().notNull(),
    reason: text().notNull(),
    who: text().notNull(),
    at: text().notNull(),
  },
  (table) => [primaryKey({ columns: [table.text, table.fingerprint] })],
);

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

/** The people. One row until accounts exist. */
export const people = sqliteTable('people', {
  id: text().primaryKey(),
  profile: text().notNull(),
  updatedAt: text().notNull(),
});
