/** What is kept of proofing a template: what was looked at, what was set aside, and proofs sent by mail. */
import { isMailbox } from '@vocabula/core';
import * as z from 'zod';
import { zoneSchema } from './zone.js';

const digest = z.string().regex(/^[0-9a-f]{16}$/, 'a digest has 16 hexadecimal figures');
const words = z.string().max(2000);
const fields = z.record(z.string().max(60), z.unknown());

export const lookedAtSchema = z.strictObject({ case: z.string().min(1).max(4000), digest });
export type LookAt = z.infer<typeof lookedAtSchema>;

export const setAsideSchema = z.strictObject({
  fingerprint: digest,
  code: z.string().min(1).max(60),
  message: words,
  reason: z.string().trim().min(1, 'say why').max(500),
});
export type SetAside = z.infer<typeof setAsideSchema>;

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

export interface LookedAt extends LookAt {
  readonly who: string;
  readonly at: string;
}
export interface KeptAside extends SetAside {
  readonly who: string;
  readonly at: string;
}

/** What is kept of a template's proofs. */
export interface ProofRecord {
  readonly lookedAt: readonly LookedAt[];
  readonly setAside: readonly KeptAside[];
}

export interface SentProof {
  readonly sent: number;
  readonly to: readonly string[];
}
