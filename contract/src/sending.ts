/** What goes out through the mail service: single messages and one each to many. */
import * as z from 'zod';
import { RUN_STATES } from './constants.js';
import { zoneSchema } from './zone.js';
import { changesSchema } from './fills.js';
import { nameSchema, workingCopySchema } from './texts.js';
import { houseAnswer } from './shared-schemas.js';

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
/** One of the states. */
export type OutgoingState = (typeof OUTGOING_STATES)[number];

/** A line of the list of messages that go out. */
export const outgoingSummarySchema = z.strictObject({
  id: z.string(),
  address: z.string(),
  name: z.string(),
  subject: z.string(),
  state: z.enum(OUTGOING_STATES),
  why: z.string(),
  due: z.string(),
  attempts: z.number(),
  goneAt: z.string().optional(),
  fill: z.string().optional(),
  mailing: z.string().optional(),
  /** How often it was opened, followed, answered, bounced; none where nothing is counted. */
  counts: z.record(z.string(), z.number()).readonly(),
});
export type OutgoingSummary = Readonly<z.infer<typeof outgoingSummarySchema>>;
/** A message that goes out, whole. */
export const outgoingSchema = outgoingSummarySchema.extend({
  html: z.string(),
  text: z.string(),
  files: z.array(z.string()).readonly(),
});
export type Outgoing = Readonly<z.infer<typeof outgoingSchema>>;

/** A message as it reads, or read when it went. */
export const shownMessageSchema = z.strictObject({
  subject: z.string(),
  html: z.string(),
  text: z.string(),
  /** Questions that are still open, by their labels. */
  blanks: z.array(z.string()).readonly(),
});
export type ShownMessage = Readonly<z.infer<typeof shownMessageSchema>>;

/** Changes one that has not gone yet: another time, at once, back to a draft; or settles one that is uncertain. */
export const changeOutgoingSchema = z.union([
  z.strictObject({ due: z.iso.datetime() }),
  z.strictObject({ act: z.enum(['now', 'take back', 'again', 'arrived']) }),
]);
export type ChangeOutgoing = z.infer<typeof changeOutgoingSchema>;

/** Why nothing is sent just now, and when it is tried again. */
export const sendingPauseSchema = z.strictObject({
  why: z.string(),
  since: z.string(),
  until: z.string(),
  /** Whether it holds for everybody's messages, or for those of who asks. */
  everybody: z.boolean(),
});
export type SendingPause = Readonly<z.infer<typeof sendingPauseSchema>>;
/** Where mail goes. */
export const sendingServiceSchema = z.strictObject({
  /** `stand-in` keeps all mail and delivers none; with `none` nothing can be sent. */
  kind: z.enum(['service', 'stand-in', 'none']),
  pause: sendingPauseSchema.optional(),
  /** Whether the mailbox that mail is read from can be read, and in words why not; none where none is set up. */
  mailbox: z.strictObject({ reading: z.boolean(), why: z.string() }).readonly().optional(),
});
export type SendingService = Readonly<z.infer<typeof sendingServiceSchema>>;

/**
 * `preparing`: being made. `first`: one has gone and is looked at. `paused` goes on, `stopped` does not.
 */
export const MAILING_STATES = ['preparing', 'first', 'going', 'paused', 'stopped', 'done'] as const;
/** One of the states of a mailing. */
export type MailingState = (typeof MAILING_STATES)[number];

const key = z.string().max(80);
const cells = z.record(key, z.string().max(100_000));
/** The most one mailing writes to. */
export const MOST_RECIPIENTS = 10_000;

/** Makes a mailing of an unfinished message. */
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

/** Changes what is asked once, and what is asked of each. */
export const changeMailingSchema = z.strictObject({
  answers: z.record(key, z.json()).optional(),
  differing: z.array(key).max(500).optional(),
});
export type ChangeMailing = z.infer<typeof changeMailingSchema>;
/** Changes one message of a mailing by itself. */
export const changeMailedSchema = z.strictObject({
  answers: z.record(key, z.json()).optional(),
  fields: cells.optional(),
  changes: changesSchema.optional(),
  /** Leaves this one out, or takes it in again. */
  out: z.boolean().optional(),
});
export type ChangeMailed = z.infer<typeof changeMailedSchema>;
/** Drives a mailing: sends the first, the rest; pauses, goes on, stops. */
export const driveMailingSchema = z.discriminatedUnion('act', [
  /** Sends one, so that it can be looked at; `count` is the number that was typed. */
  z.strictObject({ act: z.literal('first'), count: z.int().min(1) }),
  z.strictObject({ act: z.enum(['rest', 'pause', 'go on', 'stop']) }),
  /** Settles all that are uncertain: they go once more, or they have arrived. `count` is the number that was typed. */
  z.strictObject({ act: z.enum(['again', 'arrived']), count: z.int().min(1) }),
]);
export type DriveMailing = z.infer<typeof driveMailingSchema>;

/** One message of a mailing. */
export const mailedRowSchema = z.strictObject({
  id: z.string(),
  position: z.number(),
  address: z.string(),
  name: z.string(),
  state: z.enum(OUTGOING_STATES),
  why: z.string(),
  fields: z.record(z.string(), z.string()).readonly(),
  answers: z.record(z.string(), z.unknown()).readonly(),
  changes: changesSchema,
  /** The version of the template it is made of. */
  version: z.number().optional(),
});
export type MailedRow = Readonly<z.infer<typeof mailedRowSchema>>;
/** A line of the list of mailings, and how far each is. */
export const mailingSummarySchema = z.strictObject({
  id: z.string(),
  text: z.string(),
  title: z.string(),
  state: z.enum(MAILING_STATES),
  createdAt: z.string(),
  /** How many there are in each state. */
  counts: z.partialRecord(z.enum(OUTGOING_STATES), z.number()).readonly(),
  /** What those that are set apart lack, with how many. */
  apart: z
    .array(
      z
        .strictObject({
          why: z.string(),
          count: z.number(),
        })
        .readonly(),
    )
    .readonly(),
  broken: z.array(z.string()).readonly(),
});
export type MailingSummary = Readonly<z.infer<typeof mailingSummarySchema>>;
/** A mailing, whole. */
export const mailingSchema = mailingSummarySchema.extend({
  version: z.number().optional(),
  texts: z.array(workingCopySchema).readonly(),
  /** What other versions are made of, where a trial gives some recipients another one. */
  others: z
    .array(z.strictObject({ version: z.number(), texts: z.array(workingCopySchema).readonly() }).readonly())
    .readonly(),
  house: houseAnswer,
  signature: z.string().optional(),
  zone: z.string(),
  changes: changesSchema,
  answers: z.record(z.string(), z.unknown()).readonly(),
  differing: z.array(z.string()).readonly(),
});
export type Mailing = Readonly<z.infer<typeof mailingSchema>>;

/** Somebody that messages went to. */
export const personRecordSchema = z.strictObject({
  address: z.string(),
  name: z.string(),
  fields: z.record(z.string(), z.string()).readonly(),
  doNotWrite: z
    .strictObject({
      because: z.string(),
      who: z.string(),
      at: z.string(),
    })
    .readonly()
    .optional(),
  lists: z
    .array(
      z
        .strictObject({
          id: z.string(),
          title: z.string(),
        })
        .readonly(),
    )
    .readonly(),
  /** Series that were started for them, the last first. */
  series: z
    .array(
      z
        .strictObject({
          /** None of these two where who asks may not open it, or may not see what it is of. */
          id: z.string().optional(),
          title: z.string().optional(),
          state: z.enum(RUN_STATES),
          why: z.string(),
          by: z.string(),
          startedAt: z.string(),
          steps: z.int(),
          gone: z.int(),
        })
        .readonly(),
    )
    .readonly(),
  messages: z
    .array(
      z
        .strictObject({
          id: z.string(),
          /** None of these four where it came of a text that who asks may not see. */
          text: z.string().optional(),
          title: z.string().optional(),
          version: z.number().optional(),
          subject: z.string().optional(),
          way: z.string(),
          by: z.string(),
          at: z.string(),
        })
        .readonly(),
    )
    .readonly(),
});
export type PersonRecord = Readonly<z.infer<typeof personRecordSchema>>;
/** An address as it is typed. */
export const addressSchema = z.string().trim().min(3).max(320);
/** Puts an address on the do-not-write list. */
export const doNotWriteSchema = z.strictObject({ address: addressSchema, because: z.string().trim().max(300) });
export type DoNotWrite = z.infer<typeof doNotWriteSchema>;
/** An address of the do-not-write list. */
export const notWrittenSchema = doNotWriteSchema.extend({
  who: z.string(),
  at: z.string(),
});
export type NotWritten = Readonly<z.infer<typeof notWrittenSchema>>;
/** Erases somebody. */
export const forgetSchema = z.strictObject({ address: addressSchema });
/** What was erased. */
export const forgottenSchema = z.strictObject({
  /** How many messages keep their count and nothing else. */
  messages: z.number(),
  unfinished: z.number(),
  rows: z.number(),
});
export type Forgotten = Readonly<z.infer<typeof forgottenSchema>>;

/** What holds for the whole workspace. */
export const workspaceSchema = z.strictObject({
  /** Whether opening messages and following their links is counted. */
  counting: z.boolean(),
});
export type Workspace = z.infer<typeof workspaceSchema>;

/** A personal row of templates, from the left; digits recall them. */
export const saveAtHandSchema = z.strictObject({ names: z.array(nameSchema).max(9).readonly() });
/** A template of somebody's own row. */
export const atHandSchema = z.strictObject({
  name: z.string(),
  title: z.string(),
  subject: z.string(),
  call: z.string().optional(),
});
export type AtHand = Readonly<z.infer<typeof atHandSchema>>;
