/** Reports on what happened to messages. Figures belong to texts, never to a person; colleagues see only their own use. */
import { LEDGER_WEEKS, type CountedShare, type LedgerRow, type Period, type TextInsight } from '@vocabula/contract';
import { dayIn } from '@vocabula/core';
import { median } from '@vocabula/core/insight';
import { and, eq, isNotNull, sql, type SQL } from 'drizzle-orm';
import { schema, type Database, type Reader } from '../db/database.js';
import type { User } from '../people/user.js';
import { summaryOf } from '../catalogue/text-summaries.js';
import { TEXT_HEAD } from '../catalogue/visible-texts.js';
import { accessOf } from '../rights/access.js';
import { outcomes } from './outcomes.js';
import { inScope, scopeOf, type ReportScope } from './report-scope.js';
import { textInsight } from './text-insight.js';

const { texts, handedOver } = schema;
const WEEK = 7;

export class InsightService {
  constructor(private readonly database: Database) {}

  /**
   * One row for each message template that the user sees and that was used in the period, or that they may write. The
   * most used come first.
   */
  async ledger(period: Period, user: User, now: Date): Promise<LedgerRow[]> {
    const { read } = this.database;
    const scope = scopeOf(period, user, now);
    const access = await accessOf(read, user);
    const [heads, sums, weeks, worked] = [
      await read.select(TEXT_HEAD).from(texts),
      await sumsOf(read, scope),
      await weeksOf(read, scope),
      await workTimesOf(read, scope),
    ];
    const today = dayIn(now, 'UTC');
    return heads
      .flatMap((head): LedgerRow[] => {
        const seen = summaryOf(head, access, today);
        const sum = sums.get(head.name);
        if (!seen || seen.kind !== 'message' || seen.binned || (!sum && !seen.mayWrite)) return [];
        const times = worked.get(head.name) ?? [];
        return [
          {
            ...{ name: head.name, title: seen.title, folder: head.folder },
            ...(sum ?? NOTHING),
            weeks: weeks.get(head.name) ?? NO_WEEKS,
            worked: median(times),
            workedOf: times.length,
          },
        ];
      })
      .sort((a, b) => b.uses - a.uses || a.title.localeCompare(b.title, 'en'));
  }

  /** The report on one text. Throws "not found" if the user may not write it. */
  async text(name: string, { zone, ...period }: Period & { readonly zone: string }, user: User): Promise<TextInsight> {
    return textInsight(this.database.read, name, { ...scopeOf(period, user, new Date()), zone }, user);
  }
}

type Sums = Omit<LedgerRow, 'name' | 'title' | 'folder' | 'weeks' | 'worked' | 'workedOf'>;
const NONE = { successes: 0, trials: 0 };
const NOTHING: Sums = {
  ...{ uses: 0, people: 0, missing: NONE, reworded: NONE, opened: NONE, followed: NONE, answered: NONE, bounced: NONE },
};
const NO_WEEKS: readonly number[] = Array<number>(LEDGER_WEEKS).fill(0);

/** Sums over the messages of each text, in one query. */
async function sumsOf(reader: Reader, scope: ReportScope): Promise<Map<string, Sums>> {
  const { came, could } = outcomes(reader);
  const sum = (condition: SQL): SQL<number> => sql<number>`coalesce(sum(${condition}), 0)`;
  const rows = await reader
    .with(came, could)
    .select({
      text: handedOver.text,
      uses: sql<number>`count(*)`,
      people: sql<number>`count(DISTINCT ${handedOver.person})`,
      lastUse: sql<string>`max(${handedOver.at})`,
      missing: sum(sql`${handedOver.missing} > 0`),
      missingOf: sql<number>`count(${handedOver.missing})`,
      reworded: sum(sql`${handedOver.reworded} > 0`),
      sent: sql<number>`count(${handedOver.outgoing})`,
      opened: sum(sql`${came.opened} AND ${could.opens}`),
      openedOf: sum(sql`${could.opens}`),
      followed: sum(sql`${came.followed} AND ${could.follows}`),
      followedOf: sum(sql`${could.follows}`),
      answered: sum(sql`${came.answered}`),
      bounced: sum(sql`${came.bounced}`),
    })
    .from(handedOver)
    .leftJoin(came, eq(came.outgoing, handedOver.outgoing))
    .leftJoin(could, eq(could.outgoing, handedOver.outgoing))
    .where(inScope(scope))
    .groupBy(handedOver.text);
  const share = (successes: number, trials: number): CountedShare => ({ successes, trials });
  return new Map(
    rows.map((row) => [
      row.text,
      {
        ...{ uses: row.uses, people: row.people, lastUse: row.lastUse },
        missing: share(row.missing, row.missingOf),
        reworded: share(row.reworded, row.uses),
        opened: share(row.opened, row.openedOf),
        followed: share(row.followed, row.followedOf),
        answered: share(row.answered, row.sent),
        bounced: share(row.bounced, row.sent),
      },
    ]),
  );
}

/** Number of messages of each text in each of the last weeks of the period, the oldest week first. */
async function weeksOf(reader: Reader, scope: ReportScope): Promise<Map<string, number[]>> {
  const ago = sql<number>`CAST((julianday(${scope.until}) - julianday(${handedOver.at})) / ${WEEK} AS INTEGER)`;
  const rows = await reader
    .select({ text: handedOver.text, ago, uses: sql<number>`count(*)` })
    .from(handedOver)
    .where(and(inScope(scope), sql`${ago} < ${LEDGER_WEEKS}`))
    .groupBy(handedOver.text, ago);
  const weeksByText = new Map<string, number[]>();
  for (const row of rows) {
    const weeks = weeksByText.get(row.text) ?? [...NO_WEEKS];
    weeks[LEDGER_WEEKS - 1 - row.ago] = row.uses;
    weeksByText.set(row.text, weeks);
  }
  return weeksByText;
}

/** Seconds of work on each message of each text, for the messages where it was recorded. */
async function workTimesOf(reader: Reader, scope: ReportScope): Promise<Map<string, number[]>> {
  const rows = await reader
    .select({ text: handedOver.text, worked: handedOver.worked })
    .from(handedOver)
    .where(and(inScope(scope), isNotNull(handedOver.worked)));
  const times = new Map<string, number[]>();
  for (const { text, worked } of rows) {
    if (worked === null) continue;
    const own = times.get(text);
    if (own) own.push(worked);
    else times.set(text, [worked]);
  }
  return times;
}
