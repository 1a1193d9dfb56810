/**
 * Tells other programs what happened to messages. What happened stands in rows that are only ever added, so each webhook
 * keeps how far it has looked; what is new is put down for it in the transaction that moves that on, and then sent, signed,
 * until it is taken. So everything is put down once, whatever happens to the process, and told once or, where an answer is
 * lost, again under the same id.
 */
import { createHmac, randomUUID } from 'node:crypto';
import type { WebhookEvent } from '@vocabula/contract';
import { and, asc, desc, eq, lte, max, sql } from 'drizzle-orm';
import type { Logger } from 'pino';
import { schema, type Database, type Reader, type Writer } from '../db/database.js';
import {
  addDeliveries,
  forgetTold,
  moveOn,
  settleDelivery,
  takeDelivery,
  type DeliveryRow,
  type WebhookRow,
} from './store.js';

const { webhooks, webhookDeliveries, handedOver, counts } = schema;

/** How long after each failed try the next one is, in seconds; about two days in all. */
const BACK_OFF = [10, 60, 600, 3600, 21_600, 86_400];
/** The longest that an answer is waited for, in milliseconds. */
const PATIENCE = 10_000;
/** Rows that are looked at in one turn, and things that are told in one. */
const [MOST_LOOKED, MOST_TOLD] = [500, 50];
/** What was told and is kept to be looked at, for each webhook. */
const KEPT = 50;

/** The signature of what is sent: HMAC with SHA-256 (RFC 2104) of its id, the moment and the body, with full stops between. */
const signatureOf = (secret: string, id: string, at: string, body: string): string =>
  `sha256=${createHmac('sha256', secret).update(`${id}.${at}.${body}`).digest('hex')}`;

export class WebhookSender {
  private working: Promise<void> | undefined;
  private stopped = false;

  constructor(
    private readonly database: Database,
    private readonly log: Logger,
    private readonly backOff: readonly number[] = BACK_OFF,
  ) {}

  /** Puts down what is new, and tells what is due. Calls while it works join it. */
  tick(): Promise<void> {
    return (this.working ??= this.work().finally(() => (this.working = undefined)));
  }
  async stop(): Promise<void> {
    this.stopped = true;
    await this.working?.catch(() => undefined);
  }

  private async work(): Promise<void> {
    const all = await this.database.read.select().from(webhooks);
    // One that answers slowly, or not at all, keeps no other one waiting.
    await Promise.all(all.map((webhook) => this.workFor(webhook)));
  }

  private async workFor(webhook: WebhookRow): Promise<void> {
    while (!this.stopped && (await this.putDown(webhook.id)));
    const now = new Date().toISOString();
    const due = await this.database.read
      .select()
      .from(webhookDeliveries)
      .where(
        and(
          eq(webhookDeliveries.webhook, webhook.id),
          eq(webhookDeliveries.state, 'waiting'),
          lte(webhookDeliveries.due, now),
        ),
      )
      .orderBy(asc(webhookDeliveries.due))
      .limit(MOST_TOLD);
    for (const delivery of due) {
      // Where one thing is not taken, the next will hardly be: they wait for the next look.
      if (this.stopped || !(await this.tell(delivery, webhook))) break;
    }
    if (due.length > 0) await this.database.write((writer) => forgetOld(writer, webhook.id));
  }

  /** @returns whether there may be more */
  private async putDown(id: string): Promise<boolean> {
    const { read } = this.database;
    const [webhook] = await read.select().from(webhooks).where(eq(webhooks.id, id));
    if (!webhook) return false;
    const handed = await handedSince(read, webhook.handed);
    const came = await cameSince(read, webhook.counted);
    if (handed.length + came.length === 0) return false;
    const to = { handed: handed.at(-1)?.row ?? webhook.handed, counted: came.at(-1)?.row ?? webhook.counted };
    const wanted = [...handed, ...came].flatMap(({ event, at, body }) =>
      event && webhook.events.includes(event) ? [deliveryOf(id, event, at, body)] : [],
    );
    return this.database.write(async (writer) => {
      // Another process may have looked at the same moment.
      if (!(await moveOn(writer, webhook, to))) return false;
      await addDeliveries(writer, wanted);
      return handed.length === MOST_LOOKED || came.length === MOST_LOOKED;
    });
  }

  /** Tells one thing now. @returns whether it was taken */
  async tell(delivery: DeliveryRow, webhook: Pick<WebhookRow, 'url' | 'secret'>): Promise<boolean> {
    const until = new Date(Date.now() + PATIENCE * 3).toISOString();
    if (!(await this.database.write((writer) => takeDelivery(writer, delivery, until)))) return true;
    const why = await sent(delivery, webhook);
    const attempts = delivery.attempts + 1;
    const wait = why === '' ? 0 : this.backOff[delivery.attempts];
    const state = why === '' ? 'told' : wait === undefined ? 'given up' : 'waiting';
    const due = new Date(Date.now() + (wait ?? 0) * 1000).toISOString();
    if (why !== '') this.log.warn({ webhook: delivery.webhook, attempts }, 'a webhook was not taken');
    await this.database.write((writer) => settleDelivery(writer, delivery.id, { state, why, attempts, due }));
    return why === '';
  }
}

/** Keeps the last things that a webhook was told, and drops those before. */
async function forgetOld(writer: Writer, webhook: string): Promise<void> {
  const kept = await writer
    .select({ id: webhookDeliveries.id })
    .from(webhookDeliveries)
    .where(eq(webhookDeliveries.webhook, webhook))
    .orderBy(desc(webhookDeliveries.at))
    .limit(KEPT);
  await forgetTold(
    writer,
    webhook,
    kept.map(({ id }) => id),
  );
}

/** A thing to tell. */
export const deliveryOf = (webhook: string, event: DeliveryRow['event'], at: string, about: object): DeliveryRow => {
  const id = randomUUID();
  const body = JSON.stringify({ id, event, at, ...about });
  return { id, webhook, event, body, state: 'waiting', why: '', attempts: 0, at, due: new Date().toISOString() };
};

/** @returns why it was not taken, in words; empty where it was */
async function sent({ id, body }: DeliveryRow, { url, secret }: Pick<WebhookRow, 'url' | 'secret'>): Promise<string> {
  const at = new Date().toISOString();
  try {
    const response = await fetch(url, {
      method: 'POST',
      body,
      // What leads elsewhere is not followed: the signature is for this address.
      redirect: 'manual',
      signal: AbortSignal.timeout(PATIENCE),
      headers: {
        'content-type': 'application/json',
        'user-agent': 'Vocabula',
        'vocabula-id': id,
        'vocabula-time': at,
        'vocabula-signature': signatureOf(secret, id, at, body),
      },
    });
    await response.body?.cancel();
    return response.ok ? '' : `It answered ${response.status}.`;
  } catch (error) {
    return (error as Error).name === 'TimeoutError' ? 'It did not answer in time.' : 'It could not be reached.';
  }
}

interface Happened {
  readonly row: number;
  /** None where it is nothing that is told; it was looked at all the same. */
  readonly event: WebhookEvent | undefined;
  readonly at: string;
  readonly body: object;
}

/** Messages that were handed over, or went through the mail service, behind a row. */
async function handedSince(reader: Reader | Writer, row: number): Promise<Happened[]> {
  const number = sql<number>`handed_over.rowid`;
  const rows = await reader
    .select({ row: number, message: handedOver })
    .from(handedOver)
    .where(sql`handed_over.rowid > ${row}`)
    .orderBy(number)
    .limit(MOST_LOOKED);
  return rows.map(({ row: at, message }) => ({
    row: at,
    event: message.outgoing === null ? 'handed over' : 'sent',
    at: message.at,
    body: aboutMessage(message),
  }));
}

/** Answers, and messages that came back, behind a row; what else is counted is passed over. */
async function cameSince(reader: Reader | Writer, row: number): Promise<Happened[]> {
  const rows = await reader
    .select({ count: counts, message: handedOver })
    .from(counts)
    .leftJoin(handedOver, eq(handedOver.outgoing, counts.outgoing))
    .where(sql`${counts.id} > ${row}`)
    .orderBy(asc(counts.id))
    .limit(MOST_LOOKED);
  return rows.map(({ count, message }): Happened => {
    const event = message && (count.what === 'answered' || count.what === 'bounced') ? count.what : undefined;
    return { row: count.id, event, at: count.at, body: message ? aboutMessage(message) : {} };
  });
}

const aboutMessage = (message: typeof handedOver.$inferSelect) => ({
  message: message.id,
  template: message.text,
  ...(message.version === null ? {} : { version: message.version }),
  recipient: message.address,
});

/** Where a new webhook begins: behind everything that has happened. */
export async function endOf(reader: Reader | Writer): Promise<Pick<WebhookRow, 'handed' | 'counted'>> {
  const [handed] = await reader.select({ last: sql<number | null>`max(rowid)` }).from(handedOver);
  const [counted] = await reader.select({ last: max(counts.id) }).from(counts);
  return { handed: handed?.last ?? 0, counted: counted?.last ?? 0 };
}
