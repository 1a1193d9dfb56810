/** Webhooks, and what each is told. */
import { DELIVERY_STATES, WEBHOOK_EVENTS } from '@vocabula/contract';
import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { json } from './json.js';

type Event = (typeof WEBHOOK_EVENTS)[number];

/** Addresses that are told when something happens to a message. */
export const webhooks = sqliteTable('webhooks', {
  id: text().primaryKey(),
  url: text().notNull(),
  /** What its signatures are made with. */
  secret: text().notNull(),
  events: json<readonly Event[]>().notNull(),
  who: text().notNull(),
  whoName: text().notNull(),
  createdAt: text().notNull(),
  /** The last rows that were looked at, of messages that were handed over and of what came of them. */
  handed: integer().notNull(),
  counted: integer().notNull(),
});

/** What is told, or was: one row for each thing and webhook, made once. */
export const webhookDeliveries = sqliteTable(
  'webhook_deliveries',
  {
    id: text().primaryKey(),
    webhook: text()
      .notNull()
      .references(() => webhooks.id, { onDelete: 'cascade' }),
    event: text({ enum: [...WEBHOOK_EVENTS, 'test'] }).notNull(),
    /** As it is sent. */
    body: text().notNull(),
    state: text({ enum: DELIVERY_STATES }).notNull(),
    why: text().notNull().default(''),
    attempts: integer().notNull().default(0),
    at: text().notNull(),
    due: text().notNull(),
  },
  (table) => [
    index('webhook_deliveries_due').on(table.state, table.due),
    index('webhook_deliveries_webhook').on(table.webhook, table.at),
  ],
);
