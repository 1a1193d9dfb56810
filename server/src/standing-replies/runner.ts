/**
 * Decides on mail that comes in, once on each: it is offered a reply, a draft is left, a reply is sent, or nothing
 * happens, always with the reason. The decision is written in the transaction that puts the reply among what goes out, so
 * that a process that is killed, or two that look at one moment, answer nothing twice.
 */
import { bareAddress } from '@vocabula/core/filling';
import { dueOf } from '@vocabula/core/series';
import { decideOn, type StandingDecision } from '@vocabula/core/standing-replies';
import { and, eq, isNotNull, isNull } from 'drizzle-orm';
import type { Logger } from 'pino';
import { assetsOf } from '../assets/message-assets.js';
import type { AssetService } from '../assets/service.js';
import { note } from '../audit/service.js';
import { schema, type Database, type Writer } from '../db/database.js';
import { demandWritable, recordOf } from '../fills/records.js';
import { fillOf } from '../fills/rows.js';
import { addFills } from '../fills/store.js';
import { currentHouse } from '../house/house-state.js';
import { RequestProblem } from '../http/problem.js';
import { ownAddresses } from '../people/addresses.js';
import { waysOf } from '../people/service.js';
import { userById } from '../people/user-by-id.js';
import type { User } from '../people/user.js';
import { refusedAmong } from '../recipients/service.js';
import type { Outbox } from '../sending/outbox.js';
import type { CameIn, Known, MailShelf } from './mails.js';
import type { MadeReply, Prepared, ReplyMaker } from './replying.js';
import { dayOf, lastWritten, readyRule, sentOn } from './rules.js';
import { addDecision, switchOff, type StandingRow } from './store.js';

const { standingReplies, people } = schema;
/** Mails that are decided on at once; what is left waits for the next look. */
const MOST = 200;
const DAY = 86_400_000;
/** How long a mail rests that could not be decided on, in milliseconds. */
const REST = 600_000;

/** One person's rules that are on, in order. */
interface Keeper {
  readonly user: User;
  readonly own: ReadonlySet<string>;
  readonly rules: readonly StandingRow[];
  readonly now: Date;
  /** What the replies of a rule are made from, once it is wanted. */
  readonly prepared: Map<string, Promise<Prepared>>;
}

export class StandingRunner {
  private working: Promise<number> | undefined;
  /** Mails that could not be decided on for a fault of ours, and until when they rest. */
  private readonly resting = new Map<string, number>();

  constructor(
    private readonly database: Database,
    private readonly shelf: MailShelf,
    private readonly replies: ReplyMaker,
    private readonly outbox: Outbox,
    private readonly assets: AssetService,
    /** The moment that counts: the stand-in's clock may be ahead. */
    private readonly now: () => Promise<Date>,
    private readonly wake: () => void,
    private readonly log: Logger,
  ) {}

  /** Decides on every mail that none was made on. Calls while it works join it. @returns how many there were */
  tick(): Promise<number> {
    return (this.working ??= this.work().finally(() => (this.working = undefined)));
  }

  private async work(): Promise<number> {
    let decided = 0;
    for (const keeper of await this.keepers()) {
      const since = keeper.rules.map(({ onSince }) => onSince ?? '').toSorted()[0] ?? '';
      const mails = await this.shelf.undecided(keeper.user.id, [...keeper.own], since, MOST);
      const known = await this.shelf.known(mails, keeper.rules[0]?.rule.timezone ?? 'UTC', '');
      for (const mail of mails) {
        const read = known.get(mail.letter);
        if (!read || (this.resting.get(mail.letter) ?? 0) > Date.now()) continue;
        this.resting.delete(mail.letter);
        await this.settle(keeper, mail, read).catch((error: unknown) => {
          this.log.error({ err: error, letter: mail.letter }, 'a mail could not be decided on');
          this.resting.set(mail.letter, Date.now() + REST);
        });
        decided += 1;
      }
    }
    return decided;
  }

  private async keepers(): Promise<Keeper[]> {
    const { read } = this.database;
    const rows = await read
      .select({ rule: standingReplies })
      .from(standingReplies)
      .innerJoin(people, eq(people.id, standingReplies.person))
      .where(and(isNotNull(standingReplies.onSince), isNull(standingReplies.binnedAt), isNull(people.endedAt)))
      .orderBy(standingReplies.person, standingReplies.position);
    const now = await this.now();
    const keepers: Keeper[] = [];
    for (const person of new Set(rows.map(({ rule }) => rule.person)))
      keepers.push({
        user: await userById(read, person),
        own: new Set(await ownAddresses(read, person)),
        rules: rows.flatMap(({ rule }) => (rule.person === person ? [rule] : [])),
        now,
        prepared: new Map(),
      });
    return keepers;
  }

  /** Decides on one mail, and does what follows from it. */
  private async settle(keeper: Keeper, mail: CameIn, known: Known): Promise<void> {
    // A rule answers what comes after it was switched on. Of a rule switched off meanwhile the rest is written again.
    const rules = keeper.rules.filter(({ onSince }) => onSince !== null && onSince <= mail.at);
    const decision = mail.done
      ? ({ what: 'nothing', why: 'it was dealt with already' } as const)
      : await this.decision(keeper, rules, known);
    const rule = rules.find(({ id }) => id === decision.rule);
    if (!rule || decision.what === 'nothing' || decision.what === 'suggest')
      return this.keep(keeper, rule, mail, known, decision);
    try {
      const prepared = await this.preparedFor(keeper, rule);
      const reply = await this.replies.make(prepared, mail.letter, known);
      if (reply.lacks !== undefined)
        return await this.keep(keeper, rule, mail, known, { ...decision, what: 'suggest', why: reply.lacks });
      await this.give(keeper, rule, mail, known, decision.what, { ...prepared, ...reply });
    } catch (problem) {
      if (!(problem instanceof RequestProblem)) throw problem;
      // Another process was quicker, or its sender has got one just now: it is looked at again.
      if (problem.status === 409) return;
      await this.keep(keeper, rule, mail, known, { ...decision, what: 'suggest', why: problem.message });
    }
  }

  private preparedFor({ user, prepared }: Keeper, { id, rule }: StandingRow): Promise<Prepared> {
    const found = prepared.get(id) ?? this.replies.prepare(rule, user);
    prepared.set(id, found);
    return found;
  }

  private async decision(
    { user, own, now }: Keeper,
    rules: readonly StandingRow[],
    { mail: read, moment }: Known,
  ): Promise<StandingDecision> {
    const address = bareAddress(read.from);
    const { read: reader } = this.database;
    const refused = await refusedAmong(reader, [address]);
    const last = await lastWritten(reader, user.id, address);
    const sent = new Map<string, number>();
    for (const { id, rule } of rules) sent.set(id, await sentOn(reader, id, dayOf(rule, now)));
    return decideOn(read, rules.map(readyRule), {
      ...moment,
      at: now.toISOString(),
      own,
      refused: (each) => refused.has(each),
      lastTo: () => last,
      sentOn: (id) => sent.get(id) ?? 0,
    });
  }

  /** Sends a reply, or leaves it as a draft. */
  private async give(
    keeper: Keeper,
    rule: StandingRow,
    mail: CameIn,
    known: Known,
    what: 'draft' | 'send',
    { row, message, input, profile }: MadeReply & Prepared,
  ): Promise<void> {
    const { user } = keeper;
    await demandWritable(this.database.read, message);
    const fill = await fillOf(this.database.read, row);
    // What nobody looked at says so in its subject (RFC 3834, 3.1.5).
    const goes = what === 'send' ? { ...message, subject: `Auto: ${message.subject}` } : message;
    await this.outbox.add({
      ...{ fill, message: goes, profile, user, automatic: what === 'send' },
      due: what === 'draft' ? 'draft' : await this.dueFor(rule, user),
      moment: { now: new Date(), zone: rule.rule.timezone },
      assets: await this.assets.source(assetsOf(message)),
      record: recordOf(fill, goes, input, user, 'service'),
      along: async (writer, outgoing) => {
        await demandStill(writer, rule, bareAddress(known.mail.from), what, keeper.now);
        await addFills(writer, [row]);
        await decided(writer, this.row(keeper, rule, mail, known, { what, why: '', rule: rule.id }, outgoing, row.id));
      },
    });
    if (what === 'send') this.wake();
  }

  /** The next moment within working hours, where the rule wants that; undefined for now. */
  private async dueFor({ rule }: StandingRow, { id }: User): Promise<string | undefined> {
    if (!rule.hours) return undefined;
    const { read } = this.database;
    const { from, to, days } = await waysOf(read, id);
    const { house } = await currentHouse(read, 'fill');
    const now = Date.now();
    const calendar = { zone: rule.timezone, from, to, days, holidays: new Set(house.holidays) };
    const due = dueOf({ text: rule.text }, now, () => undefined, calendar);
    return 'at' in due && due.at > now ? new Date(due.at).toISOString() : undefined;
  }

  /** Writes a decision down that nothing goes by. */
  private keep(
    keeper: Keeper,
    rule: StandingRow | undefined,
    mail: CameIn,
    known: Known,
    decision: StandingDecision,
  ): Promise<void> {
    return this.database.write(async (writer) => {
      if (!(await addDecision(writer, this.row(keeper, rule, mail, known, decision)))) return;
      if (!rule || decision.what !== 'nothing' || !decision.ceiling) return;
      const day = dayOf(rule.rule, keeper.now);
      await switchOff(writer, rule.id, `It sent ${rule.rule.mostADay} replies on ${day}, the most it may send a day.`);
      await note(writer, keeper.user, 'stopped', 'standing reply', rule.id, `${rule.rule.title}: its most a day`);
    });
  }

  private row(
    { user, now }: Keeper,
    rule: StandingRow | undefined,
    { letter }: CameIn,
    { mail }: Known,
    { what, why }: StandingDecision,
    outgoing: string | null = null,
    fill: string | null = null,
  ): Parameters<typeof addDecision>[1] {
    return {
      ...{ person: user.id, letter, rule: rule?.id ?? null, title: rule?.rule.title ?? '', what, why },
      ...{ address: bareAddress(mail.from), at: now.toISOString(), fill, outgoing },
      day: dayOf(rule?.rule ?? { timezone: 'UTC' }, now),
    };
  }
}

async function decided(writer: Writer, row: Parameters<typeof addDecision>[1]): Promise<void> {
  if (!(await addDecision(writer, row)))
    throw new RequestProblem(409, 'settled', 'This mail was decided on meanwhile.');
}

/** Throws a 409 where a rule was switched off meanwhile, or its sender or its day has had enough. */
async function demandStill(
  writer: Writer,
  { id, person, rule }: StandingRow,
  address: string,
  what: 'draft' | 'send',
  now: Date,
): Promise<void> {
  const [still] = await writer
    .select({ on: standingReplies.onSince })
    .from(standingReplies)
    .where(eq(standingReplies.id, id));
  const last = await lastWritten(writer, person, address);
  const recent = last !== undefined && now.getTime() - Date.parse(last) < rule.everyDays * DAY;
  const full = what === 'send' && (await sentOn(writer, id, dayOf(rule, now))) >= rule.mostADay;
  if (!still?.on || recent || full) throw new RequestProblem(409, 'settled', 'This was decided otherwise meanwhile.');
}
