/**
 * The tables. Frozen documents, versions, handed-over messages and the audit trail are never changed; deleting is a date
 * in the bin. Moments are ISO 8601 in UTC, days ISO dates.
 */
import { blob, index, integer, primaryKey, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';

/** Working copies of templates, blocks and signatures. */
export const texts = sqliteTable(
  'texts',
  {
    name: text().primaryKey(),
    kind: text({ enum: ['message', 'block', 'signature'] }).notNull(),
    title: text().notNull(),
    subject: text().notNull(),
    call: text(),
    locale: text(),
    document: text().notNull(),
    revision: integer().notNull(),
    updatedAt: text().notNull(),
    binnedAt: text(),
    folder: text().notNull().default('root'),
    /** Where it stands among the texts of its folder; ties go by title. */
    position: integer().notNull().default(0),
    /** Words that texts are grouped by, as a JSON array. */
    tags: text().notNull().default('[]'),
    /** Who made it, by id. */
    madeBy: text(),
    /** As its file says: the address or name of who answers for it. */
    owner: text(),
    reviewBy: text(),
    validFrom: text(),
    validUntil: text(),
    /** How many findings its working copy had when it was saved: errors, warnings, notes. */
    findings: text().notNull().default('[0,0,0]'),
    /** The number of the version that colleagues use; none before the first, and after it was withdrawn. */
    published: integer(),
    /** The revision that version was made from. */
    publishedRevision: integer(),
    /** Title, subject, call word and dates of that version, as JSON. */
    publishedAs: text(),
    /** Ids of those who changed it since it was published, as a JSON array. */
    writtenBy: text().notNull().default('[]'),
    retiredAt: text(),
    /** The name of what takes the place of a retired one. */
    replacedBy: text(),
  },
  (table) => [index('texts_folder').on(table.folder), index('texts_call').on(table.call)],
);

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

/** Published versions of texts and of the house (`house.yaml`), each a frozen document. */
export const versions = sqliteTable(
  'versions',
  {
    text: text().notNull(),
    number: integer().notNull(),
    frozen: text().notNull(),
    revision: integer().notNull(),
    note: text().notNull(),
    who: text().notNull(),
    whoName: text().notNull(),
    at: text().notNull(),
    withdrawnAt: text(),
    withdrawnBy: text(),
    withdrawnBecause: text(),
  },
  (table) => [primaryKey({ columns: [table.text, table.number] })],
);

/** Versions that are to be made at a time, and what became of that. */
export const timed = sqliteTable(
  'timed',
  {
    id: text().primaryKey(),
    text: text().notNull(),
    frozen: text().notNull(),
    revision: integer().notNull(),
    note: text().notNull(),
    who: text().notNull(),
    due: text().notNull(),
    state: text({ enum: ['waiting', 'done', 'taken back', 'stopped'] }).notNull(),
    /** Why it was stopped. */
    words: text(),
  },
  (table) => [index('timed_due').on(table.state, table.due)],
);

/** States of working copies that are kept for a while. */
export const checkpoints = sqliteTable(
  'checkpoints',
  {
    id: text().primaryKey(),
    text: text().notNull(),
    frozen: text().notNull(),
    revision: integer().notNull(),
    reason: text().notNull(),
    who: text().notNull(),
    whoName: text().notNull(),
    at: text().notNull(),
  },
  (table) => [index('checkpoints_text').on(table.text, table.at)],
);

/** Requests to publish, from people who may not. */
export const requests = sqliteTable(
  'requests',
  {
    id: text().primaryKey(),
    text: text().notNull(),
    frozen: text().notNull(),
    revision: integer().notNull(),
    note: text().notNull(),
    /** The proof report that went with it, as JSON. */
    report: text().notNull(),
    who: text().notNull(),
    whoName: text().notNull(),
    at: text().notNull(),
    state: text({ enum: ['open', 'accepted', 'returned', 'taken back'] }).notNull(),
    answeredBy: text(),
    answeredAt: text(),
    remark: text(),
  },
  (table) => [index('requests_state').on(table.state)],
);

/** Remarks on words of a working copy; never rendered. */
export const remarks = sqliteTable(
  'remarks',
  {
    id: text().primaryKey(),
    text: text().notNull(),
    /** The words, and what stands before and after them, so that they are found again when the text has changed. */
    exact: text().notNull(),
    prefix: text().notNull(),
    suffix: text().notNull(),
    body: text().notNull(),
    who: text().notNull(),
    whoName: text().notNull(),
    at: text().notNull(),
    /** What was said to it, as JSON. */
    answers: text().notNull().default('[]'),
    settledAt: text(),
    settledBy: text(),
  },
  (table) => [index('remarks_text').on(table.text)],
);

/** Who did what to which when. The database refuses to change or take out a row. */
export const audit = sqliteTable(
  'audit',
  {
    id: integer().primaryKey({ autoIncrement: true }),
    at: text().notNull(),
    who: text().notNull(),
    whoName: text().notNull(),
    act: text().notNull(),
    /** What kind of thing it was done to, and which. */
    what: text().notNull(),
    target: text().notNull(),
    /** What it was called then, and more in words. */
    words: text().notNull(),
  },
  (table) => [index('audit_at').on(table.at), index('audit_target').on(table.what, table.target)],
);

/** Documents as they were: in a version, at a checkpoint, or when a message was begun on them. */
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
  published: integer(),
  publishedRevision: integer(),
  writtenBy: text().notNull().default('[]'),
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
    /** Ids of those who brought it, as a JSON array. */
    addedBy: text(),
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

/** The people. */
export const people = sqliteTable('people', {
  id: text().primaryKey(),
  profile: text().notNull(),
  updatedAt: text().notNull(),
  /** The address they sign in with, folded; none for one who was never invited. */
  address: text().unique(),
  role: text({ enum: ['administrator', 'author', 'colleague'] })
    .notNull()
    .default('administrator'),
  /** See `people/passwords.ts`. None until an invitation was followed. */
  password: text(),
  createdAt: text().notNull().default(''),
  /** Since when they cannot sign in. */
  endedAt: text(),
});

export const groups = sqliteTable('groups', { id: text().primaryKey(), title: text().notNull() });
export const members = sqliteTable(
  'members',
  {
    group: text()
      .notNull()
      .references(() => groups.id, { onDelete: 'cascade' }),
    person: text()
      .notNull()
      .references(() => people.id),
  },
  (table) => [primaryKey({ columns: [table.group, table.person] })],
);

/** Who is signed in where. Tokens are kept as digests only. */
export const sessions = sqliteTable(
  'sessions',
  {
    digest: text().primaryKey(),
    id: text().notNull(),
    person: text()
      .notNull()
      .references(() => people.id),
    /** What the browser said it is. */
    agent: text().notNull(),
    createdAt: text().notNull(),
    seenAt: text().notNull(),
    endsAt: text().notNull(),
  },
  (table) => [index('sessions_person').on(table.person)],
);

/** Links by which somebody sets a password, once. */
export const links = sqliteTable('links', {
  digest: text().primaryKey(),
  person: text()
    .notNull()
    .references(() => people.id),
  what: text({ enum: ['invitation', 'reset'] }).notNull(),
  endsAt: text().notNull(),
});

/** Failed attempts to sign in, by address and by where they came from. */
export const attempts = sqliteTable('attempts', {
  key: text().primaryKey(),
  count: integer().notNull(),
  lastAt: text().notNull(),
});

/** Keys by which other programs act for a person. */
export const keys = sqliteTable('keys', {
  id: text().primaryKey(),
  person: text()
    .notNull()
    .references(() => people.id),
  title: text().notNull(),
  digest: text().notNull().unique(),
  /** The first characters, to know it by. */
  start: text().notNull(),
  scopes: text().notNull(),
  createdAt: text().notNull(),
  usedAt: text(),
  endedAt: text(),
});
