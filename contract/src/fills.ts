/** Fills: unfinished messages and what became of them. */
import * as z from 'zod';
import type { Finding, House } from '@vocabula/core';
import { nameSchema, type WorkingCopy } from './texts.js';

const key = z.string().max(80);
const fields = z
  .record(key, z.string().max(100_000))
  .refine((value) => Object.keys(value).length <= 500, 'at most 500 fields');
const answers = z.record(key, z.json()).refine((value) => Object.keys(value).length <= 500, 'at most 500 answers');
const zone = z
  .string()
  .max(80)
  .refine((value) => Intl.supportedValuesOf('timeZone').includes(value) || value === 'UTC', 'there is no such zone')
  .optional();

export const startFillSchema = z.strictObject({
  text: nameSchema,
  recipient: fields.optional(),
  answers: answers.optional(),
});
export type StartFill = z.infer<typeof startFillSchema>;
export const saveFillSchema = z.strictObject({ recipient: fields, answers });
export type SaveFill = z.infer<typeof saveFillSchema>;
/** `incomplete` hands over although something is blank. */
export const handOverSchema = z.strictObject({
  way: z.enum(['copy', 'draft']),
  timezone: zone,
  incomplete: z.boolean().optional(),
});
export type HandOver = z.infer<typeof handOverSchema>;

export type FillState = 'unfinished' | 'handed over';
export interface FillSummary {
  readonly id: string;
  readonly text: string;
  readonly title: string;
  readonly recipient: string;
  readonly state: FillState;
  readonly updatedAt: string;
  /** The version it was begun on. */
  readonly version: number | undefined;
  /** What became of that version since; said in words to whom it concerns. */
  readonly standing: FillStanding;
}
/** `newer`: there is a later version. `withdrawn`: it must not be handed over. */
export type FillStanding = 'current' | 'newer' | 'withdrawn';
export interface Fill extends FillSummary {
  readonly fields: Readonly<Record<string, string>>;
  readonly answers: Readonly<Record<string, unknown>>;
  /** The frozen documents it is compiled from, its own first. */
  readonly texts: readonly WorkingCopy[];
  /** The house at the time it was begun. */
  readonly house: House;
  /** The sender's signature at the time it was begun. */
  readonly signature: string | undefined;
}

/** A message as the server rendered it for handing over. */
export interface HandedOver {
  readonly subject: string;
  readonly to: readonly string[];
  readonly html: string;
  readonly text: string;
  readonly blanks: readonly string[];
  readonly findings: readonly Finding[];
  readonly at: string;
}
