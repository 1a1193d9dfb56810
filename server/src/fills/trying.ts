/** A message whose template is being tried in several versions gets the one that its recipient gets. */
import { bareAddress } from '@vocabula/core/filling';
import type { Writer } from '../db/database.js';
import { RequestProblem } from '../http/problem.js';
import type { User } from '../people/user.js';
import { versionFor } from '../trials/assignment.js';
import { runningTrial } from '../trials/store.js';
import { begin, type Begun } from './beginning.js';
import type { Row } from './rows.js';

/** What of a message a trial decides. */
type Tried = Partial<Begun> & Pick<Row, 'trial'>;

/**
 * What a trial makes of a message whose recipient is known, or is another than before. What was reworded or stitched
 * before that was made for the version at hand: such a message keeps it, whichever it is, and does not count.
 */
export async function tried(
  writer: Writer,
  row: Pick<Row, 'text' | 'version' | 'recipient' | 'changes'>,
  user: User,
): Promise<Tried> {
  const address = bareAddress(row.recipient.email ?? '');
  const trial = address === '' ? undefined : await runningTrial(writer, row.text);
  if (!trial || row.changes.parts.length > 0 || row.changes.reworded.length > 0) return { trial: null };
  const version = versionFor(trial, address);
  try {
    const begun = version === row.version ? {} : await begin(writer, row.text, user, [], version);
    return { ...begun, trial: trial.id };
  } catch (problem) {
    // No message can be begun on the text any more; this one was, and goes on.
    if (problem instanceof RequestProblem) return { trial: null };
    throw problem;
  }
}

/** Whether a message goes to somebody else than before. */
export const goesElsewhere = (before: Row['recipient'], after: Row['recipient']): boolean =>
  bareAddress(before.email ?? '') !== bareAddress(after.email ?? '');
