/** The mailroom, which stands in for a mail service. */
import { blob, index, integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { json } from './json.js';

/** Mail that the stand-in for a mail service has taken. Never changed. */
export const letters = sqliteTable(
  'letters',
  {
    id: text().primaryKey(),
    sender: text().notNull(),
    recipients: json<readonly string[]>().notNull(),
    subject: text().notNull(),
    raw: blob({ mode: 'buffer' }).notNull(),
    at: text().notNull(),
    /** As its header has it: a mail that is given twice is kept once. */
    messageId: text().notNull().default(''),
    /** Who wrote it, as its header has it; its first words; and the message that its conversation began with. */
    from: text().notNull().default(''),
    opening: text().notNull().default(''),
    thread: text().notNull().default(''),
    /** Whether it is formed as mail is; null until it was read. */
    readable: integer({ mode: 'boolean' }),
  },
  (table) => [
    index('letters_at').on(table.at),
    index('letters_message_id').on(table.messageId),
    index('letters_sender').on(table.sender, table.at),
    // What lists show and stands behind the bytes of a mail: read here, nothing steps over those, of whatever size.
    index('letters_listed').on(table.id, table.from, table.opening, table.thread),
  ],
);

/** Who has which letter in their mailbox: by bare address, folded. */
export const deliveries = sqliteTable(
  'deliveries',
  {
    address: text().notNull(),
    letter: text()
      .notNull()
      .references(() => letters.id),
    at: text().notNull(),
    /** Since when it is dealt with. */
    doneAt: text(),
  },
  (table) => [
    primaryKey({ columns: [table.address, table.letter] }),
    index('deliveries_at').on(table.address, table.at),
    index('deliveries_letter').on(table.letter),
  ],
);

/** What made-up recipients are going to do, on the stand-in's own clock. */
export const intentions = sqliteTable(
  'intentions',
  {
    id: text().primaryKey(),
    letter: text().notNull(),
    recipient: text().notNull(),
    what: text({ enum: ['open', 'follow', 'answer', 'bounce'] }).notNull(),
    due: text().notNull(),
    doneAt: text(),
  },
  (table) => [index('intentions_due').on(table.doneAt, table.due)],
);
