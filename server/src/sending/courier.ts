/**
 * Takes what is due to the mail service, one message a recipient, and knows of each what became of it. A row is claimed
 * before it goes and settled after; what a process left claimed when it died is looked into before anything goes again.
 */
import { MailService, SendProblem } from '@vocabula/mail';
import { and, eq, inArray } from 'drizzle-orm';
import type { Logger } from 'pino';
import type { AssetService } from '../assets/service.js';
import type { Envelope, Recorded } from '../db/schema/sending.js';
import { schema, type Database, type Writer } from '../db/database.js';
import { recordOf } from '../fills/records.js';
import { inputOf, messageOf, whyNot } from '../fills/rendering.js';
import { RequestProblem } from '../http/problem.js';
import { answeredFor, changesFor, stateFor } from '../mailings/rows.js';
import { mailboxOf } from '../people/names.js';
import { Batch, Workshop } from './batch.js';
import { CLAIM_TIMES, Claims, type ClaimTimes } from './claims.js';
import { envelopeOf, type Outbox } from './outbox.js';
import { pauseSending, scopeOf, type PauseScope } from './pauses.js';
import { addHandedOver, changeFill } from '../fills/store.js';
import { changeMailing } from '../mailings/store.js';
import { changeOutgoing, settleGone, stillOf, stopGivenBack, type OutgoingRow } from './store.js';

const { outgoing, mailings, letters } = schema;

/** How long after each failed try the next one is, in seconds. */
const BACK_OFF = [30, 120, 600, 1800, 3600, 10_800, 21_600];
/** Rows that are claimed at once: by the stand-in it can be told what became of them; elsewhere each is one alone. */
const [TOGETHER, ALONE] = [100, 1];
/** Messages that are on their way at once: while the service takes one, another is made and given. */
const CONNECTIONS = 2;

interface Ready {
  readonly envelope: Envelope;
  readonly raw: Uint8Array;
  readonly record: Recorded;
}
type Outcome = Partial<OutgoingRow> & Pick<OutgoingRow, 'state'>;
/** What became of one that was given to the service, and whether sending has to pause. */
interface Sent {
  readonly outcome: Outcome;
  readonly record: Recorded | undefined;
  readonly pause?: { readonly scope: PauseScope; readonly why: string };
}
interface Settled {
  readonly row: OutgoingRow;
  readonly outcome: Outcome;
  readonly record: Recorded | undefined;
}

export class Courier {
  /** The connections to the mail service, each of which carries one message at a time. */
  private service: { readonly url: string; readonly connections: readonly MailService[] } | undefined;
  private running: Promise<void> | undefined;
  private stopped = false;
  private readonly claims: Claims;
  private readonly workshop: Workshop;

  constructor(
    private readonly database: Database,
    private readonly outbox: Outbox,
    assets: AssetService,
    private readonly smtp: () => string | undefined,
    /** Whether mail goes to the stand-in, which keeps what it takes in this database. */
    private readonly isStandIn: () => boolean,
    private readonly log: Logger,
    times: ClaimTimes = CLAIM_TIMES,
  ) {
    this.claims = new Claims(database, times);
    this.workshop = new Workshop(database, assets);
  }

  /** Sends what is due, until nothing is. Calls while it runs join it. */
  run(): Promise<void> {
    return (this.running ??= this.work().finally(() => (this.running = undefined)));
  }

  async stop(): Promise<void> {
    this.stopped = true;
    await this.running?.catch(() => undefined);
    this.closeService();
  }

  private async work(): Promise<void> {
    await this.lookInto();
    const url = this.smtp();
    if (url === undefined) return;
    while (!this.stopped) {
      const rows = await this.claims.take(this.isStandIn() ? TOGETHER : ALONE);
      if (rows.length === 0) break;
      await this.claims.renewed(() => this.sendAll(url, rows));
    }
    await this.finishMailings();
  }

  /** Sends claimed rows, a few at a time; where sending is paused, the rest is given back as it was. */
  private async sendAll(url: string, rows: readonly OutgoingRow[]): Promise<void> {
    const settled: Settled[] = [];
    const batch = new Batch(this.workshop);
    await batch.ask(rows.map(({ address }) => address));
    const paused = new Set<PauseScope>();
    const left = rows.values();
    const lanes = this.connections(url).map((mail) => this.sendFrom(left, mail, batch, paused, settled));
    const ended = await Promise.allSettled(lanes);
    await this.database.write((writer) => settleAll(writer, settled, this.claims.me));
    const failed = ended.find((each) => each.status === 'rejected');
    if (failed) throw failed.reason;
  }

  /** Sends one row after the other of those that are left; while one is on its way, the next is made. */
  private async sendFrom(
    left: Iterator<OutgoingRow>,
    mail: MailService,
    batch: Batch,
    paused: Set<PauseScope>,
    settled: Settled[],
  ): Promise<void> {
    const mayGo = async (row: OutgoingRow): Promise<boolean> =>
      !this.stopped &&
      !paused.has('all') &&
      !paused.has(scopeOf(row.person)) &&
      (row.mailing === null || (await batch.isGoing(row.mailing)));
    const following = () => {
      const { value: row } = left.next() as { readonly value: OutgoingRow | undefined };
      return { row, made: this.made(row, batch) };
    };
    for (let { row, made } = following(); row;) {
      const ready = await made;
      const back: Sent = { outcome: { state: row.state, due: row.due }, record: undefined };
      const sent = (await mayGo(row)) ? this.sendOne(mail, row, ready) : Promise.resolve(back);
      const next = following();
      const { outcome, record, pause } = await sent;
      settled.push({ row, outcome, record });
      if (pause) {
        paused.add(pause.scope);
        await this.database.write((writer) => pauseSending(writer, pause.scope, pause.why));
      } else if (outcome.state === 'gone') await batch.resumed(row.person);
      ({ row, made } = next);
    }
  }

  /** A message that is to go, or why it cannot be made. */
  private made(row: OutgoingRow | undefined, batch: Batch): Promise<Ready | RequestProblem | undefined> {
    if (!row || this.stopped) return Promise.resolve(undefined);
    return this.ready(row, batch).catch((problem: unknown) => {
      if (problem instanceof RequestProblem) return problem;
      throw problem;
    });
  }

  private async sendOne(mail: MailService, row: OutgoingRow, ready: Ready | RequestProblem | undefined): Promise<Sent> {
    if (!ready) return { outcome: { state: row.state, due: row.due }, record: undefined };
    // It cannot be made as it stands: an attachment is gone, somebody is on the do-not-write list since.
    if (ready instanceof RequestProblem)
      return { outcome: { state: row.mailing ? 'apart' : 'refused', why: ready.message }, record: undefined };
    const { envelope, raw, record } = ready;
    try {
      const refused = await mail.send({ ...envelope, eml: raw });
      const why = refused.length > 0 ? `not taken for ${refused.join(', ')}` : '';
      const goneAt = new Date().toISOString();
      return { outcome: { state: 'gone', goneAt, why, subject: record.subject, record: null }, record };
    } catch (problem) {
      const { kind, message } = problem instanceof SendProblem ? problem : new SendProblem(String(problem));
      this.log.warn({ kind, message }, 'not sent');
      // Given back as it was, with the reason: nothing of it has gone, and it was not its fault.
      const back: Sent = { outcome: { state: row.state, due: row.due, why: message }, record: undefined };
      switch (kind) {
        case 'service':
          return { ...back, pause: { scope: 'all', why: message } };
        case 'sender':
          return { ...back, pause: { scope: scopeOf(row.person), why: message } };
        case 'refused':
          return { outcome: { state: 'refused', why: message }, record: undefined };
        case 'unknown':
          return { outcome: await this.unknown(row, message), record };
        case 'later':
          return { outcome: later(row, message), record: undefined };
      }
    }
  }

  /** The message as it goes. */
  private async ready(row: OutgoingRow, batch: Batch): Promise<Ready> {
    if (row.mailing === null) {
      if (row.envelope === null || row.raw === null || row.record === null)
        throw new RequestProblem(422, 'empty', 'Nothing is left of this message.');
      const envelope = row.envelope;
      await batch.demandWritable(envelope.to);
      return { envelope, raw: row.raw, record: row.record };
    }
    const { mailing, profile, programFor } = await batch.prepared(row.mailing);
    const program = programFor(row);
    const moment = { now: new Date(), zone: mailing.zone };
    const answered = answeredFor(mailing, row);
    const message = messageOf(program, answered, profile, moment);
    if (!message.ready) throw new RequestProblem(422, 'not-ready', whyNot(message, program));
    const envelope = envelopeOf(message, profile);
    await batch.demandWritable(envelope.to);
    const from = mailboxOf(profile) ?? { name: '', address: envelope.from };
    const raw = await this.outbox.made(row.id, message, await batch.counting(), {
      date: moment.now,
      from,
      messageId: row.messageId,
      assets: await batch.source(message),
    });
    const record = recordOf(
      {
        ...answered,
        text: mailing.text,
        version: stateFor(mailing, row.address).version ?? undefined,
        trial: mailing.trial ?? undefined,
        changes: changesFor(mailing, row),
      },
      message,
      inputOf(answered, {}, moment),
      { id: row.person },
      'many',
    );
    return { envelope, raw, record };
  }

  private connections(url: string): readonly MailService[] {
    if (this.service?.url !== url) {
      this.closeService();
      this.service = { url, connections: Array.from({ length: CONNECTIONS }, () => new MailService(url)) };
    }
    return this.service.connections;
  }

  private closeService(): void {
    for (const each of this.service?.connections ?? []) each.close();
    this.service = undefined;
  }

  /** What became of a message whose service was lost: the stand-in can be asked, any other one not. */
  private async unknown(row: Pick<OutgoingRow, 'messageId'>, why: string): Promise<Outcome> {
    if (!this.isStandIn()) return { state: 'uncertain', why };
    return (await this.hasArrived(row.messageId))
      ? { state: 'gone', goneAt: new Date().toISOString(), why: '' }
      : { state: 'waiting', due: new Date().toISOString(), why: '' };
  }

  private async hasArrived(messageId: string): Promise<boolean> {
    const [found] = await this.database.read
      .select({ id: letters.id })
      .from(letters)
      .where(eq(letters.messageId, messageId))
      .limit(1);
    return found !== undefined;
  }

  /** Settles rows that a process claimed and never settled: it was killed. */
  private async lookInto(): Promise<void> {
    for (const row of await this.claims.left()) {
      const outcome = await this.unknown(
        row,
        'Vocabula was stopped while this message was going: nobody knows whether it went.',
      );
      const record =
        outcome.state === 'gone'
          ? await this.ready(row, new Batch(this.workshop)).then(
              ({ record: made }) => made,
              () => undefined,
            )
          : undefined;
      await this.database.write((writer) => settleAll(writer, [{ row, outcome, record }], row.claimedBy ?? ''));
    }
  }

  /** Mailings in which nothing is left to go are done. */
  private async finishMailings(): Promise<void> {
    const going = await this.database.read
      .select({ id: mailings.id })
      .from(mailings)
      .where(eq(mailings.state, 'going'));
    for (const { id } of going) {
      const [left] = await this.database.read
        .select({ id: outgoing.id })
        .from(outgoing)
        .where(and(eq(outgoing.mailing, id), inArray(outgoing.state, ['ready', 'waiting', 'sending'])))
        .limit(1);
      if (left) continue;
      await this.database.write((writer) =>
        changeMailing(writer, id, { state: 'done', endedAt: new Date().toISOString() }, ['going']),
      );
    }
  }
}

/** Tries again later, or gives up. */
function later({ attempts }: OutgoingRow, why: string): Outcome {
  const wait = BACK_OFF[attempts];
  if (wait === undefined) return { state: 'refused', why: `Given up after ${attempts + 1} tries. ${why}` };
  return { state: 'waiting', why, attempts: attempts + 1, due: new Date(Date.now() + wait * 1000).toISOString() };
}

/** Writes down what became of some rows; of those that have gone in one statement, for there may be thousands. */
async function settleAll(writer: Writer, settled: readonly Settled[], claimedBy: string): Promise<void> {
  const gone = settled.filter(({ outcome }) => outcome.state === 'gone');
  for (const { row, outcome } of settled)
    if (outcome.state !== 'gone')
      await changeOutgoing(writer, [row.id], { ...outcome, claimedBy: null }, stillOf(claimedBy));
  if (gone.length < settled.length) await stopGivenBack(writer);
  if (gone.length === 0) return;
  const rows = gone.map(({ row, outcome: { goneAt, why = '', subject = row.subject } }) => ({
    id: row.id,
    why,
    subject,
    at: goneAt ?? new Date().toISOString(),
  }));
  await settleGone(writer, rows, claimedBy);
  const fillsOf = new Map<string, string>();
  const records: Parameters<typeof addHandedOver>[1][number][] = [];
  for (const [at, { row, record }] of gone.entries()) {
    if (row.mailing !== null && !fillsOf.has(row.mailing)) {
      const [mailing] = await writer.select({ fill: mailings.fill }).from(mailings).where(eq(mailings.id, row.mailing));
      if (mailing) fillsOf.set(row.mailing, mailing.fill);
    }
    const fillId = row.fill ?? fillsOf.get(row.mailing ?? '');
    if (record && fillId) records.push({ ...record, fillId, at: rows[at]?.at ?? '', outgoing: row.id });
    if (row.fill !== null) await changeFill(writer, row.fill, { state: 'sent' });
  }
  await addHandedOver(writer, records);
}
