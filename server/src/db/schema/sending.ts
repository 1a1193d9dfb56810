/** What goes out through the mail service, and what is counted of it. */
import { MAILING_STATES, OUTGOING_STATES } from '@vocabula/contract';
import type { FillChanges } from '@vocabula/core/filling';
import { blob, index, integer, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';
import { json } from './json.js';
import { handedOver } from './messages.js';

/** What the mail service is told: who sends, and all who get it. */
export interface Envelope {
  readonly from: string;
  readonly to: readonly string[];
}

/** What is kept of a message when it has gone. */
export type Recorded = Omit<typeof handedOver.$inferInsert, 'id' | 'fillId' | 'at'>;

/** A version that a trial gives to some of a mailing's recipients. */
export interface MailedArm {
  readonly version: number;
  readonly weight: number;
  /** Ids of frozen documents, the template's own first. */
  readonly frozen: readonly string[];
}

/** One message to one recipient, from the draft until it has gone. */
export const outgoing = sqliteTable(
  'outgoing',
  {
    id: text().primaryKey(),
    person: text().notNull(),
    /** The message it was made of: an unfinished one, or a row of a mailing. */
    fill: text(),
    mailing: text(),
    position: integer(),
    /** Bare and folded; the first, where there are several. */
    address: text().notNull(),
    name: text().notNull(),
    subject: text().notNull(),
    state: text({ enum: OUTGOING_STATES }).notNull(),
    /** Why it does not go, in words. */
    why: text().notNull().default(''),
    due: text().notNull(),
    attempts: integer().notNull().default(0),
    /** Which process is sending it, and since when. */
    claimedBy: text(),
    claimedAt: text(),
    /** Rows of a mailing are rendered when they go. */
    envelope: json<Envelope>(),
    raw: blob({ mode: 'buffer' }),
    messageId: text().notNull(),
    /** Of rows of a mailing: the recipient, what is answered for them alone, and what was changed for them. */
    fields: json<Readonly<Record<string, string>>>().notNull().default({}),
    answers: json<Readonly<Record<string, unknown>>>().notNull().default({}),
    changes: json<FillChanges>().notNull().default({ parts: [], reworded: [] }),
    /** What it was rendered as, for the record of it; none before. */
    record: json<Recorded>(),
    createdAt: text().notNull(),
    goneAt: text(),
  },
  (table) => [
    index('outgoing_due').on(table.state, table.due),
    index('outgoing_person').on(table.person, table.state),
    index('outgoing_message_id').on(table.messageId),
    index('outgoing_address').on(table.address, table.goneAt),
    // One message a recipient: nobody is written to twice.
    uniqueIndex('outgoing_mailing').on(table.mailing, table.address),
    index('outgoing_position').on(table.mailing, table.position),
  ],
);

/** Why and until when nothing is sent: for all, or for `person:` and an id. A row stays until something has gone again. */
export const pauses = sqliteTable('pauses', {
  scope: text().primaryKey(),
  why: text().notNull(),
  since: text().notNull(),
  until: text().notNull(),
  tries: integer().notNull(),
});

/** One message each to many. */
export const mailings = sqliteTable(
  'mailings',
  {
    id: text().primaryKey(),
    person: text().notNull(),
    text: text().notNull(),
    title: text().notNull(),
    version: integer(),
    /** The message it began with, and what that was begun on. */
    fill: text().notNull(),
    frozen: json<readonly string[]>().notNull(),
    house: text().notNull(),
    signature: text(),
    /** The trial that gives each recipient one of several versions, and these; none where all get the same. */
    trial: text(),
    arms: json<readonly MailedArm[]>().notNull().default([]),
    zone: text().notNull(),
    changes: json<FillChanges>().notNull().default({ parts: [], reworded: [] }),
    /** What is asked once, and the keys of what is asked for each. */
    answers: json<Readonly<Record<string, unknown>>>().notNull().default({}),
    differing: json<readonly string[]>().notNull().default([]),
    state: text({ enum: MAILING_STATES }).notNull(),
    /** How many lines of what was given are nobody one can write to, with their words, as JSON. */
    broken: json<readonly string[]>().notNull().default([]),
    revision: integer().notNull().default(1),
    createdAt: text().notNull(),
    startedAt: text(),
    endedAt: text(),
  },
  (table) => [index('mailings_person').on(table.person, table.createdAt)],
);

/** Addresses by which opening a message, or following one of its links, is counted. */
export const counted = sqliteTable(
  'counted',
  {
    token: text().primaryKey(),
    outgoing: text().notNull(),
    what: text({ enum: ['opened', 'followed'] }).notNull(),
    url: text(),
  },
  (table) => [index('counted_outgoing').on(table.outgoing)],
);
export const counts = sqliteTable(
  'counts',
  {
    id: integer().primaryKey({ autoIncrement: true }),
    outgoing: text().notNull(),
    what: text({ enum: ['opened', 'followed', 'answered', 'bounced'] }).notNull(),
    at: text().notNull(),
  },
  (table) => [index('counts_outgoing').on(table.outgoing)],
);
