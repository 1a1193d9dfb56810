/** People, how they sign in, and what they did. */
import type { HandOverWays, Profile, Scope } from '@vocabula/contract';
import { index, integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { json } from './json.js';

/** The people. */
export const people = sqliteTable('people', {
  id: text().primaryKey(),
  profile: json<Profile>().notNull(),
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
  /** How they hand over; see the contract. */
  ways: json<Partial<HandOverWays>>().notNull().default({}),
});

/**
 * Further addresses that a person asked for: bare and folded. They count for reading and sending only once an
 * administrator has confirmed them. Several people may share one, such as that of a desk.
 */
export const addresses = sqliteTable(
  'addresses',
  {
    person: text()
      .notNull()
      .references(() => people.id),
    address: text().notNull(),
    askedAt: text().notNull(),
    /** Who confirmed it, by id, and when. */
    confirmedBy: text(),
    confirmedAt: text(),
  },
  (table) => [primaryKey({ columns: [table.person, table.address] }), index('addresses_address').on(table.address)],
);

/** Somebody's own row of templates, from the left. */
export const atHand = sqliteTable(
  'at_hand',
  {
    person: text()
      .notNull()
      .references(() => people.id),
    text: text().notNull(),
    position: integer().notNull(),
  },
  (table) => [primaryKey({ columns: [table.person, table.text] })],
);

/** What holds for the whole workspace, by key. */
export const workspace = sqliteTable('workspace', { key: text().primaryKey(), value: json<unknown>().notNull() });

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
  (table) => [primaryKey({ columns: [table.group, table.person] }), index('members_person').on(table.person)],
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
export const links = sqliteTable(
  'links',
  {
    digest: text().primaryKey(),
    person: text()
      .notNull()
      .references(() => people.id),
    what: text({ enum: ['invitation', 'reset'] }).notNull(),
    endsAt: text().notNull(),
  },
  (table) => [index('links_person').on(table.person)],
);

/** Failed attempts to sign in, by address and by where they came from. */
export const attempts = sqliteTable('attempts', {
  key: text().primaryKey(),
  count: integer().notNull(),
  lastAt: text().notNull(),
});

/** Keys by which other programs act for a person. */
export const keys = sqliteTable(
  'keys',
  {
    id: text().primaryKey(),
    person: text()
      .notNull()
      .references(() => people.id),
    title: text().notNull(),
    digest: text().notNull().unique(),
    /** The first characters, to know it by. */
    start: text().notNull(),
    scopes: json<readonly Scope[]>().notNull(),
    createdAt: text().notNull(),
    usedAt: text(),
    endedAt: text(),
  },
  (table) => [index('keys_person').on(table.person)],
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
