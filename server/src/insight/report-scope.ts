/** Which messages a report of Looking back counts. */
import type { Period } from '@vocabula/contract';
import { and, eq, gte, lt, type SQL } from 'drizzle-orm';
import { schema } from '../db/database.js';
import type { User } from '../people/user.js';

const { handedOver } = schema;
const DAY = 86_400_000;

/** The messages that a report counts: those of a period, and for colleagues only their own. */
export interface ReportScope {
  /** First moment of the period (ISO 8601, UTC); undefined means from the beginning. */
  readonly from: string | undefined;
  /** First moment after the period (ISO 8601, UTC). */
  readonly until: string;
  /** Id of the only person whose messages count; undefined means everybody. */
  readonly person: string | undefined;
}

/** The scope of a report that `user` asks for. A period without an end ends `now`. */
export function scopeOf({ from, until }: Period, user: User, now: Date): ReportScope {
  const end = until ? new Date(Date.parse(`${until}T00:00:00Z`) + DAY) : now;
  return {
    from: from && `${from}T00:00:00.000Z`,
    until: end.toISOString(),
    person: user.role === 'colleague' ? user.id : undefined,
  };
}

/** SQL condition on `handed_over` that selects the messages of a scope. */
export const inScope = ({ from, until, person }: ReportScope): SQL | undefined =>
  and(
    lt(handedOver.at, until),
    from === undefined ? undefined : gte(handedOver.at, from),
    person === undefined ? undefined : eq(handedOver.person, person),
  );
