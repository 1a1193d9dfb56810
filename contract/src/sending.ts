/** What goes out through the mail service: single messages and one each to many. */
import * as z from 'zod';
import { zoneSchema } from './zone.js';
import type { House } from '@vocabula/core';
import type { FillChanges } from '@vocabula/core/filling';
import { changesSchema } from './fills.js';
import { nameSchema, type WorkingCopy } from './texts.js';

/**
 * `draft` waits for its person, `ready` for its mailing; `waiting` goes when it is due, or is tried again; `uncertain`
 * may have gone: the service was lost before it said so.
 */
export const OUTGOING_STATES = [
  'draft',
  'ready',
  'apart',
  'waiting',
  'sending',
  'gone',
  'refused',
  'uncertain',
  'taken back',
] as const;
export type OutgoingState = (typeof OUTGOING_STATES)[number];

export interface OutgoingSummary {
  readonly id: string;
  readonly address: string;
  readonly name: string;
  readonly subject: string;
  readonly state: OutgoingState;
  readonly why: string;
  readonly due: string;
  readonly attempts: number;
  readonly goneAt: string | undefined;
  readonly fill: string | undefined;
  readonly mailing: string | undefined;
  /** How often it was opened, followed, answered, bounced; none where nothing is counted. */
  readonly counts: Readonly<Record<string, number>>;
}
export interface Outgoing extends OutgoingSummary {
  readonly html: string;
  readonly text: string;
  readonly files: readonly string[];
}

/** Changes one that has not gone yet: another time, at once, back to a draft; or settles one that is uncertain. */
export const changeOutgoingSchema = z.union([
  z.strictObject({ due: z.iso.datetime() }),
  z.strictObject({ act: z.enum(['now', 'take back', 'again', 'arrived']) }),
]);
export type ChangeOutgoing = z.infer<typeof changeOutgoingSchema>;

/** Why nothing is sent just now, and when it is tried again. */
export interface SendingPause {
  readonly why: string;
  readonly since: string;
  readonly until: string;
  /** Whether it holds for everybody's messages, or for those of who asks. */
  readonly everybody: boolean;
}
/** Where mail goes. */
export interface SendingService {
  /** `stand-in` keeps all mail and delivers none; with `none` nothing can be sent. */
  readonly kind: 'service' | 'stand-in' | 'none';
  readonly pause: SendingPause | undefined;
}

/**
 * `preparing`: being made. `first`: one has gone and is looked at. `paused` goes on, `stopped` does not.
 */
export const MAILING_STATES = ['preparing', 'first', 'going', 'paused', 'stopped', 'done'] as const;
export type MailingState = (typeof MAILING_STATES)[number];

const key = z.string().max(80);
const cells = z.record(key, z.string().max(100_000));
/** The most one mailing writes to. */
export const MOST_RECIPIENTS = 10_000;

export const makeMailingSchema = z.strictObject({
  /** The unfinished message it begins with. */
  fill: z.string().max(60),
  timezone: zoneSchema.optional(),
});
export type MakeMailing = z.infer<typeof makeMailingSchema>;

/** Who is written to: people of a list, or pasted lines of a table or of addresses. */
export const addRecipientsSchema = z.union([
  z.strictObject({ list: z.string().max(60), search: z.string().max(200).default('') }),
  z.strictObject({ paste: z.string().max(2_000_000) }),
]);
export type AddRecipients = z.infer<typeof addRecipientsSchema>;

export const changeMailingSchema = z.strictObject({
  answers: z.record(key, z.json()).optional(),
  differing: z.array(key).max(500).optional(),
});
export type ChangeMailing = z.infer<typeof changeMailingSchema>;
export const changeMailedSchema = z.strictObject({
  answers: z.record(key, z.json()).optional(),
  fields: cells.optional(),
  changes: changesSchema.optional(),
  /** Leaves this one out, or takes it in again. */
  out: z.boolean().optional(),
});
export type ChangeMailed = z.infer<typeof changeMailedSchema>;
export const driveMailingSchema = z.discriminatedUnion('act', [
  /** Sends one, so that it can be looked at; `count` is the number that was typed. */
  z.strictObject({ act: z.literal('first'), count: z.int().min(1) }),
  z.strictObject({ act: z.enum(['rest', 'pause', 'go on', 'stop']) }),
  /** Settles all that are uncertain: they go once more, or they have arrived. `count` is the number that was typed. */
  z.strictObject({ act: z.enum(['again', 'arrived']), count: z.int().min(1) }),
]);
export type DriveMailing = z.infer<typeof driveMailingSchema>;

export interface MailedRow {
  readonly id: string;
  readonly position: number;
  readonly address: string;
  readonly name: string;
  readonly state: OutgoingState;
  readonly why: string;
  readonly fields: Readonly<Record<string, string>>;
  readonly answers: Readonly<Record<string, unknown>>;
  readonly changes: FillChanges;
}
export interface MailingSummary {
  readonly id: string;
  readonly text: string;
  readonly title: string;
  readonly state: MailingState;
  readonly createdAt: string;
  /** How many there are in each state. */
  readonly counts: Readonly<Partial<Record<OutgoingState, number>>>;
  /** What those that are set apart lack, with how many. */
  readonly apart: readonly { readonly why: string; readonly count: number }[];
  readonly broken: readonly string[];
}
export interface Mailing extends MailingSummary {
  readonly version: number | undefined;
  readonly texts: readonly WorkingCopy[];
  readonly house: House;
  readonly signature: string | undefined;
  readonly zone: string;
  readonly changes: FillChanges;
  readonly answers: Readonly<Record<string, unknown>>;
  readonly differing: readonly string[];
}

/** Somebody that messages went to. */
export interface PersonRecord {
  readonly address: string;
  readonly name: string;
  readonly fields: Readonly<Record<string, string>>;
  readonly doNotWrite: { readonly because: string; readonly who: string; readonly at: string } | undefined;
  readonly lists: readonly { readonly id: string; readonly title: string }[];
  readonly messages: readonly {
    readonly id: string;
    /** None of these four where it came of a text that who asks may not see. */
    readonly text: string | undefined;
    readonly title: string | undefined;
    readonly version: number | undefined;
    readonly subject: string | undefined;
    readonly way: string;
    readonly by: string;
    readonly at: string;
  }[];
}
export const addressSchema = z.string().trim().min(3).max(320);
export const doNotWriteSchema = z.strictObject({ address: addressSchema, because: z.string().trim().max(300) });
export type DoNotWrite = z.infer<typeof doNotWriteSchema>;
export interface NotWritten extends DoNotWrite {
  readonly who: string;
  readonly at: string;
}
export const forgetSchema = z.strictObject({ address: addressSchema });
export interface Forgotten {
  /** How many messages keep their count and nothing else. */
  readonly messages: number;
  readonly unfinished: number;
  readonly rows: number;
}

/** What holds for the whole workspace. */
export const workspaceSchema = z.strictObject({
  /** Whether opening messages and following their links is counted. */
  counting: z.boolean(),
});
export type Workspace = z.infer<typeof workspaceSchema>;

/** A personal row of templates, from the left; digits recall them. */
export const atHandSchema = z.strictObject({ names: z.array(nameSchema).max(9) });
export interface AtHand {
  readonly name: string;
  readonly title: string;
  readonly subject: string;
  readonly call: string | undefined;
}
