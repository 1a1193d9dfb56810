/** States of working copies that are kept for ninety days: at the start of a sitting, as work goes on, before big acts. */
import { randomUUID } from 'node:crypto';
import type { Checkpoint, CheckpointReason } from '@vocabula/contract';
import { desc, eq, lt } from 'drizzle-orm';
import type { Row } from '../catalogue/visible-texts.js';
import { schema, type Reader, type Writer } from '../db/database.js';
import type { User } from '../people/user.js';
import { freeze } from './frozen.js';

const { checkpoints } = schema;
/** After so long without a change, the next one begins a sitting. */
const SITTING = 30 * 60_000;
const WORK = 10 * 60_000;
export const KEPT_DAYS = 90;

/** Keeps the state a text is in, for a reason. */
export async function checkpoint(
  writer: Writer,
  row: Pick<Row, 'name' | 'revision' | 'document'>,
  reason: CheckpointReason,
  user: Pick<User, 'id' | 'name'>,
): Promise<void> {
  const document = row.document;
  const frozen = await freeze(writer, { name: row.name, revision: row.revision, document });
  await writer.insert(checkpoints).values({
    id: randomUUID(),
    text: row.name,
    frozen,
    revision: row.revision,
    reason,
    who: user.id,
    whoName: user.name,
    at: new Date().toISOString(),
  });
}

/** When the last state of a text was kept, and whose sitting that was. */
export type LastCheckpoint = Pick<typeof checkpoints.$inferSelect, 'who' | 'at'>;

/** Keeps the state before a change, where a sitting begins with it or ten minutes have passed since the last. */
export async function checkpointBefore(
  writer: Writer,
  row: Row,
  last: LastCheckpoint | undefined,
  user: User,
  now = new Date(),
): Promise<void> {
  const since = (at: string): number => now.getTime() - Date.parse(at);
  const sitting = !last || last.who !== user.id || since(row.updatedAt) > SITTING;
  if (sitting || since(last.at) >= WORK) await checkpoint(writer, row, sitting ? 'sitting' : 'work', user);
}

export async function checkpointsOf(reader: Reader | Writer, name: string): Promise<Checkpoint[]> {
  const rows = await reader
    .select()
    .from(checkpoints)
    .where(eq(checkpoints.text, name))
    .orderBy(desc(checkpoints.at))
    .limit(500);
  return rows.map(({ id, reason, whoName, at }) => ({ id, reason: reason as CheckpointReason, who: whoName, at }));
}

/** Lets go of those that are older than ninety days. */
export async function forgetOld(writer: Writer, now = new Date()): Promise<void> {
  await writer
    .delete(checkpoints)
    .where(lt(checkpoints.at, new Date(now.getTime() - KEPT_DAYS * 86_400_000).toISOString()));
}

/** Takes the checkpoints of a text that is purged. */
export async function removeCheckpoints(writer: Writer, text: string): Promise<void> {
  await writer.delete(schema.checkpoints).where(eq(schema.checkpoints.text, text));
}
