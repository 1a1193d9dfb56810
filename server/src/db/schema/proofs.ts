/** What is kept of proofing. */
import { primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core';

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
