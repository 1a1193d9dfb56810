/** Webhooks: other programs are told when something happens to a message. */
import * as z from 'zod';
import { DELIVERY_STATES, WEBHOOK_EVENTS } from './constants.js';

/** Makes a webhook: an address, and what it is told of. */
export const makeWebhookSchema = z.strictObject({
  url: z
    .string()
    .trim()
    .max(2000)
    .refine((text) => /^https?:\/\/[^\s/]/.test(text) && URL.canParse(text), {
      error: 'An address begins with https:// or http://.',
    }),
  events: z.array(z.enum(WEBHOOK_EVENTS)).min(1, 'choose what it is told of').max(WEBHOOK_EVENTS.length),
});
export type MakeWebhook = z.infer<typeof makeWebhookSchema>;

/** One thing that was told, or is still to be. */
export const webhookDeliverySchema = z.strictObject({
  id: z.string(),
  event: z.enum([...WEBHOOK_EVENTS, 'test']),
  state: z.enum(DELIVERY_STATES),
  /** What was answered, or why it could not be told, in words. */
  why: z.string(),
  attempts: z.int().min(0),
  /** When it happened; and when it was told, or is tried next. */
  at: z.string(),
  due: z.string(),
});
export type WebhookDelivery = Readonly<z.infer<typeof webhookDeliverySchema>>;
/** A webhook, with the last things that it was told. */
export const webhookSchema = z.strictObject({
  id: z.string(),
  url: z.string(),
  events: z.array(z.enum(WEBHOOK_EVENTS)).readonly(),
  by: z.string(),
  createdAt: z.string(),
  deliveries: z.array(webhookDeliverySchema).readonly(),
});
export type Webhook = Readonly<z.infer<typeof webhookSchema>>;
/** A new webhook, with the secret that its signatures are made with: shown this once. */
export const newWebhookSchema = webhookSchema.extend({ secret: z.string() });
export type NewWebhook = Readonly<z.infer<typeof newWebhookSchema>>;
