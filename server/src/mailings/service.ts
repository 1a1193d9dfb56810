/** One message each to many: made from an unfinished message, looked through, and sent so that nobody gets two. */
import { randomUUID } from 'node:crypto';
import {
  MOST_RECIPIENTS,
  type AddRecipients,
  type ChangeMailed,
  type ChangeMailing,
  type DriveMailing,
  type MailedRow,
  type Mailing,
  type MailingSummary,
  type MakeMailing,
  type OutgoingState,
} from '@vocabula/contract';
import { and, asc, count, desc, eq } from 'drizzle-orm';
import { note } from '../audit/service.js';
import { schema, type Database, type Reader } from '../db/database.js';
import { checkChanges } from '../fills/changes.js';
import { frozenOf } from '../fills/rows.js';
import type { FillService } from '../fills/service.js';
import { notFound, RequestProblem } from '../http/problem.js';
import type { User } from '../people/user.js';
import type { Outbox } from '../sending/outbox.js';
import type { TableService } from '../samples/service.js';
import { judge, OPEN } from './readiness.js';
import { peopleOfList, readPasted, type Given } from './recipients.js';
import { armsFor, demandInUse } from './arms.js';
import { insertRows, mailedRow, stateFor, type MailingRow } from './rows.js';
import { changeInMailing, changeOutgoing } from '../sending/store.js';
import { addMailing, changeMailing, reopenMailing } from './store.js';

const { mailings, outgoing } = schema;
const LEFT_OUT = 'left out';

export class MailingService {
  constructor(
    private readonly database: Database,
    private readonly fills: FillService,
    private readonly lists: TableService,
    private readonly outbox: Outbox,
  ) {}

  /** Begins with an unfinished message: its version, its answers, what was reworded in it. */
  async make({ fill: id, timezone }: MakeMailing, user: User): Promise<Mailing> {
    this.outbox.demandService();
    const fill = await this.fills.get(id, user);
    if (fill.standing === 'withdrawn')
      throw new RequestProblem(409, 'withdrawn', 'This wording was withdrawn and must not be sent.');
    const [row] = await this.database.read.select().from(schema.fills).where(eq(schema.fills.id, id));
    if (!row || row.house === null) throw notFound('message');
    const mailing: MailingRow = {
      id: randomUUID(),
      person: user.id,
      text: row.text,
      title: row.title,
      version: row.version,
      fill: id,
      frozen: row.frozen,
      house: row.house,
      signature: row.signature,
      ...(await armsFor(this.database, row, user)),
      zone: timezone ?? 'UTC',
      changes: row.changes,
      answers: row.answers,
      differing: [],
      state: 'preparing',
      broken: [],
      revision: 1,
      createdAt: new Date().toISOString(),
      startedAt: null,
      endedAt: null,
    };
    await this.database.write((writer) => addMailing(writer, mailing));
    return this.whole(mailing);
  }

  async list(user: User): Promise<MailingSummary[]> {
    const rows = await this.database.read
      .select()
      .from(mailings)
      .where(eq(mailings.person, user.id))
      .orderBy(desc(mailings.createdAt))
      .limit(40);
    return Promise.all(rows.map((row) => this.summary(row)));
  }

  async get(id: string, user: User): Promise<Mailing> {
    return this.whole(await this.own(id, user));
  }

  /** How far it is; asked for again and again while it goes. */
  async progress(id: string, user: User): Promise<MailingSummary> {
    return this.summary(await this.own(id, user));
  }

  async rows(id: string, user: User): Promise<MailedRow[]> {
    const mailing = await this.own(id, user);
    const rows = await this.database.read
      .select()
      .from(outgoing)
      .where(eq(outgoing.mailing, id))
      .orderBy(asc(outgoing.position));
    return rows.map((row) => mailedRow(row, mailing));
  }

  /** Adds people of a list, or pasted ones; whoever is among them already stays once. */
  async add(id: string, given: AddRecipients, user: User): Promise<Mailing> {
    const mailing = await this.own(id, user);
    demandPreparing(mailing);
    const read =
      'paste' in given ? await readPasted(given.paste) : await peopleOfList(this.database, this.lists, given, user);
    await this.database.write(async (writer) => {
      const known = new Set(
        (await writer.select({ address: outgoing.address }).from(outgoing).where(eq(outgoing.mailing, id))).map(
          ({ address }) => address,
        ),
      );
      const twice: string[] = [];
      const fresh: Given[] = [];
      for (const person of read.people) {
        if (known.has(person.address)) twice.push(`${person.address}: there already`);
        else {
          known.add(person.address);
          fresh.push(person);
        }
      }
      if (known.size > MOST_RECIPIENTS)
        throw new RequestProblem(422, 'too-many', `One mailing writes to ${MOST_RECIPIENTS} people at most.`);
      await insertRows(writer, mailing, fresh, user);
      const broken = [...mailing.broken, ...read.broken, ...twice].slice(0, 2000);
      await changeMailing(writer, id, { broken });
    });
    await judge(this.database, id);
    return this.get(id, user);
  }

  /** What is asked once, and which questions are asked of each. */
  async change(id: string, { answers, differing }: ChangeMailing, user: User): Promise<Mailing> {
    const mailing = await this.own(id, user);
    demandPreparing(mailing);
    await this.database.write((writer) =>
      changeMailing(writer, id, {
        ...(answers ? { answers } : {}),
        ...(differing ? { differing } : {}),
        revision: mailing.revision + 1,
      }),
    );
    await judge(this.database, id);
    return this.get(id, user);
  }

  /** Changes one message of it by itself, or leaves it out. */
  async changeRow(id: string, rowId: string, change: ChangeMailed, user: User): Promise<MailedRow> {
    const mailing = await this.own(id, user);
    await this.database.write(async (writer) => {
      const [row] = await writer
        .select()
        .from(outgoing)
        .where(and(eq(outgoing.id, rowId), eq(outgoing.mailing, id)));
      if (!row) throw notFound('message');
      if (![...OPEN, 'taken back'].includes(row.state))
        throw new RequestProblem(409, 'gone', 'This message is on its way, or has gone.');
      if (change.changes) {
        const { texts } = await frozenOf(writer, stateFor(mailing, row.address));
        const { lost } = checkChanges(texts, change.changes);
        if (lost > 0) throw new RequestProblem(422, 'bad-changes', 'The text does not say there what was reworded.');
      }
      await changeOutgoing(writer, [rowId], {
        ...(change.answers ? { answers: change.answers } : {}),
        ...(change.fields ? { fields: { ...change.fields, email: row.address } } : {}),
        ...(change.changes ? { changes: change.changes } : {}),
        ...(change.out === undefined
          ? {}
          : change.out
            ? { state: 'taken back' as const, why: LEFT_OUT }
            : { state: 'ready' as const, why: '' }),
      });
    });
    await judge(this.database, id, [rowId]);
    const [row] = await this.database.read.select().from(outgoing).where(eq(outgoing.id, rowId));
    if (!row) throw notFound('message');
    return mailedRow(row, mailing);
  }

  /** Sends the first, the rest; pauses, goes on, stops. */
  async drive(id: string, given: DriveMailing, user: User): Promise<MailingSummary> {
    const mailing = await this.own(id, user);
    const { state } = mailing;
    const to = async (next: MailingRow['state'], from: readonly MailingRow['state'][]): Promise<void> => {
      if (!from.includes(state))
        throw new RequestProblem(409, 'state', `This is not possible now: the mailing is ${WORDS[state]}.`);
      const ended = next === 'stopped' ? { endedAt: new Date().toISOString() } : {};
      await this.database.write((writer) => changeMailing(writer, id, { state: next, ...ended }));
    };
    switch (given.act) {
      case 'first':
        await this.sendFirst(mailing, given.count, user);
        break;
      case 'rest':
        await to('going', ['first']);
        break;
      case 'pause':
        await to('paused', ['going', 'first']);
        break;
      case 'go on':
        await to('going', ['paused']);
        break;
      case 'again':
      case 'arrived':
        await this.settleUncertain(mailing, given, user);
        break;
      case 'stop':
        await to('stopped', ['going', 'paused', 'first']);
        await this.database.write(async (writer) => {
          await changeInMailing(writer, id, ['ready', 'waiting'], { state: 'taken back', why: 'stopped' });
          await note(writer, user, 'stopped', 'mailing', id, mailing.title);
        });
        break;
    }
    return this.progress(id, user);
  }

  /** Settles all of a mailing that may have gone: they have arrived, or they go once more. */
  private settleUncertain(
    mailing: MailingRow,
    { act, count: typed }: Extract<DriveMailing, { act: 'again' | 'arrived' }>,
    user: User,
  ): Promise<void> {
    return this.database.write(async (writer) => {
      const where = and(eq(outgoing.mailing, mailing.id), eq(outgoing.state, 'uncertain'));
      const rows = await writer.select({ id: outgoing.id }).from(outgoing).where(where);
      if (rows.length !== typed)
        throw new RequestProblem(
          422,
          'count',
          `${rows.length} messages may have gone; you typed ${typed}. Nothing was changed.`,
        );
      const now = new Date().toISOString();
      if (act === 'arrived')
        await changeInMailing(writer, mailing.id, ['uncertain'], {
          state: 'gone',
          goneAt: now,
          why: 'as its person says',
        });
      else {
        await changeInMailing(writer, mailing.id, ['uncertain'], { state: 'waiting', due: now, why: '', attempts: 0 });
        await reopenMailing(writer, mailing.id);
      }
      const words = act === 'arrived' ? 'noted as arrived' : 'sent again';
      await note(writer, user, 'wrote to', 'mailing', mailing.id, `${mailing.title}: ${rows.length} ${words}`);
    });
  }

  private async sendFirst(mailing: MailingRow, typed: number, user: User): Promise<void> {
    demandPreparing(mailing);
    this.outbox.demandService();
    await demandInUse(this.database.read, mailing);
    await judge(this.database, mailing.id);
    await this.database.write(async (writer) => {
      const ready = await writer
        .select({ id: outgoing.id })
        .from(outgoing)
        .where(and(eq(outgoing.mailing, mailing.id), eq(outgoing.state, 'ready')))
        .orderBy(asc(outgoing.position));
      const [first] = ready;
      if (!first) throw new RequestProblem(422, 'nobody', 'No recipient is ready.');
      if (ready.length < 2) throw new RequestProblem(422, 'one', 'To one person, send the message itself.');
      if (ready.length !== typed)
        throw new RequestProblem(
          422,
          'count',
          `${ready.length} messages are ready; you typed ${typed}. Nothing was sent.`,
        );
      const now = new Date().toISOString();
      await changeOutgoing(writer, [first.id], { state: 'waiting', due: now });
      await changeMailing(writer, mailing.id, { state: 'first', startedAt: now });
      await note(writer, user, 'wrote to', 'mailing', mailing.id, `${mailing.title}: ${ready.length} people`);
    });
  }

  private async own(id: string, user: User): Promise<MailingRow> {
    const [row] = await this.database.read
      .select()
      .from(mailings)
      .where(and(eq(mailings.id, id), eq(mailings.person, user.id)));
    if (!row) throw notFound('mailing');
    return row;
  }

  private async summary(row: MailingRow): Promise<MailingSummary> {
    const grouped = await countsOf(this.database.read, row.id);
    const counts: Partial<Record<OutgoingState, number>> = {};
    const apart = new Map<string, number>();
    for (const { state, why, number } of grouped) {
      counts[state] = (counts[state] ?? 0) + number;
      if (state !== 'ready' && state !== 'gone' && state !== 'sending' && why !== '')
        apart.set(why, (apart.get(why) ?? 0) + number);
    }
    return {
      id: row.id,
      text: row.text,
      title: row.title,
      state: row.state,
      createdAt: row.createdAt,
      counts,
      apart: [...apart].map(([why, number]) => ({ why, count: number })),
      broken: row.broken,
    };
  }

  private async whole(row: MailingRow): Promise<Mailing> {
    const { read } = this.database;
    const { texts, house } = await frozenOf(read, row);
    const others = row.arms.filter(({ version }) => version !== row.version);
    return {
      ...(await this.summary(row)),
      version: row.version ?? undefined,
      texts,
      others: await Promise.all(
        others.map(async ({ version, frozen }) => ({
          version,
          texts: (await frozenOf(read, { frozen, house: null })).texts,
        })),
      ),
      house,
      signature: row.signature ?? undefined,
      zone: row.zone,
      changes: row.changes,
      answers: row.answers,
      differing: row.differing,
    };
  }
}

const WORDS: Readonly<Record<MailingRow['state'], string>> = {
  preparing: 'being made',
  first: 'waiting for you to look at the first',
  going: 'going',
  paused: 'paused',
  stopped: 'stopped',
  done: 'done',
};

function demandPreparing({ state }: MailingRow): void {
  if (state !== 'preparing')
    throw new RequestProblem(
      409,
      'state',
      `This mailing is ${WORDS[state]}: who it goes to cannot be changed any more.`,
    );
}

const countsOf = (reader: Reader, id: string) =>
  reader
    .select({ state: outgoing.state, why: outgoing.why, number: count() })
    .from(outgoing)
    .where(eq(outgoing.mailing, id))
    .groupBy(outgoing.state, outgoing.why);
