/** Rules as they are kept, made ready to be asked of mails. */
import type { StandingRule } from '@vocabula/contract';
import { dayIn } from '@vocabula/core';
import { mailCondition, type MailCondition, type MailRule } from '@vocabula/core/standing-replies';
import { createHash } from 'node:crypto';
import { and, count, desc, eq, inArray } from 'drizzle-orm';
import { schema, type Reader, type Writer } from '../db/database.js';
import type { StandingRow } from './store.js';

const { standingDecisions } = schema;

/** Conditions by their source: the same few are asked again and again. */
const conditions = new Map<string, MailCondition>();
const MOST_KEPT = 300;
export function conditionOf(when: string): MailCondition {
  const known = conditions.get(when);
  if (known) return known;
  if (conditions.size >= MOST_KEPT) conditions.clear();
  const made = mailCondition(when);
  conditions.set(when, made);
  return made;
}

export const readyRule = ({ id, rule }: Pick<StandingRow, 'id' | 'rule'>): MailRule => ({
  id,
  condition: conditionOf(rule.when),
  does: rule.does,
  everyDays: rule.everyDays,
  mostADay: rule.mostADay,
});

/** What a rule does, whatever it is called: a trial is of that. */
export const essenceOf = ({ title: _title, ...rule }: StandingRule): string =>
  createHash('sha256').update(JSON.stringify(rule)).digest('hex');

/** When a standing reply of somebody was last written to an address, ISO. */
export async function lastWritten(
  reader: Reader | Writer,
  person: string,
  address: string,
): Promise<string | undefined> {
  const [row] = await reader
    .select({ at: standingDecisions.at })
    .from(standingDecisions)
    .where(
      and(
        eq(standingDecisions.person, person),
        eq(standingDecisions.address, address),
        inArray(standingDecisions.what, ['draft', 'send']),
      ),
    )
    .orderBy(desc(standingDecisions.at))
    .limit(1);
  return row?.at;
}

/** How many a rule has sent on a day. */
export async function sentOn(reader: Reader | Writer, rule: string, day: string): Promise<number> {
  const [found] = await reader
    .select({ sent: count() })
    .from(standingDecisions)
    .where(and(eq(standingDecisions.rule, rule), eq(standingDecisions.day, day), eq(standingDecisions.what, 'send')));
  return found?.sent ?? 0;
}

/** The day of a moment where a rule counts. */
export const dayOf = (rule: Pick<StandingRule, 'timezone'>, at: Date): string => dayIn(at, rule.timezone);
