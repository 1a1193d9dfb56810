/** What becomes of working copies: versions, checkpoints, requests, remarks. Frozen documents and versions never change. */
import { TRIAL_OUTCOMES, type ProofReport, type Remark } from '@vocabula/contract';
import type { House, TextDocument } from '@vocabula/core';
import type { Agreed } from '@vocabula/core/languages';
import { isNotNull, isNull } from 'drizzle-orm';
import { index, integer, primaryKey, real, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';
import { json } from './json.js';

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
  (table) => [
    primaryKey({ columns: [table.text, table.number] }),
    // Few are withdrawn, and each list of messages asks for them.
    index('versions_withdrawn').on(table.withdrawnAt).where(isNotNull(table.withdrawnAt)),
  ],
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

/** Lines of a text's original, with what says the same in it: what was compared when it was put into its language. */
export const agreedLines = sqliteTable('agreed_lines', {
  text: text().primaryKey(),
  pairs: json<readonly Agreed[]>().notNull(),
});

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

/** Versions of one text that are used side by side. A text has one running trial at most. */
export const trials = sqliteTable(
  'trials',
  {
    id: text().primaryKey(),
    text: text().notNull(),
    arms: json<readonly { readonly version: number; readonly weight: number }[]>().notNull(),
    outcome: text({ enum: TRIAL_OUTCOMES }).notNull(),
    /** The smallest difference that matters, as a share. */
    matters: real().notNull(),
    startedAt: text().notNull(),
    who: text().notNull(),
    whoName: text().notNull(),
    endedAt: text(),
    /** Why it ended, in words. */
    endedBecause: text(),
  },
  (table) => [uniqueIndex('trials_running').on(table.text).where(isNull(table.endedAt))],
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
    /** The proof report that went with it. */
    report: json<ProofReport>().notNull(),
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
    /** What was said to it. */
    answers: json<Remark['answers']>().notNull().default([]),
    settledAt: text(),
    settledBy: text(),
  },
  (table) => [index('remarks_text').on(table.text)],
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
    document: json<TextDocument | House>().notNull(),
    createdAt: text().notNull(),
  },
  (table) => [uniqueIndex('frozen_name_digest').on(table.name, table.digest)],
);
