/**
 * Pauses of sending. What the mail service says before it is given a message is about itself or about a sender, not
 * about the message: then the queue waits, for everybody or for that sender, longer each time, and nothing is given up.
 */
import type { SendingPause } from '@vocabula/contract';
import { eq, inArray } from 'drizzle-orm';
import { schema, type Database, type Reader, type Writer } from '../db/database.js';

const { pauses } = schema;
/** How long each next pause is, in seconds; the last is repeated. */
const LENGTHS = [2, 5, 15, 30, 60, 300, 900, 1800];

/** Who a pause is for: everybody, or the messages of one person. */
export type PauseScope = 'all' | `person:${string}`;
export const scopeOf = (person: string): PauseScope => `person:${person}`;

/** Begins a pause, or makes the one there is longer. @returns when sending is tried again */
export async function pauseSending(writer: Writer, scope: PauseScope, why: string, now = Date.now()): Promise<string> {
  const [before] = await writer.select().from(pauses).where(eq(pauses.scope, scope));
  // Two processes that fail at the same moment make it longer once.
  const isRunning = before !== undefined && before.until > new Date(now).toISOString();
  const tries = (before?.tries ?? 0) + (isRunning ? 0 : 1);
  const seconds = LENGTHS[Math.min(tries, LENGTHS.length) - 1] ?? 0;
  const until = isRunning ? before.until : new Date(now + seconds * 1000).toISOString();
  const row = { scope, why, since: before?.since ?? new Date(now).toISOString(), until, tries };
  await writer.insert(pauses).values(row).onConflictDoUpdate({ target: pauses.scope, set: row });
  return until;
}

/** Ends pauses: the service has taken a message, or somebody wants it tried now. */
export async function endPauses(writer: Writer, scopes: readonly PauseScope[]): Promise<void> {
  await writer.delete(pauses).where(inArray(pauses.scope, [...scopes]));
}

/** Ends pauses where there are any; mostly nothing is written. */
export async function endPausesIfAny(database: Database, scopes: readonly PauseScope[]): Promise<void> {
  const found = await database.read.select({ scope: pauses.scope }).from(pauses);
  if (found.some(({ scope }) => (scopes as readonly string[]).includes(scope)))
    await database.write((writer) => endPauses(writer, scopes));
}

/** The pause that holds for a person's messages now, or that was the last; the longer one where there are two. */
export async function pauseFor(reader: Reader, person: string): Promise<SendingPause | undefined> {
  const rows = await reader
    .select()
    .from(pauses)
    .where(inArray(pauses.scope, ['all', scopeOf(person)]));
  const [last] = rows.sort((a, b) => b.until.localeCompare(a.until));
  return last && { why: last.why, since: last.since, until: last.until, everybody: last.scope === 'all' };
}
