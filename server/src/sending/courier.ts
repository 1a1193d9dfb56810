/**
 * Takes what is due to the mail service, one message a recipient, and knows of each what became of it. A row is claimed
 * before it goes and settled after; what a process left claimed when it died is looked into before anything goes again.
 */
import { hostname } from 'node:os';
import type { Message } from '@vocabula/core';
import { MailService, SendProblem, type AssetSource } from '@vocabula/mail';
import { and, asc, eq, inArray, isNull, lte, or } from 'drizzle-orm';
import type { Logger } from 'pino';
import { assetsOf } from '../assets/brought.js';
import type { AssetService } from '../assets/service.js';
import { schema, type Database, type Writer } from '../db/database.js';
import { demandWritable, recordHandedOver, recordOf, type Recorded } from '../fills/handing-over.js';
import { inputOf, messageOf, whyNot } from '../fills/rendering.js';
import { RequestProblem } from '../http/problem.js';
import { preparedOf, type Prepared } from '../mailings/prepared.js';
import { answeredFor, changesFor } from '../mailings/rows.js';
import { mailboxOf } from '../people/names.js';
import { envelopeOf, type Envelope, type Outbox, type OutgoingRow } from './outbox.js';

const { outgoing, mailings, fills, letters } = schema;

/** How long after each failed try the next one is, in seconds. */
const BACK_OFF = [30, 120, 600, 1800, 3600, 10_800, 21_600];
/** Rows that are claimed at once: by the stand-in it can be told what became of them; elsewhere each is one alone. */
const [TOGETHER, ALONE] = [50, 1];
/** A claim of another machine that is older than this is nobody's any more, in milliseconds. */
const STALE = 120_000;

interface Ready {
  readonly envelope: Envelope;
  readonly raw: Uint8Array;
  readonly record: Recorded;
}
type Outcome = Partial<OutgoingRow> & Pick<OutgoingRow, 'state'>;

export class Courier {
  private service: { readonly url: string; readonly mail: MailService } | undefined;
  private running: Promise<void> | undefined;
  private stopped = false;
  private readonly me = `${hostname()}:${process.pid}`;

  constructor(
    private readonly database: Database,
    private readonly outbox: Outbox,
    private readonly assets: AssetService,
    private readonly smtp: () => string | undefined,
    /** Whether mail goes to the stand-in, which keeps what it takes in this database. */
    private readonly isStandIn: () => boolean,
    private readonly log: Logger,
  ) {}

  /** Sends what is due, until nothing is. Calls while it runs join it. */
  run(): Promise<void> {
    return (this.running ??= this.work().finally(() => (this.running = undefined)));
  }

  async stop(): Promise<void> {
    this.stopped = true;
    await this.running?.catch(() => undefined);
    this.service?.mail.close();
    this.service = undefined;
  }

  private async work(): Promise<void> {
    await this.lookInto();
    const url = this.smtp();
    if (url === undefined) return;
    while (!this.stopped) {
      const rows = await this.claim(this.isStandIn() ? TOGETHER : ALONE);
      if (rows.length === 0) break;
      const reached = await this.sendAll(url, rows);
      if (!reached) break;
    }
    await this.finishMailings();
  }

  /** Claims rows that are due; nobody else gets them. */
  private claim(most: number): Promise<OutgoingRow[]> {
    return this.database.write(async (writer) => {
      const now = new Date().toISOString();
      const rows = await writer
        .select({ row: outgoing })
        .from(outgoing)
        .leftJoin(mailings, eq(mailings.id, outgoing.mailing))
        .where(
          or(
            and(
              eq(outgoing.state, 'waiting'),
              lte(outgoing.due, now),
              or(isNull(outgoing.mailing), inArray(mailings.state, ['first', 'going'])),
            ),
            and(eq(outgoing.state, 'ready'), eq(mailings.state, 'going')),
          ),
        )
        .orderBy(asc(outgoing.due), asc(outgoing.position))
        .limit(most);
      const ids = rows.map(({ row }) => row.id);
      if (ids.length > 0)
        await writer
          .update(outgoing)
          .set({ state: 'sending', claimedBy: this.me, claimedAt: now })
          .where(inArray(outgoing.id, ids));
      return rows.map(({ row }) => row);
    });
  }

  /** @returns whether the service could be reached; where not, the rest waits */
  private async sendAll(url: string, rows: readonly OutgoingRow[]): Promise<boolean> {
    const settled: { row: OutgoingRow; outcome: Outcome; record: Recorded | undefined }[] = [];
    let reached = true;
    for (const row of rows) {
      if (!reached || this.stopped) {
        // Given back as it was; nothing of it has gone.
        settled.push({ row, outcome: { state: row.state, due: row.due }, record: undefined });
        continue;
      }
      const { outcome, record, lost } = await this.sendOne(url, row);
      if (lost) reached = false;
      settled.push({ row, outcome, record });
    }
    await this.database.write(async (writer) => {
      for (const { row, outcome, record } of settled) await settle(writer, row, outcome, record);
    });
    return reached;
  }

  private async sendOne(
    url: string,
    row: OutgoingRow,
  ): Promise<{ outcome: Outcome; record: Recorded | undefined; lost?: boolean }> {
    let ready: Ready;
    try {
      ready = await this.ready(row);
    } catch (problem) {
      if (!(problem instanceof RequestProblem)) throw problem;
      // It cannot be made as it stands: an attachment is gone, somebody is on the do-not-write list since.
      return { outcome: { state: row.mailing ? 'apart' : 'refused', why: problem.message }, record: undefined };
    }
    const { envelope, raw, record } = ready;
    try {
      const refused = await this.mail(url).send({ ...envelope, eml: raw });
      const why = refused.length > 0 ? `not taken for ${refused.join(', ')}` : '';
      const goneAt = new Date().toISOString();
      return {
        outcome: { state: 'gone', goneAt, why, subject: record.subject, record: JSON.stringify(record) },
        record,
      };
    } catch (problem) {
      const { kind, message } = problem instanceof SendProblem ? problem : new SendProblem(String(problem));
      this.log.warn({ kind, message }, 'not sent');
      if (kind === 'refused') return { outcome: { state: 'refused', why: message }, record: undefined };
      if (kind === 'unknown') return { outcome: await this.unknown(row, message), record, lost: true };
      return { outcome: later(row, message), record: undefined, lost: message.includes('reached') };
    }
  }

  /** The message as it goes. */
  private async ready(row: OutgoingRow): Promise<Ready> {
    if (row.mailing === null) {
      if (row.envelope === null || row.raw === null || row.record === null)
        throw new RequestProblem(422, 'empty', 'Nothing is left of this message.');
      const envelope = JSON.parse(row.envelope) as Envelope;
      await demandWritable(this.database.read, { to: envelope.to, cc: [], bcc: [] });
      return { envelope, raw: row.raw, record: JSON.parse(row.record) as Recorded };
    }
    const { mailing, profile, programFor } = await this.prepared(row.mailing);
    const program = programFor(row);
    const moment = { now: new Date(), zone: mailing.zone };
    const answered = answeredFor(mailing, row);
    const message = messageOf(program, answered, profile, moment);
    if (!message.ready) throw new RequestProblem(422, 'not-ready', whyNot(message, program));
    await demandWritable(this.database.read, message);
    const envelope = envelopeOf(message, profile);
    const from = mailboxOf(profile) ?? envelope.from;
    const raw = await this.outbox.made(row.id, message, {
      date: moment.now,
      from,
      messageId: row.messageId,
      assets: await this.source(message),
    });
    const record = recordOf(
      { ...answered, text: mailing.text, version: mailing.version ?? undefined, changes: changesFor(mailing, row) },
      message,
      inputOf(answered, {}, moment),
      { id: row.person },
      'many',
    );
    return { envelope, raw, record };
  }

  private compiled: { readonly key: string; readonly made: Promise<Prepared> } | undefined;
  private brought: { readonly key: string; readonly source: Promise<AssetSource> } | undefined;

  /** A mailing compiled once, as long as it is not changed. */
  private async prepared(id: string): Promise<Prepared> {
    const [mailing] = await this.database.read.select().from(mailings).where(eq(mailings.id, id));
    if (!mailing) throw new RequestProblem(404, 'not-found', 'There is no such mailing.');
    const key = `${id}:${mailing.revision}`;
    if (this.compiled?.key !== key) this.compiled = { key, made: preparedOf(this.database.read, mailing) };
    return this.compiled.made;
  }

  /** The files of a message; those of one mailing are mostly the same for all. */
  private source(message: Message): Promise<AssetSource> {
    const paths = assetsOf(message);
    const key = paths.join('\n');
    if (this.brought?.key !== key) this.brought = { key, source: this.assets.source(paths) };
    return this.brought.source;
  }

  private mail(url: string): MailService {
    if (this.service?.url !== url) {
      this.service?.mail.close();
      this.service = { url, mail: new MailService(url) };
    }
    return this.service.mail;
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

  /** Rows that a process claimed and never settled: it was killed. */
  private async lookInto(): Promise<void> {
    const rows = await this.database.read.select().from(outgoing).where(eq(outgoing.state, 'sending'));
    const left = rows.filter(({ claimedBy, claimedAt }) => !isAlive(claimedBy, claimedAt, this.me));
    for (const row of left) {
      const outcome = await this.unknown(
        row,
        'Vocabula was stopped while this message was going: nobody knows whether it went.',
      );
      const record =
        outcome.state === 'gone'
          ? await this.ready(row).then(
              ({ record: made }) => made,
              () => undefined,
            )
          : undefined;
      await this.database.write((writer) => settle(writer, row, outcome, record));
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
        writer
          .update(mailings)
          .set({ state: 'done', endedAt: new Date().toISOString() })
          .where(and(eq(mailings.id, id), eq(mailings.state, 'going'))),
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

async function settle(writer: Writer, row: OutgoingRow, outcome: Outcome, record: Recorded | undefined): Promise<void> {
  await writer
    .update(outgoing)
    .set({ ...outcome, claimedBy: null })
    .where(eq(outgoing.id, row.id));
  if (outcome.state !== 'gone') return;
  const at = outcome.goneAt ?? new Date().toISOString();
  const [mailing] = row.mailing
    ? await writer.select({ fill: mailings.fill }).from(mailings).where(eq(mailings.id, row.mailing))
    : [];
  const fillId = row.fill ?? mailing?.fill;
  if (record && fillId) await recordHandedOver(writer, { ...record, fillId, at, outgoing: row.id });
  if (row.fill !== null) await writer.update(fills).set({ state: 'sent' }).where(eq(fills.id, row.fill));
}

/** Whether the process that claimed a row may still settle it. */
function isAlive(claimedBy: string | null, claimedAt: string | null, me: string): boolean {
  // This process is only beginning to send: what bears its name is of one before it.
  if (claimedBy === null || claimedBy === me) return false;
  const [host = '', pid = ''] = claimedBy.split(':');
  if (host === me.split(':')[0]) {
    try {
      // Signal 0 only asks whether there is such a process.
      process.kill(Number(pid), 0);
      return Date.now() - Date.parse(claimedAt ?? '') < STALE;
    } catch {
      return false;
    }
  }
  return Date.now() - Date.parse(claimedAt ?? '') < STALE;
}
