/** Series under way: one row a recipient, and one a step. */
import { RUN_STATES, STEP_STATES } from '@vocabula/contract';
import { ON_ANSWER } from '@vocabula/core';
import { index, integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { json } from './json.js';

/** A series to one recipient, from its beginning; it never begins again. */
export const seriesRuns = sqliteTable(
  'series_runs',
  {
    id: text().primaryKey(),
    /** Whose it is: from whom its messages go. */
    person: text().notNull(),
    text: text().notNull(),
    title: text().notNull(),
    version: integer(),
    /** Ids of frozen documents: the series, its templates and what they include; and of the house. */
    frozen: json<readonly string[]>().notNull(),
    house: text().notNull(),
    signature: text(),
    zone: text().notNull(),
    onAnswer: text({ enum: ON_ANSWER }).notNull(),
    /** Bare and folded. */
    address: text().notNull(),
    name: text().notNull(),
    recipient: json<Readonly<Record<string, string>>>().notNull(),
    answers: json<Readonly<Record<string, unknown>>>().notNull(),
    state: text({ enum: RUN_STATES }).notNull(),
    /** Why it was stopped, in words. */
    why: text().notNull().default(''),
    startedAt: text().notNull(),
    endedAt: text(),
  },
  (table) => [
    index('series_runs_person').on(table.person, table.state),
    index('series_runs_address').on(table.address),
    index('series_runs_state').on(table.state),
  ],
);

/** The steps of a series under way. Its messages are unfinished messages until they go. */
export const seriesSteps = sqliteTable(
  'series_steps',
  {
    run: text()
      .notNull()
      .references(() => seriesRuns.id),
    /** From 0. */
    position: integer().notNull(),
    text: text().notNull(),
    title: text().notNull(),
    /** It goes only after somebody has looked at it. */
    look: integer({ mode: 'boolean' }).notNull(),
    fill: text().notNull(),
    state: text({ enum: STEP_STATES }).notNull(),
    why: text().notNull().default(''),
    /** Of the step that is next, and of those that somebody moved: when it is due. */
    due: text(),
    moved: integer({ mode: 'boolean' }).notNull().default(false),
    /** Somebody has looked at it. */
    looked: integer({ mode: 'boolean' }).notNull().default(false),
    /** What it went by, and when it was given to that. */
    outgoing: text(),
    at: text(),
  },
  (table) => [
    primaryKey({ columns: [table.run, table.position] }),
    index('series_steps_due').on(table.state, table.due),
    index('series_steps_outgoing').on(table.outgoing),
    index('series_steps_fill').on(table.fill),
  ],
);
