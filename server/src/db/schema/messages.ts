/** Messages being filled, and those handed over, which never change but to forget somebody. */
import { WAYS, type OfferedValues, type Original } from '@vocabula/contract';
import type { FillChanges } from '@vocabula/core/filling';
import { isNotNull } from 'drizzle-orm';
import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { json } from './json.js';

/** Messages being filled, and those handed over. */
export const fills = sqliteTable(
  'fills',
  {
    id: text().primaryKey(),
    text: text().notNull(),
    title: text().notNull(),
    /** Ids of frozen documents, the template's own first. */
    frozen: json<readonly string[]>().notNull(),
    /** Id of the frozen house. */
    house: text(),
    signature: text(),
    /** Whose it is. */
    person: text().notNull().default('me'),
    /** The version of the template it was begun on, and the trial that gave it to this recipient. */
    version: integer(),
    trial: text(),
    /** The series that it is a step of: it is looked for there, not among unfinished messages. */
    series: text(),
    recipient: json<Readonly<Record<string, string>>>().notNull(),
    answers: json<Readonly<Record<string, unknown>>>().notNull(),
    /** Values taken over from elsewhere, those of them that were confirmed, and what else was changed. */
    offered: json<OfferedValues>().notNull().default({}),
    confirmed: json<readonly string[]>().notNull().default([]),
    changes: json<FillChanges>().notNull().default({ parts: [], reworded: [] }),
    /** The mail that is answered, and its letter in the mailroom. */
    original: json<Original>(),
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
    recipients: json<readonly string[]>().notNull(),
    html: text().notNull(),
    plain: text().notNull(),
    at: text().notNull(),
    person: text().notNull().default(''),
    text: text().notNull().default(''),
    version: integer(),
    /** The trial that this version was given by. */
    trial: text(),
    /** The first recipient's bare address, folded, and name: by which the record of a person is found. */
    address: text().notNull().default(''),
    name: text().notNull().default(''),
    answers: json<Readonly<Record<string, unknown>>>().notNull().default({}),
    /** How many lines were reworded, and how many texts stitched to it. */
    reworded: integer().notNull().default(0),
    stitched: integer().notNull().default(0),
    /** How many answers were missing, and how long somebody worked at it, in seconds; none where that was not recorded. */
    missing: integer(),
    worked: integer(),
    /** What it went by, if it went through the mail service. */
    outgoing: text(),
  },
  (table) => [
    index('handed_over_fill').on(table.fillId),
    index('handed_over_address').on(table.address, table.at),
    index('handed_over_person').on(table.person, table.at),
    index('handed_over_text').on(table.text, table.at),
    index('handed_over_trial').on(table.trial).where(isNotNull(table.trial)),
  ],
);
