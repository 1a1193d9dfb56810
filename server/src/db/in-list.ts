/** Lists in SQL. */
import { sql, type SQL } from 'drizzle-orm';

/** A list as one parameter, for `IN`. The statement is the same for any length, so it is prepared once. */
export const among = (values: readonly (string | number)[]): SQL =>
  sql`(SELECT value FROM json_each(${JSON.stringify(values)}))`;
