/** Everything that is written of series under way. */
import type { StepState } from '@vocabula/contract';
import { and, eq, inArray } from 'drizzle-orm';
import { schema, type Writer } from '../db/database.js';

const { seriesRuns, seriesSteps } = schema;
export type RunRow = typeof seriesRuns.$inferSelect;
export type StepRow = typeof seriesSteps.$inferSelect;

/** Steps whose moment is still to come. */
export const OPEN_STEPS: readonly StepState[] = ['waiting', 'look'];
export const isOpen = ({ state }: Pick<StepRow, 'state'>): boolean => OPEN_STEPS.includes(state);

export async function addRun(writer: Writer, run: RunRow, steps: readonly StepRow[]): Promise<void> {
  await writer.insert(seriesRuns).values(run);
  await writer.insert(seriesSteps).values([...steps]);
}
/** Changes a step, as long as it is in one of these states. @returns false where it is in another by now */
export async function changeStep(
  writer: Writer,
  { run, position }: Pick<StepRow, 'run' | 'position'>,
  changed: Partial<Omit<StepRow, 'run' | 'position'>>,
  from: readonly StepState[] = OPEN_STEPS,
): Promise<boolean> {
  const { rowsAffected } = await writer
    .update(seriesSteps)
    .set(changed)
    .where(and(eq(seriesSteps.run, run), eq(seriesSteps.position, position), inArray(seriesSteps.state, [...from])));
  return rowsAffected > 0;
}
/** Ends a series that is under way. @returns false where it has ended */
export async function endRun(writer: Writer, id: string, state: 'done' | 'stopped', why = ''): Promise<boolean> {
  const { rowsAffected } = await writer
    .update(seriesRuns)
    .set({ state, why, endedAt: new Date().toISOString() })
    .where(and(eq(seriesRuns.id, id), eq(seriesRuns.state, 'going')));
  return rowsAffected > 0;
}

/** Erases somebody: what ran to them is stopped, and keeps no more than that it was there. */
export async function forgetInSeries(writer: Writer, bare: string): Promise<void> {
  const mine = await writer.select({ id: seriesRuns.id }).from(seriesRuns).where(eq(seriesRuns.address, bare));
  for (const { id } of mine) {
    await endRun(writer, id, 'stopped', 'who it went to was forgotten');
    await writer
      .update(seriesRuns)
      .set({ address: `forgotten-${id}`, name: '', recipient: {}, answers: {} })
      .where(eq(seriesRuns.id, id));
  }
}
