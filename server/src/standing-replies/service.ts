/** Standing replies: written, tried on the past, switched on and off, and what they did. */
import { randomUUID } from 'node:crypto';
import type {
  DriveStandingReply,
  ReadOriginal,
  ShownMessage,
  StandingDecisionLine,
  StandingReply,
  StandingRule,
  TriedStanding,
} from '@vocabula/contract';
import { and, desc, eq, gte, isNotNull, isNull, sql } from 'drizzle-orm';
import { note } from '../audit/service.js';
import { schema, type Database, type Writer } from '../db/database.js';
import { begin } from '../fills/beginning.js';
import { notFound, RequestProblem } from '../http/problem.js';
import type { User } from '../people/user.js';
import { conditionOf, essenceOf } from './rules.js';
import type { StandingRunner } from './runner.js';
import { addStanding, changeStanding, type StandingRow } from './store.js';
import { trialOf, type PastTrial } from './trying.js';

const { standingReplies, standingDecisions, letters, texts } = schema;
/** What somebody may have, and decisions that are listed. */
const [MOST_RULES, MOST_LISTED] = [50, 200];
const MONTH = 30 * 86_400_000;

export class StandingService {
  constructor(
    private readonly database: Database,
    private readonly past: PastTrial,
    readonly runner: StandingRunner,
  ) {}

  /** The user's own, in the order in which they are asked. */
  async list(user: User): Promise<StandingReply[]> {
    const { read } = this.database;
    const rows = await read.select().from(standingReplies).where(ownOf(user)).orderBy(standingReplies.position);
    const done = await this.done(user);
    return rows.map((row) => shown(row, done.get(row.id)));
  }

  async get(id: string, user: User): Promise<StandingReply> {
    return shown(await this.own(id, user), (await this.done(user)).get(id));
  }

  async make(rule: StandingRule, user: User): Promise<StandingReply> {
    const row: StandingRow = {
      ...{ id: randomUUID(), person: user.id, position: 0, rule, onSince: null, why: '', trial: null },
      ...{ createdAt: new Date().toISOString(), binnedAt: null },
    };
    return this.database.write(async (writer) => {
      const all = await writer.select({ position: standingReplies.position }).from(standingReplies).where(ownOf(user));
      if (all.length >= MOST_RULES)
        throw new RequestProblem(422, 'too-many', `There are ${MOST_RULES} standing replies, the most there may be.`);
      const added = { ...row, position: Math.max(0, ...all.map(({ position }) => position)) + 1 };
      await addStanding(writer, added);
      await note(writer, user, 'made', 'standing reply', row.id, rule.title);
      return shown(added);
    });
  }

  /** Keeps a rule as it is written now. One that is on and does something else now is switched off until it is tried. */
  save(id: string, rule: StandingRule, user: User): Promise<StandingReply> {
    return this.database.write(async (writer) => {
      const row = await this.own(id, user, writer);
      const isOther = essenceOf(rule) !== essenceOf(row.rule);
      const off =
        isOther && row.onSince !== null ? { onSince: null, why: 'It was changed: try it on the past again.' } : {};
      await changeStanding(writer, id, { rule, ...off });
      return shown({ ...row, rule, ...off });
    });
  }

  drive(id: string, { act }: DriveStandingReply, user: User): Promise<StandingReply> {
    return this.database.write(async (writer) => {
      const row = await this.own(id, user, writer, act === 'restore');
      const changed = await this.changedBy(act, row, user, writer);
      await changeStanding(writer, id, changed);
      return shown({ ...row, ...changed });
    });
  }

  private async changedBy(
    act: DriveStandingReply['act'],
    row: StandingRow,
    user: User,
    writer: Writer,
  ): Promise<Partial<StandingRow>> {
    const now = new Date().toISOString();
    const { title } = row.rule;
    switch (act) {
      case 'on':
        demandTried(row);
        // Throws words where the template cannot be filled.
        await begin(writer, row.rule.text, user);
        await note(writer, user, 'started', 'standing reply', row.id, title);
        return { onSince: row.onSince ?? now, why: '' };
      case 'off':
        await note(writer, user, 'stopped', 'standing reply', row.id, title);
        return { onSince: null, why: '' };
      case 'bin':
        await note(writer, user, 'binned', 'standing reply', row.id, title);
        return { onSince: null, why: '', binnedAt: now };
      case 'restore':
        return { binnedAt: null };
      case 'up':
      case 'down':
        return this.moved(row, act, user, writer);
    }
  }

  /** Changes places with its neighbour. */
  private async moved(row: StandingRow, act: 'up' | 'down', user: User, writer: Writer): Promise<Partial<StandingRow>> {
    const all = await writer.select().from(standingReplies).where(ownOf(user)).orderBy(standingReplies.position);
    const at = all.findIndex(({ id }) => id === row.id);
    const other = all[at + (act === 'up' ? -1 : 1)];
    if (!other) return {};
    await changeStanding(writer, other.id, { position: row.position });
    return { position: other.position };
  }

  /** Tries a rule on the past and keeps what was found with it. @param wrong letters that it should not answer */
  async try(id: string, wrong: readonly string[], user: User): Promise<TriedStanding> {
    const row = await this.own(id, user);
    demandWhole(row);
    const { mails, kept } = await this.past.try(row, wrong, user);
    await this.database.write((writer) => changeStanding(writer, id, { trial: kept }));
    return { standing: shown({ ...row, trial: kept }, (await this.done(user)).get(id)), mails };
  }

  /** How a rule would answer a mail. */
  async reply(id: string, letter: string, user: User): Promise<ShownMessage> {
    const row = await this.own(id, user);
    demandWhole(row);
    const { message, program } = await this.past.reply(row, letter, user);
    const labels = message.blanks.map((key) => program.slots.find((slot) => slot.key === key)?.label ?? key);
    return { subject: message.subject, html: message.html, text: message.text, blanks: labels };
  }

  /** What the letter says to the questions of a rule's template. */
  async answers(id: string, letter: string, user: User): Promise<Readonly<Record<string, string>>> {
    return (await this.past.reply(await this.own(id, user), letter, user)).answers;
  }

  /** The template that a standing reply offers for a letter, where one does. */
  async offered(letter: string, user: User): Promise<ReadOriginal['likely']> {
    const [found] = await this.database.read
      .select({ id: standingReplies.id, rule: standingReplies.rule, title: texts.title, why: standingDecisions.why })
      .from(standingDecisions)
      .innerJoin(standingReplies, eq(standingReplies.id, standingDecisions.rule))
      .innerJoin(texts, sql`${texts.name} = json_extract(${standingReplies.rule}, '$.text')`)
      .where(
        and(
          eq(standingDecisions.person, user.id),
          eq(standingDecisions.letter, letter),
          eq(standingDecisions.what, 'suggest'),
          isNull(standingReplies.binnedAt),
          isNotNull(texts.published),
        ),
      );
    if (!found) return [];
    const why = `standing reply “${found.rule.title}”${found.why === '' ? '' : ` (not by itself: ${found.why})`}`;
    return [{ name: found.rule.text, title: found.title, why, standing: found.id }];
  }

  /** What was decided on the last mails. */
  async decisions(user: User): Promise<StandingDecisionLine[]> {
    const rows = await this.database.read
      .select({ decision: standingDecisions, from: letters.from, subject: letters.subject })
      .from(standingDecisions)
      .innerJoin(letters, eq(letters.id, standingDecisions.letter))
      .where(eq(standingDecisions.person, user.id))
      .orderBy(desc(standingDecisions.at))
      .limit(MOST_LISTED);
    return rows.map(({ decision: { letter, at, title, what, why }, from, subject }) => ({
      ...{ letter, from, subject, at, title, what, why },
    }));
  }

  /** What each rule did in the last month. */
  private async done(user: User): Promise<ReadonlyMap<string, Partial<StandingReply['done']>>> {
    const rows = await this.database.read
      .select({ rule: standingDecisions.rule, what: standingDecisions.what, count: sql<number>`count(*)` })
      .from(standingDecisions)
      .where(
        and(
          eq(standingDecisions.person, user.id),
          gte(standingDecisions.at, new Date(Date.now() - MONTH).toISOString()),
        ),
      )
      .groupBy(standingDecisions.rule, standingDecisions.what);
    const found = new Map<string, Partial<StandingReply['done']>>();
    for (const { rule, what, count } of rows)
      if (rule !== null && what !== 'nothing') found.set(rule, { ...found.get(rule), [what]: count });
    return found;
  }

  private async own(
    id: string,
    user: User,
    reader: Writer | Database['read'] = this.database.read,
    binned = false,
  ): Promise<StandingRow> {
    const [row] = await reader
      .select()
      .from(standingReplies)
      .where(and(eq(standingReplies.id, id), eq(standingReplies.person, user.id)));
    if (!row || (row.binnedAt !== null) !== binned) throw notFound('standing reply');
    return row;
  }
}

const ownOf = ({ id }: User) => and(eq(standingReplies.person, id), isNull(standingReplies.binnedAt));

const NOTHING_DONE = { suggest: 0, draft: 0, send: 0 };
const shown = (row: StandingRow, done: Partial<StandingReply['done']> = {}): StandingReply => ({
  ...{ id: row.id, rule: row.rule, on: row.onSince !== null, why: row.why, trial: trialOf(row) },
  problem: conditionOf(row.rule.when).problems[0] ?? '',
  done: { ...NOTHING_DONE, ...done },
});

/** Throws words where a rule lacks its condition or its template. */
function demandWhole({ rule }: StandingRow): void {
  const [problem] = conditionOf(rule.when).problems;
  if (problem !== undefined) throw new RequestProblem(422, 'bad-condition', problem);
  if (rule.text === '') throw new RequestProblem(422, 'no-template', 'Choose the template that answers first.');
}

/** Throws words where a rule was not tried as it stands, or was found wrong. */
function demandTried(row: StandingRow): void {
  demandWhole(row);
  const trial = trialOf(row);
  if (!trial?.current)
    throw new RequestProblem(422, 'not-tried', 'Try it on the past as it stands now, then switch it on.');
  if (trial.stillWrong > 0)
    throw new RequestProblem(
      422,
      'found-wrong',
      `It still answers ${trial.stillWrong === 1 ? 'a mail' : `${trial.stillWrong} mails`} that you marked as wrong. Change its condition first.`,
    );
}
