/** What happened to sent messages: opened, followed, answered, bounced. */
import { sql, type SQL, type SQLWrapper } from 'drizzle-orm';
import { schema, type Reader } from '../db/database.js';

const { counts, counted } = schema;

/**
 * Two subqueries by sent message: `came` says what happened to it afterwards, `could` whether openings and followed
 * links of it can be counted at all.
 * @param among ids of sent messages, as a query; all of them where it is left out
 */
export function outcomes(reader: Reader, among?: SQLWrapper) {
  const ever = (column: typeof counts.what | typeof counted.what, what: string): SQL<number> =>
    sql<number>`max(${column} = ${what})`;
  const came = reader.$with('came').as(
    reader
      .select({
        outgoing: counts.outgoing,
        opened: ever(counts.what, 'opened').as('opened'),
        followed: ever(counts.what, 'followed').as('followed'),
        answered: ever(counts.what, 'answered').as('answered'),
        bounced: ever(counts.what, 'bounced').as('bounced'),
      })
      .from(counts)
      .where(among && sql`${counts.outgoing} IN ${among}`)
      .groupBy(counts.outgoing),
  );
  const could = reader.$with('could').as(
    reader
      .select({
        outgoing: counted.outgoing,
        opens: ever(counted.what, 'opened').as('opens'),
        follows: ever(counted.what, 'followed').as('follows'),
      })
      .from(counted)
      .where(among && sql`${counted.outgoing} IN ${among}`)
      .groupBy(counted.outgoing),
  );
  return { came, could };
}
