/** Everything that is written of webhooks and what they are told. */
import { and, eq, inArray, notInArray } from 'drizzle-orm';
import { schema, type Writer } from '../db/database.js';

const { webhooks, webhookDeliveries } = schema;
export type WebhookRow = typeof webhooks.$inferSelect;
export type DeliveryRow = typeof webhookDeliveries.$inferSelect;
/** Rows put into one statement. */
const CHUNK = 300;

export async function addWebhook(writer: Writer, row: WebhookRow): Promise<void> {
  await writer.insert(webhooks).values(row);
}
export async function removeWebhook(writer: Writer, id: string): Promise<boolean> {
  const { rowsAffected } = await writer.delete(webhooks).where(eq(webhooks.id, id));
  return rowsAffected > 0;
}
/** Moves on how far was looked, as long as it is where it was. @returns false where another process has done so */
export async function moveOn(
  writer: Writer,
  { id, handed, counted }: Pick<WebhookRow, 'id' | 'handed' | 'counted'>,
  to: Pick<WebhookRow, 'handed' | 'counted'>,
): Promise<boolean> {
  const { rowsAffected } = await writer
    .update(webhooks)
    .set(to)
    .where(and(eq(webhooks.id, id), eq(webhooks.handed, handed), eq(webhooks.counted, counted)));
  return rowsAffected > 0;
}
export async function addDeliveries(writer: Writer, rows: readonly DeliveryRow[]): Promise<void> {
  for (let at = 0; at < rows.length; at += CHUNK)
    await writer.insert(webhookDeliveries).values(rows.slice(at, at + CHUNK));
}
/** Takes a delivery for one try: it is not due for others meanwhile. @returns false where another has taken it */
export async function takeDelivery(writer: Writer, { id, due }: DeliveryRow, until: string): Promise<boolean> {
  const { rowsAffected } = await writer
    .update(webhookDeliveries)
    .set({ due: until })
    .where(and(eq(webhookDeliveries.id, id), eq(webhookDeliveries.due, due), eq(webhookDeliveries.state, 'waiting')));
  return rowsAffected > 0;
}
export async function settleDelivery(writer: Writer, id: string, changed: Partial<DeliveryRow>): Promise<void> {
  await writer.update(webhookDeliveries).set(changed).where(eq(webhookDeliveries.id, id));
}
/** Drops what a webhook was told, but for some of it. @param kept ids */
export async function forgetTold(writer: Writer, webhook: string, kept: readonly string[]): Promise<void> {
  await writer
    .delete(webhookDeliveries)
    .where(
      and(
        eq(webhookDeliveries.webhook, webhook),
        inArray(webhookDeliveries.state, ['told', 'given up']),
        notInArray(webhookDeliveries.id, [...kept]),
      ),
    );
}
