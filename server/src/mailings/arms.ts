/** Mailings of a template that is being tried in several versions: which recipient gets which. */
import { and, eq, inArray, isNotNull } from 'drizzle-orm';
import { begin } from '../fills/beginning.js';
import type { Row } from '../fills/rows.js';
import { schema, type Database, type Reader } from '../db/database.js';
import { RequestProblem } from '../http/problem.js';
import type { User } from '../people/user.js';
import { runningTrial } from '../trials/store.js';
import { isUnchanged, type MailingRow } from './rows.js';

/**
 * The versions that a mailing made of a message gives out. What was reworded or stitched in it was made for one version,
 * so all recipients get that one, and it is no part of the trial.
 */
export async function armsFor(
  database: Database,
  { text, changes }: Pick<Row, 'text' | 'changes'>,
  user: User,
): Promise<Pick<MailingRow, 'trial' | 'arms'>> {
  const trial = isUnchanged(changes) ? await runningTrial(database.read, text) : undefined;
  if (!trial) return { trial: null, arms: [] };
  const arms = await database.write(async (writer) => {
    const made: MailingRow['arms'][number][] = [];
    for (const { version, weight } of trial.arms)
      made.push({ version, weight, frozen: (await begin(writer, text, user, [], version)).frozen });
    return made;
  });
  return { trial: trial.id, arms };
}

/** Throws where one of the versions that are given out was withdrawn since. */
export async function demandInUse(reader: Reader, { text, version, arms }: MailingRow): Promise<void> {
  const { versions } = schema;
  const given = arms.length > 0 ? arms.map((arm) => arm.version) : version === null ? [] : [version];
  const withdrawn = await reader
    .select({ number: versions.number })
    .from(versions)
    .where(and(eq(versions.text, text), inArray(versions.number, given), isNotNull(versions.withdrawnAt)));
  if (withdrawn.length > 0)
    throw new RequestProblem(409, 'withdrawn', 'This wording was withdrawn and must not be sent. Make it again.');
}
