/** Webhooks as administrators keep them. */
import { randomBytes, randomUUID } from 'node:crypto';
import type { MakeWebhook, NewWebhook, Webhook } from '@vocabula/contract';
import { asc, desc, eq } from 'drizzle-orm';
import { note } from '../audit/service.js';
import { schema, type Database } from '../db/database.js';
import { notFound, RequestProblem } from '../http/problem.js';
import type { User } from '../people/user.js';
import { deliveryOf, endOf, type WebhookSender } from './sender.js';
import { addDeliveries, addWebhook, removeWebhook, type WebhookRow } from './store.js';

const { webhooks, webhookDeliveries } = schema;
const MOST = 20;
const SHOWN = 20;

export class WebhookService {
  constructor(
    private readonly database: Database,
    readonly sender: WebhookSender,
  ) {}

  async list(): Promise<Webhook[]> {
    const rows = await this.database.read.select().from(webhooks).orderBy(asc(webhooks.createdAt));
    return Promise.all(rows.map((row) => this.whole(row)));
  }

  /** Makes one; its secret is shown this once. */
  async make({ url, events }: MakeWebhook, user: User): Promise<NewWebhook> {
    const row = await this.database.write(async (writer) => {
      const known = await writer.select({ id: webhooks.id }).from(webhooks);
      if (known.length >= MOST) throw new RequestProblem(422, 'too-many', `There are ${MOST} webhooks at most.`);
      const made: WebhookRow = {
        ...{ id: randomUUID(), url, secret: randomBytes(32).toString('base64url'), events: [...new Set(events)] },
        ...{ who: user.id, whoName: user.name, createdAt: new Date().toISOString() },
        ...(await endOf(writer)),
      };
      await addWebhook(writer, made);
      await note(writer, user, 'made', 'webhook', made.id, `${url}: ${events.join(', ')}`);
      return made;
    });
    return { ...(await this.whole(row)), secret: row.secret };
  }

  remove(id: string, user: User): Promise<void> {
    return this.database.write(async (writer) => {
      const [row] = await writer.select().from(webhooks).where(eq(webhooks.id, id));
      if (!row || !(await removeWebhook(writer, id))) throw notFound('webhook');
      await note(writer, user, 'removed', 'webhook', id, row.url);
    });
  }

  /** Tells it something now that says it is a test. */
  async try(id: string): Promise<Webhook> {
    const [row] = await this.database.read.select().from(webhooks).where(eq(webhooks.id, id));
    if (!row) throw notFound('webhook');
    const delivery = deliveryOf(id, 'test', new Date().toISOString(), {});
    await this.database.write((writer) => addDeliveries(writer, [delivery]));
    await this.sender.tell(delivery, row);
    return this.whole(row);
  }

  private async whole(row: WebhookRow): Promise<Webhook> {
    const deliveries = await this.database.read
      .select()
      .from(webhookDeliveries)
      .where(eq(webhookDeliveries.webhook, row.id))
      .orderBy(desc(webhookDeliveries.at))
      .limit(SHOWN);
    return {
      ...{ id: row.id, url: row.url, events: row.events, by: row.whoName, createdAt: row.createdAt },
      deliveries: deliveries.map(({ id, event, state, why, attempts, at, due }) => ({
        ...{ id, event, state, why, attempts, at, due },
      })),
    };
  }
}
