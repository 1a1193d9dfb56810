/** Texts, their folders, what they use and are found by; the house and its assets. */
import { KINDS, type House, type TextDocument } from '@vocabula/core';
import { blob, index, integer, primaryKey, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';
import { json } from './json.js';

/** What of a published version is asked for without reading it whole. */
export interface PublishedAs {
  readonly title: string;
  readonly subject: string;
  readonly call?: string;
  readonly locale?: string;
  readonly translationOf?: string;
  readonly validFrom?: string;
  readonly validUntil?: string;
  /** The first lines as they read; none of versions from before they were kept. */
  readonly opening?: string;
}

/** Working copies of templates, blocks and signatures. */
export const texts = sqliteTable(
  'texts',
  {
    name: text().primaryKey(),
    kind: text({ enum: KINDS }).notNull(),
    title: text().notNull(),
    subject: text().notNull(),
    call: text(),
    locale: text(),
    /** The name of the text whose version in another language it is. */
    translationOf: text(),
    document: json<TextDocument>().notNull(),
    revision: integer().notNull(),
    updatedAt: text().notNull(),
    binnedAt: text(),
    folder: text().notNull().default('root'),
    /** Where it stands among the texts of its folder; ties go by title. */
    position: integer().notNull().default(0),
    /** Words that texts are grouped by. */
    tags: json<readonly string[]>().notNull().default([]),
    /** Who made it, by id. */
    madeBy: text(),
    /** As its file says: the address or name of who answers for it. */
    owner: text(),
    reviewBy: text(),
    validFrom: text(),
    validUntil: text(),
    /** How many findings its working copy had when it was saved: errors, warnings, notes. */
    findings: json<readonly [number, number, number]>().notNull().default([0, 0, 0]),
    /** The number of the version that colleagues use; none before the first, and after it was withdrawn. */
    published: integer(),
    /** The revision that version was made from. */
    publishedRevision: integer(),
    /** Title, subject, call word and dates of that version. */
    publishedAs: json<PublishedAs>(),
    /** Ids of those who changed it since it was published. */
    writtenBy: json<readonly string[]>().notNull().default([]),
    retiredAt: text(),
    /** The name of what takes the place of a retired one. */
    replacedBy: text(),
    /** It came out of a folder that needs a second person for publishing, and the requirement came with it. */
    secondPerson: integer({ mode: 'boolean' }).notNull().default(false),
  },
  (table) => [index('texts_folder').on(table.folder), index('texts_call').on(table.call)],
);

/** Names of texts that were purged. History hangs on names, so none is ever given again. */
export const purgedNames = sqliteTable('purged_names', { name: text().primaryKey(), at: text().notNull() });

/** Folders, one in another; `root` holds all but the private ones. */
export const folders = sqliteTable('folders', {
  id: text().primaryKey(),
  parent: text(),
  title: text().notNull(),
  position: integer().notNull().default(0),
  /** Whose private folder it is. */
  owner: text(),
  /** Whether what is granted above holds here too. */
  inherits: integer({ mode: 'boolean' }).notNull().default(true),
  /** Whether another person than the last author must publish. */
  secondPerson: integer({ mode: 'boolean' }).notNull().default(false),
});

/** Who may do what in a folder. */
export const grants = sqliteTable(
  'grants',
  {
    folder: text()
      .notNull()
      .references(() => folders.id, { onDelete: 'cascade' }),
    /** `everyone`, `authors`, `person:` or `group:` and an id. */
    holder: text().notNull(),
    right: text({ enum: ['fill', 'write', 'publish', 'manage'] }).notNull(),
  },
  (table) => [primaryKey({ columns: [table.folder, table.holder] })],
);

/** Which texts, facts and assets each state of a text needs. */
export const uses = sqliteTable(
  'uses',
  {
    text: text().notNull(),
    state: text({ enum: ['working', 'published'] }).notNull(),
    what: text({ enum: ['text', 'fact', 'asset'] }).notNull(),
    target: text().notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.text, table.state, table.what, table.target] }),
    index('uses_target').on(table.what, table.target),
  ],
);

/** Which row of the full-text index (`search`, see the migrations) holds which state of a text. */
export const searched = sqliteTable(
  'searched',
  {
    id: integer().primaryKey({ autoIncrement: true }),
    name: text().notNull(),
    state: text({ enum: ['working', 'published'] }).notNull(),
  },
  (table) => [uniqueIndex('searched_name').on(table.name, table.state)],
);

/** The words that stand in texts, folded, for what a slip away from them was typed. Words that are gone stay. */
export const knownWords = sqliteTable('known_words', { word: text().primaryKey() });

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
    /** Ids of those who brought it. */
    addedBy: json<readonly string[]>(),
  },
  (table) => [uniqueIndex('assets_digest').on(table.digest)],
);

/** The house: one row. */
export const houses = sqliteTable('houses', {
  id: text().primaryKey(),
  house: json<House>().notNull(),
  revision: integer().notNull(),
  updatedAt: text().notNull(),
  published: integer(),
  publishedRevision: integer(),
  writtenBy: json<readonly string[]>().notNull().default([]),
});
