/** Standing replies: rules, and what was decided on each mail. */
import { MAIL_ACTS, type KeptTrial, type StandingRule } from '@vocabula/contract';
import { index, integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { json } from './json.js';

/** A rule of somebody's, for the mail that comes to them. */
export const standingReplies = sqliteTable(
  'standing_replies',
  {
    id: text().primaryKey(),
    person: text().notNull(),
    /** The first whose condition holds answers. */
    position: integer().notNull(),
    rule: json<StandingRule>().notNull(),
    /** Since when it is on, ISO; null while it is off. Mail that came before is not answered. */
    onSince: text(),
    /** Why it was switched off by itself. */
    why: text().notNull().default(''),
    /** Tried on the past: what was found, and the rule it was found for. */
    trial: json<
      Omit<KeptTrial, 'current' | 'stillWrong'> & { readonly of: string; readonly letters: readonly string[] }
    >(),
    createdAt: text().notNull(),
    binnedAt: text(),
  },
  (table) => [index('standing_replies_person').on(table.person, table.position)],
);

/** What was decided on a mail that came to somebody: once, and never changed but to forget a sender. */
export const standingDecisions = sqliteTable(
  'standing_decisions',
  {
    person: text().notNull(),
    letter: text().notNull(),
    /** The rule whose condition held, and what it was called; null where none did. */
    rule: text(),
    title: text().notNull(),
    what: text({ enum: [...MAIL_ACTS, 'nothing'] }).notNull(),
    /** In words. */
    why: text().notNull(),
    /** Bare and folded. */
    address: text().notNull(),
    at: text().notNull(),
    /** The day of that, where its person is: what is sent a day is counted by it. */
    day: text().notNull(),
    fill: text(),
    outgoing: text(),
  },
  (table) => [
    primaryKey({ columns: [table.person, table.letter] }),
    index('standing_decisions_at').on(table.person, table.at),
    index('standing_decisions_address').on(table.person, table.address, table.what, table.at),
    index('standing_decisions_rule').on(table.rule, table.day),
  ],
);
