/** What waits to go through the mail service: put in, listed, changed, taken back until it goes. */
import { randomUUID } from 'node:crypto';
import type { ChangeOutgoing, Fill, Outgoing, OutgoingSummary, Profile, SendingService } from '@vocabula/contract';
import { foldedMailbox, type Message } from '@vocabula/core';
import { inlined, readEml, toEml, type AssetSource } from '@vocabula/mail';
import { and, desc, eq, inArray, isNull, sql } from 'drizzle-orm';
import { withAssets } from '../assets/message-assets.js';
import type { Envelope, Recorded } from '../db/schema/sending.js';
import { schema, type Database, type Writer } from '../db/database.js';
import type { Moment } from '../fills/rendering.js';
import { answered } from '../fills/records.js';
import { nameOfFields } from '../fills/rows.js';
import { notFound, RequestProblem } from '../http/problem.js';
import type { User } from '../people/user.js';
import { mailboxOf } from '../people/names.js';
import { workspaceOf } from '../people/workspace.js';
import { withCounting } from './counting.js';
import { endPauses, pauseFor, scopeOf } from './pauses.js';
import { mailboxState } from '../mailroom/mailbox-state.js';
import { changeFill } from '../fills/store.js';
import { reopenMailing } from '../mailings/store.js';
import { addOutgoing, changeOutgoing, dropDraft, type OutgoingRow } from './store.js';

const { outgoing, counts } = schema;

/** How long what is sent at once can be taken back, in milliseconds. */
export const GRACE = 30_000;

/** What a message is known by, everywhere and once; of the sender's domain. */
export const newMessageId = (from: string): string => `<${randomUUID()}@${from.split('@')[1] ?? 'vocabula.example'}>`;

/** What the mail service is told of a message. Throws words for a sender without an address, or a message for nobody. */
export function envelopeOf({ to, cc, bcc }: Pick<Message, 'to' | 'cc' | 'bcc'>, profile: Profile): Envelope {
  const from = mailboxOf(profile);
  if (from === undefined)
    throw new RequestProblem(422, 'no-sender', 'Mail is sent from your own address; it is missing in Settings.');
  const all = [...new Set([...to, ...cc, ...bcc].map(foldedMailbox))].filter(Boolean);
  if (all.length === 0) throw new RequestProblem(422, 'no-recipient', 'This message has no recipient yet.');
  return { from: foldedMailbox(from), to: all };
}

export interface Added {
  readonly fill: Fill;
  readonly message: Message;
  readonly assets: AssetSource;
  readonly profile: Profile;
  readonly moment: Moment;
  readonly record: Recorded;
  /** ISO moment, `draft`, or undefined for now. */
  readonly due: string | undefined;
  readonly user: User;
  /** Nobody looks at it before it goes: it says so, and programs leave it unanswered (RFC 3834). */
  readonly automatic?: boolean;
  /** Done in the transaction that puts it in; where it throws, nothing is put in. */
  readonly along?: (writer: Writer, id: string) => Promise<void>;
}

export class Outbox {
  constructor(
    private readonly database: Database,
    private readonly smtp: () => string | undefined,
    private readonly origin: () => string,
    private readonly isStandIn: () => boolean,
  ) {}

  /** Where mail of the user goes, and whether it is paused. */
  async service(user: User): Promise<SendingService> {
    const kind = this.smtp() === undefined ? 'none' : this.isStandIn() ? 'stand-in' : 'service';
    const mailbox = await mailboxState(this.database.read);
    return { kind, pause: await pauseFor(this.database.read, user.id), ...(mailbox ? { mailbox } : {}) };
  }

  demandService(): string {
    const url = this.smtp();
    if (url === undefined)
      throw new RequestProblem(422, 'no-mail-service', 'No mail service is set up: SMTP_URL is empty.');
    return url;
  }

  /** Puts a message in. @returns its id */
  async add(given: Added): Promise<string> {
    const { fill, message, assets, profile, moment, due, automatic = false, along } = given;
    this.demandService();
    if (due !== undefined && due !== 'draft' && Date.parse(due) < moment.now.getTime() - 60_000)
      throw new RequestProblem(422, 'past', 'This time is past.');
    const envelope = envelopeOf(message, profile);
    const id = randomUUID();
    const messageId = newMessageId(envelope.from);
    const { original } = fill;
    const answers = original?.messageId
      ? { messageId: original.messageId, ...(original.references ? { references: original.references } : {}) }
      : undefined;
    const { counting } = await workspaceOf(this.database.read);
    const raw = await this.made(id, message, counting, {
      date: moment.now,
      from: mailboxOf(profile) ?? { name: '', address: envelope.from },
      messageId,
      assets,
      automatic,
      ...(answers ? { answers } : {}),
    });
    const row: OutgoingRow = {
      ...rowOf(given, envelope),
      ...{ id, raw: Buffer.from(raw), messageId },
    };
    await this.database.write(async (writer) => {
      // Given twice, by a key that was held down or a browser that tried again, it still goes once.
      const again = await writer
        .select({ id: outgoing.id })
        .from(outgoing)
        .where(and(eq(outgoing.fill, fill.id), inArray(outgoing.state, ['waiting', 'sending'])));
      if (again.length > 0)
        throw new RequestProblem(409, 'waiting', 'This message is waiting to go already. Take it back first.');
      await along?.(writer, id);
      // A draft that is sent after all is replaced.
      await dropDraft(writer, fill.id);
      await addOutgoing(writer, [row]);
      await changeFill(writer, fill.id, { state: 'handed over', updatedAt: moment.now.toISOString() });
      await answered(writer, fill.id, moment.now);
    });
    return id;
  }

  /** A message as it goes, with what counts in it where the workspace has turned that on. */
  async made(
    id: string,
    message: Message,
    counting: boolean,
    options: Parameters<typeof toEml>[1],
  ): Promise<Uint8Array> {
    const counted = counting ? await withCounting(this.database, id, message, this.origin()) : message;
    return withAssets(() => toEml(counted, { ...options, goes: true }));
  }

  /** The user's drafts, what waits, and the last that went. */
  async list(user: User): Promise<OutgoingSummary[]> {
    const { read } = this.database;
    const waiting = await read
      .select(LISTED)
      .from(outgoing)
      .where(
        and(
          eq(outgoing.person, user.id),
          isNull(outgoing.mailing),
          inArray(outgoing.state, ['draft', 'waiting', 'sending', 'uncertain', 'refused']),
        ),
      )
      .orderBy(outgoing.due)
      .limit(300);
    const gone = await read
      .select(LISTED)
      .from(outgoing)
      .where(and(eq(outgoing.person, user.id), eq(outgoing.state, 'gone')))
      .orderBy(desc(outgoing.goneAt))
      .limit(100);
    const rows = [...waiting, ...gone];
    const counted = await this.counts(rows.map(({ id }) => id));
    return rows.map((row) => summaryOf(row, counted.get(row.id) ?? {}));
  }

  private async counts(ids: readonly string[]): Promise<Map<string, Record<string, number>>> {
    const found = new Map<string, Record<string, number>>();
    if (ids.length === 0) return found;
    const rows = await this.database.read
      .select({ id: counts.outgoing, what: counts.what, count: sql<number>`count(*)` })
      .from(counts)
      .where(inArray(counts.outgoing, [...ids]))
      .groupBy(counts.outgoing, counts.what);
    for (const { id, what, count } of rows) found.set(id, { ...found.get(id), [what]: count });
    return found;
  }

  async get(id: string, user: User): Promise<Outgoing> {
    const row = await this.row(id, user);
    const counted = (await this.counts([id])).get(id) ?? {};
    if (row.raw === null) {
      // What has gone is in the record of its recipient.
      const { html, plain, outgoing: by } = schema.handedOver;
      const [record] = await this.database.read.select({ html, plain }).from(schema.handedOver).where(eq(by, id));
      return { ...summaryOf(row, counted), html: record?.html ?? '', text: record?.plain ?? '', files: [] };
    }
    const { html = '', text = '', files } = await readEml(row.raw);
    const shown = inlined(html, (path) => {
      const found = files.find(({ cid }) => cid !== undefined && path === `cid:${cid}`);
      return found && { content: found.content, type: found.type };
    });
    const attached = files.filter(({ cid }) => cid === undefined || !html.includes(`cid:${cid}`));
    return { ...summaryOf(row, counted), html: shown, text, files: attached.map(({ name }) => name) };
  }

  /** Another time, at once, back to an unfinished message; or what became of one that is uncertain. */
  change(id: string, change: ChangeOutgoing, user: User): Promise<OutgoingSummary> {
    return this.database.write(async (writer) => {
      const [row] = await writer
        .select()
        .from(outgoing)
        .where(and(eq(outgoing.id, id), eq(outgoing.person, user.id)));
      if (!row) throw notFound('message');
      const changed = changedRow(row, change);
      await changeOutgoing(writer, [id], changed);
      if ('act' in change && (change.act === 'now' || change.act === 'again')) {
        await endPauses(writer, ['all', scopeOf(row.person)]);
        if (row.mailing !== null) await reopenMailing(writer, row.mailing);
      }
      if (changed.state === 'taken back' && row.fill !== null && row.mailing === null)
        await changeFill(writer, row.fill, { state: 'unfinished' });
      return summaryOf({ ...row, ...changed }, {});
    });
  }

  private async row(id: string, user: User): Promise<OutgoingRow> {
    const [row] = await this.database.read
      .select()
      .from(outgoing)
      .where(and(eq(outgoing.id, id), eq(outgoing.person, user.id)));
    if (!row) throw notFound('message');
    return row;
  }
}

/** What is kept of a message that is put in, but for what it is known by. */
function rowOf(
  { fill, message, record, due, user, moment: { now } }: Added,
  envelope: Envelope,
): Omit<OutgoingRow, 'id' | 'raw' | 'messageId'> {
  return {
    ...{ person: user.id, fill: fill.id, mailing: null, position: null },
    ...{ address: record.address ?? '', name: nameOfFields(fill.fields), subject: message.subject },
    ...{ state: due === 'draft' ? 'draft' : 'waiting', why: '', attempts: 0, claimedBy: null, claimedAt: null },
    due: due === undefined || due === 'draft' ? new Date(now.getTime() + GRACE).toISOString() : due,
    ...{ envelope, fields: {}, answers: {}, changes: { parts: [], reworded: [] }, record },
    ...{ createdAt: now.toISOString(), goneAt: null },
  };
}

/** What of a row changes. Throws where it has gone, or is going just now. */
function changedRow(row: OutgoingRow, change: ChangeOutgoing): Partial<OutgoingRow> & Pick<OutgoingRow, 'state'> {
  const now = new Date().toISOString();
  const { state } = row;
  if (state === 'sending') throw new RequestProblem(409, 'going', 'This message is going just now.');
  if (state === 'gone' || state === 'taken back') throw new RequestProblem(409, 'gone', GONE[state]);
  if ('due' in change) {
    if (change.due < now) throw new RequestProblem(422, 'past', 'This time is past.');
    return { state: 'waiting', due: change.due, why: '' };
  }
  switch (change.act) {
    case 'now':
      if (state === 'uncertain') throw new RequestProblem(409, 'uncertain', UNCERTAIN);
      return { state: 'waiting', due: now, why: '', attempts: 0 };
    case 'again':
      return { state: 'waiting', due: now, why: '', attempts: 0 };
    case 'arrived':
      if (state !== 'uncertain') throw new RequestProblem(409, 'certain', 'Nothing is uncertain about this message.');
      return { state: 'gone', goneAt: row.claimedAt ?? now, why: 'as its person says' };
    case 'take back':
      if (state === 'uncertain') throw new RequestProblem(409, 'uncertain', UNCERTAIN);
      return { state: 'taken back', why: 'taken back' };
  }
}
const GONE = {
  gone: 'This message has gone. It can not be taken back any more.',
  'taken back': 'This message was taken back.',
} as const;
const UNCERTAIN = 'Nobody knows whether this message went. Send it again, or say that it arrived.';

const { id, address, name, subject, state, why, due, attempts, goneAt, fill, mailing } = outgoing;
/** What lists show: not the messages themselves. */
const LISTED = { id, address, name, subject, state, why, due, attempts, goneAt, fill, mailing };
type Listed = Pick<
  OutgoingRow,
  'id' | 'address' | 'name' | 'subject' | 'state' | 'why' | 'due' | 'attempts' | 'goneAt' | 'fill' | 'mailing'
>;

const summaryOf = (row: Listed, counted: Readonly<Record<string, number>>): OutgoingSummary => ({
  id: row.id,
  address: row.address.startsWith('forgotten-') ? '' : row.address,
  name: row.name,
  subject: row.subject,
  state: row.state,
  why: row.why,
  due: row.due,
  attempts: row.attempts,
  goneAt: row.goneAt ?? undefined,
  fill: row.fill ?? undefined,
  mailing: row.mailing ?? undefined,
  counts: counted,
});
