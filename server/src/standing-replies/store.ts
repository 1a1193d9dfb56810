/** Everything that is written of standing replies. */
import { and, eq, isNotNull } from 'drizzle-orm';
import { schema, type Writer } from '../db/database.js';

const { standingReplies, standingDecisions } = schema;
export type StandingRow = typeof standingReplies.$inferSelect;
export type DecisionRow = typeof standingDecisions.$inferSelect;

export async function addStanding(writer: Writer, row: StandingRow): Promise<void> {
  await writer.insert(standingReplies).values(row);
}
export async function changeStanding(
  writer: Writer,
  id: string,
  changed: Partial<Omit<StandingRow, 'id' | 'person'>>,
): Promise<void> {
  await writer.update(standingReplies).set(changed).where(eq(standingReplies.id, id));
}
/** Switches a rule off that went too far or cannot go on, and says why. */
export async function switchOff(writer: Writer, id: string, why: string): Promise<void> {
  await writer
    .update(standingReplies)
    .set({ onSince: null, why })
    .where(and(eq(standingReplies.id, id), isNotNull(standingReplies.onSince)));
}
/** Writes down what was decided on a mail. @returns false where that was done already */
export async function addDecision(writer: Writer, row: DecisionRow): Promise<boolean> {
  const { rowsAffected } = await writer.insert(standingDecisions).values(row).onConflictDoNothing();
  return rowsAffected > 0;
}

/** Erases somebody: decisions on their mails are kept without saying whose they were. */
export async function forgetInStanding(writer: Writer, bare: string): Promise<void> {
  await writer.update(standingDecisions).set({ address: '' }).where(eq(standingDecisions.address, bare));
}
