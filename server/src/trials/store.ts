/** Everything that is written of trials. */
import { and, eq, isNull } from 'drizzle-orm';
import { schema, type Reader, type Writer } from '../db/database.js';
import { Kept } from '../db/generation-cache.js';

const { trials } = schema;
export type TrialRow = typeof trials.$inferSelect;

/** All trials that run, by text: few, and asked for with every message that is begun. */
const running = new Kept<ReadonlyMap<string, TrialRow>>(['published'], 1);

/** The trial of a text that runs at the moment. */
export async function runningTrial(reader: Reader | Writer, text: string): Promise<TrialRow | undefined> {
  const all = await running.get(reader, '', async () => {
    const rows = await reader.select().from(trials).where(isNull(trials.endedAt));
    return new Map(rows.map((row) => [row.text, row]));
  });
  return all.get(text);
}
export async function addTrial(writer: Writer, row: TrialRow): Promise<void> {
  await writer.insert(trials).values(row);
}
/** Ends the running trial of a text, if there is one. @returns whether there was */
export async function endTrialOf(writer: Writer, text: string, because: string): Promise<boolean> {
  const { rowsAffected } = await writer
    .update(trials)
    .set({ endedAt: new Date().toISOString(), endedBecause: because })
    .where(and(eq(trials.text, text), isNull(trials.endedAt)));
  return rowsAffected > 0;
}
/** Takes the trials of a text that is purged. */
export async function removeTrials(writer: Writer, text: string): Promise<void> {
  await writer.delete(trials).where(eq(trials.text, text));
}
