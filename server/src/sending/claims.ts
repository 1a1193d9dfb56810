/**
 * Claims: which process sends which row. A row is claimed before it goes and settled after; the claim is renewed while
 * its process works, so that an old one means that the process has ended, however slow the mail service is.
 */
import { randomUUID } from 'node:crypto';
import { hostname } from 'node:os';
import { and, asc, eq, inArray, isNull, lte, notInArray, or } from 'drizzle-orm';
import { schema, type Database, type Reader, type Writer } from '../db/database.js';
import { changeOutgoing, renewClaims, type OutgoingRow } from './store.js';

const { outgoing, mailings, pauses } = schema;

/** How often a claim is renewed, and how old one of another process may get before it counts as left, in milliseconds. */
export interface ClaimTimes {
  readonly renew: number;
  readonly stale: number;
}
export const CLAIM_TIMES: ClaimTimes = { renew: 15_000, stale: 120_000 };

export class Claims {
  /** Of this courier alone: processes that run one after the other may have the same number. */
  readonly me = `${hostname()}:${process.pid}:${randomUUID().slice(0, 8)}`;
  private renewing: NodeJS.Timeout | undefined;

  constructor(
    private readonly database: Database,
    private readonly times: ClaimTimes = CLAIM_TIMES,
  ) {}

  /** Claims rows that are due; nobody else gets them. */
  async take(most: number): Promise<OutgoingRow[]> {
    // Mostly nothing is due: then nothing is written either.
    if ((await dueOf(this.database.read, 1)).length === 0) return [];
    return this.database.write(async (writer) => {
      const rows = await dueOf(writer, most);
      const ids = rows.map(({ id }) => id);
      if (ids.length > 0)
        await changeOutgoing(writer, ids, {
          state: 'sending',
          claimedBy: this.me,
          claimedAt: new Date().toISOString(),
        });
      return rows;
    });
  }

  /** Works with claimed rows, whose claims are renewed until that is over. */
  async renewed<T>(work: () => Promise<T>): Promise<T> {
    this.renewing = setInterval(() => {
      void this.database
        .write((writer) => renewClaims(writer, this.me))
        // A claim that could not be renewed this time is renewed the next; many tries fit before it is stale.
        .catch(() => undefined);
    }, this.times.renew);
    try {
      return await work();
    } finally {
      clearInterval(this.renewing);
    }
  }

  /** Rows that a process claimed and never settled: it was ended. */
  async left(): Promise<OutgoingRow[]> {
    const rows = await this.database.read.select().from(outgoing).where(eq(outgoing.state, 'sending'));
    return rows.filter((row) => !this.isAlive(row));
  }

  /** Whether the process that claimed a row may still settle it. */
  private isAlive({ claimedBy, claimedAt }: OutgoingRow): boolean {
    // Nothing of this courier is under way when it looks for what was left.
    if (claimedBy === null || claimedBy === this.me) return false;
    const age = Math.abs(Date.now() - Date.parse(claimedAt ?? ''));
    if (!(age < this.times.stale)) return false;
    const [host = '', pid = ''] = claimedBy.split(':');
    if (host !== hostname()) return true;
    try {
      // Signal 0 only asks whether there is such a process.
      process.kill(Number(pid), 0);
      return true;
    } catch {
      return false;
    }
  }
}

/** What is due and not paused, the longest due first. */
async function dueOf(reader: Reader | Writer, most: number): Promise<OutgoingRow[]> {
  const now = new Date().toISOString();
  const paused = (await reader.select({ scope: pauses.scope, until: pauses.until }).from(pauses)).filter(
    ({ until }) => until > now,
  );
  if (paused.some(({ scope }) => scope === 'all')) return [];
  const people = paused.map(({ scope }) => scope.slice('person:'.length));
  const rows = await reader
    .select({ row: outgoing })
    .from(outgoing)
    .leftJoin(mailings, eq(mailings.id, outgoing.mailing))
    .where(
      and(
        people.length > 0 ? notInArray(outgoing.person, people) : undefined,
        or(
          and(
            eq(outgoing.state, 'waiting'),
            lte(outgoing.due, now),
            or(isNull(outgoing.mailing), inArray(mailings.state, ['first', 'going'])),
          ),
          and(eq(outgoing.state, 'ready'), eq(mailings.state, 'going')),
        ),
      ),
    )
    .orderBy(asc(outgoing.due), asc(outgoing.position))
    .limit(most);
  return rows.map(({ row }) => row);
}
