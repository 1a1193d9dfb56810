/** How often something has changed that much depends on: see `db/generation-cache.ts`. Raised by triggers, in the transaction of the change. */
import { integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';

export const generations = sqliteTable('generations', {
  /** `rights`: folders, what is granted in them, groups. `published`: which version of which text is in use, and where. */
  topic: text({ enum: ['rights', 'published'] }).primaryKey(),
  number: integer().notNull(),
});
