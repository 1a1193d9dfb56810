/** How the reading of a real mailbox stands: kept for all processes, for one of them reads. */
import type { SendingService } from '@vocabula/contract';
import type { Reader, Writer } from '../db/database.js';
import { keepWorkspaceValue, workspaceValue } from '../people/workspace.js';

const STATE = 'mailbox';
type State = NonNullable<SendingService['mailbox']>;

/** Whether the mailbox can be read, and why not; undefined where none is set up. */
export async function mailboxState(reader: Reader): Promise<State | undefined> {
  return ((await workspaceValue(reader, STATE)) as State | false | undefined) || undefined;
}
/** Keeps how it stands; false where none is set up. */
export const keepMailboxState = (writer: Writer, state: State | false): Promise<void> =>
  keepWorkspaceValue(writer, STATE, state);
