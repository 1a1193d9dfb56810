/** What came of the versions of a trial so far. */
import type { Trial, TrialArm } from '@vocabula/contract';
import { always, trial } from '@vocabula/core/insight';
import { and, eq, inArray, isNotNull, lte, sql } from 'drizzle-orm';
import { schema, type Reader } from '../db/database.js';
import { outcomes } from '../insight/outcomes.js';
import type { TrialRow } from './store.js';

const { handedOver, versions } = schema;
const CONFIDENCE = 0.95;

/** A trial with its figures. */
export async function trialOf(reader: Reader, row: TrialRow, mayEnd: boolean): Promise<Trial> {
  const counts = await countsOf(reader, row);
  const notes = await notesOf(reader, row);
  const arms = row.arms.map(({ version, weight }): TrialArm => {
    const { trials, successes } = counts.get(version) ?? { trials: 0, successes: 0 };
    // As the verdict is made: each of k versions at 1 − α/k.
    const interval = always(successes, trials, 1 - (1 - CONFIDENCE) / row.arms.length);
    return { version, weight, note: notes.get(version) ?? '', trials, successes, ...interval };
  });
  const { verdict, best, differences } = trial(
    arms.map(({ version, trials, successes }) => ({ name: String(version), trials, successes })),
    { matters: row.matters, confidence: CONFIDENCE },
  );
  return {
    ...{ id: row.id, text: row.text, outcome: row.outcome, matters: row.matters, startedAt: row.startedAt },
    by: row.whoName,
    ended: row.endedAt === null ? undefined : { at: row.endedAt, why: row.endedBecause ?? '' },
    ...{ arms, verdict, mayEnd },
    best: best === undefined ? undefined : Number(best),
    differences: differences.map(({ of, to, low, high }) => ({ of: Number(of), to: Number(to), low, high })),
  };
}

/**
 * Recipients by version, and for how many of them the outcome came. A recipient counts once, with the first message they
 * got by the mail service in the trial: what the same person does with a second one is no evidence of its own. Openings
 * and links count for messages in which they can be counted.
 */
async function countsOf(
  reader: Reader,
  { id, outcome, endedAt }: TrialRow,
): Promise<Map<number, { readonly trials: number; readonly successes: number }>> {
  const counting = and(
    eq(handedOver.trial, id),
    isNotNull(handedOver.outgoing),
    endedAt === null ? undefined : lte(handedOver.at, endedAt),
  );
  const { came, could } = outcomes(
    reader,
    reader.select({ outgoing: handedOver.outgoing }).from(handedOver).where(counting),
  );
  // Those who were forgotten have no address any more; each of their messages counts.
  const recipient = sql`iif(${handedOver.address} = '', ${handedOver.id}, ${handedOver.address})`;
  const known = { answered: sql`1`, opened: could.opens, followed: could.follows }[outcome];
  const first = reader.$with('first').as(
    reader
      .select({
        version: handedOver.version,
        came: sql<number>`coalesce(${came[outcome]}, 0)`.as('came_out'),
        known: sql<number>`coalesce(${known}, 0)`.as('known'),
        // Of the columns beside a minimum, SQLite gives those of its row.
        at: sql<string>`min(${handedOver.at})`.as('at_first'),
      })
      .from(handedOver)
      .leftJoin(came, eq(came.outgoing, handedOver.outgoing))
      .leftJoin(could, eq(could.outgoing, handedOver.outgoing))
      .where(counting)
      .groupBy(recipient),
  );
  const rows = await reader
    .with(came, could, first)
    .select({
      version: first.version,
      trials: sql<number>`sum(${first.known})`,
      successes: sql<number>`sum(${first.came} AND ${first.known})`,
    })
    .from(first)
    .groupBy(first.version);
  return new Map(rows.flatMap(({ version, ...counted }) => (version === null ? [] : [[version, counted] as const])));
}

async function notesOf(reader: Reader, { text, arms }: TrialRow): Promise<Map<number, string>> {
  const rows = await reader
    .select({ number: versions.number, note: versions.note })
    .from(versions)
    .where(
      and(
        eq(versions.text, text),
        inArray(
          versions.number,
          arms.map(({ version }) => version),
        ),
      ),
    );
  return new Map(rows.map(({ number, note }) => [number, note]));
}
