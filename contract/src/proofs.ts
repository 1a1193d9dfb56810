/** What is kept of proofing a template: what was looked at, what was set aside, and proofs sent by mail. */
import { isMailbox } from '@vocabula/core';
import * as z from 'zod';
import { zoneSchema } from './zone.js';

const digest = z.string().regex(/^[0-9a-f]{16}$/, 'a digest has 16 hexadecimal figures');
const words = z.string().max(2000);
const fields = z.record(z.string().max(60), z.unknown());

/** Says that a case was looked at. */
export const lookAtSchema = z.strictObject({ case: z.string().min(1).max(4000), digest });
export type LookAt = z.infer<typeof lookAtSchema>;

/** Sets a finding aside, with the reason. */
export const setAsideSchema = z.strictObject({
  fingerprint: digest,
  code: z.string().min(1).max(60),
  message: words,
  reason: z.string().trim().min(1, 'say why').max(500),
});
export type SetAside = z.infer<typeof setAsideSchema>;

/** Sends proofs by mail. */
export const sendProofSchema = z.strictObject({
  to: z.array(z.string().max(320).refine(isMailbox, 'is no address')).min(1, 'say to whom').max(10),
  cases: z
    .array(
      z.strictObject({
        label: z.string().max(200),
        recipient: fields,
        answers: fields,
      }),
    )
    .min(1)
    .max(100),
  timezone: zoneSchema.optional(),
});
export type SendProof = z.infer<typeof sendProofSchema>;

/** A case that was looked at, by whom and when. */
export const lookedAtSchema = lookAtSchema.extend({
  who: z.string(),
  at: z.string(),
});
export type LookedAt = Readonly<z.infer<typeof lookedAtSchema>>;
/** A finding that was set aside, by whom and when. */
export const keptAsideSchema = setAsideSchema.extend({
  who: z.string(),
  at: z.string(),
});
export type KeptAside = Readonly<z.infer<typeof keptAsideSchema>>;

/** What is kept of a template's proofs. */
export const proofRecordSchema = z.strictObject({
  lookedAt: z.array(lookedAtSchema).readonly(),
  setAside: z.array(keptAsideSchema).readonly(),
});
export type ProofRecord = Readonly<z.infer<typeof proofRecordSchema>>;

/** How many proofs were sent, and to whom. */
export const sentProofSchema = z.strictObject({
  sent: z.number(),
  to: z.array(z.string()).readonly(),
});
export type SentProof = Readonly<z.infer<typeof sentProofSchema>>;
