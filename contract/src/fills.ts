/** Fills: unfinished messages and what became of them. */
import * as z from 'zod';
import type { FillChanges } from '@vocabula/core/filling';
import { inlineSchema } from '@vocabula/core/schema';
import { nameSchema, workingCopySchema } from './texts.js';
import { zoneSchema } from './zone.js';
import { findingSchema, houseAnswer } from './shared-schemas.js';

const key = z.string().max(80);
/** Fields of a recipient, by key. */
export const fieldsSchema = z
  .record(key, z.string().max(100_000))
  .refine((value) => Object.keys(value).length <= 500, 'at most 500 fields');
/** Answers, by the keys of questions. */
export const answersSchema = z
  .record(key, z.json())
  .refine((value) => Object.keys(value).length <= 500, 'at most 500 answers');
const path = z.array(z.int().min(0)).min(1).max(60);
const content = inlineSchema.max(2000);
/** What was changed by hand in a message. */
export const changesSchema: z.ZodType<FillChanges> = z.strictObject({
  parts: z.array(z.strictObject({ name: nameSchema, at: z.int().min(0).max(10_000) })).max(20),
  reworded: z
    .array(
      z.strictObject({
        text: nameSchema,
        path,
        before: content,
        after: content.nullable(),
        over: z.record(key, z.string().max(2000)),
      }),
    )
    .max(400),
}) as z.ZodType<FillChanges>;

/** A mail that is answered: what a reply carries over of it. */
export const originalSchema = z.strictObject({
  subject: z.string().max(2000),
  /** Mailboxes: `Ann Lee <ann@x.example>`. */
  from: z.string().max(1000),
  replyTo: z.array(z.string().max(1000)).max(50).optional(),
  to: z.array(z.string().max(1000)).max(500).optional(),
  cc: z.array(z.string().max(1000)).max(500).optional(),
  /** ISO moment; none where it is not told. */
  date: z.string().max(60).optional(),
  text: z.string().max(200_000),
  messageId: z.string().max(1000).optional(),
  references: z.string().max(8000).optional(),
});
export type Original = z.infer<typeof originalSchema>;

/** What `POST /fills/read` finds in a mail that was pasted or dropped. */
export const readOriginalSchema = z.strictObject({
  original: originalSchema,
  /** Who wrote it, as recipient fields, completed from lists and people where they are known. */
  recipient: z.record(z.string(), z.string()).readonly(),
  /** Templates that are likely meant, the likeliest first. */
  likely: z
    .array(
      z
        .strictObject({
          name: z.string(),
          title: z.string(),
          why: z.string(),
          /** The standing reply that offers it. */
          standing: z.string().optional(),
        })
        .readonly(),
    )
    .readonly(),
});
export type ReadOriginal = Readonly<z.infer<typeof readOriginalSchema>>;

/** Begins a message. */
export const startFillSchema = z
  .strictObject({
    text: nameSchema.optional(),
    /** A call word, in place of a name. */
    call: z.string().max(80).optional(),
    recipient: fieldsSchema.optional(),
    /** Typed words that mean a recipient: an address, a name. */
    to: z.string().max(500).optional(),
    answers: answersSchema.optional(),
    changes: changesSchema.optional(),
    original: originalSchema.optional(),
    /** A letter of the mailroom that is answered. */
    letter: z.string().max(60).optional(),
    all: z.boolean().optional(),
    /** The standing reply that offered the template: its answers come from the letter. */
    standing: z.string().max(60).optional(),
  })
  .refine(({ text, call }) => (text === undefined) !== (call === undefined), 'a name or a call word');
export type StartFill = z.infer<typeof startFillSchema>;
const offered = z.record(
  key,
  z.strictObject({ value: z.json(), source: z.enum(['last', 'memory', 'clipboard']), from: z.string().max(200) }),
);
/** Keeps a message as it stands. */
export const saveFillSchema = z.strictObject({
  recipient: fieldsSchema,
  answers: answersSchema,
  offered: offered.optional(),
  confirmed: z.array(key).max(500).optional(),
  changes: changesSchema.optional(),
  original: originalSchema.nullable().optional(),
  all: z.boolean().optional(),
});
export type SaveFill = z.infer<typeof saveFillSchema>;
/** Ways out of Fill: the clipboard, files, a mail program, the mail service. */
export const WAYS = ['copy', 'draft', 'mailto', 'ics', 'html', 'txt', 'print', 'service', 'many'] as const;
/** One of the ways out of Fill. */
export type Way = (typeof WAYS)[number];
/** `incomplete` hands over although something is blank. */
export const handOverSchema = z.strictObject({
  way: z.enum(WAYS),
  timezone: zoneSchema.optional(),
  incomplete: z.boolean().optional(),
  /** How long somebody was at it since it was opened, breaks left out, in seconds. */
  worked: z.int().min(0).max(86_400).optional(),
  /** Of `service`: when it goes; at once where it is left out. `draft` keeps it in the mailroom. */
  at: z.union([z.iso.datetime(), z.literal('draft')]).optional(),
});
export type HandOver = z.infer<typeof handOverSchema>;

/** Puts a text into a message. */
export const stitchSchema = z.strictObject({ name: nameSchema, at: z.int().min(0).max(10_000) });
export type Stitch = z.infer<typeof stitchSchema>;
/** A rewording of an unfinished message, offered to who answers for the text. */
export const suggestSchema = z.strictObject({ text: nameSchema, path });
export type Suggest = z.infer<typeof suggestSchema>;

/** What somebody answered before, for the present recipient or for anybody. */
export const offeredValueSchema = z.strictObject({
  value: z.unknown(),
  source: z.enum(['last', 'memory', 'clipboard']),
  /** In words: `3 March`. */
  from: z.string(),
});
export type OfferedValue = Readonly<z.infer<typeof offeredValueSchema>>;
/** Values that are offered, by the key of their variable. */
export const offeredValuesSchema = z.record(z.string(), offeredValueSchema);
export type OfferedValues = Readonly<z.infer<typeof offeredValuesSchema>>;

const fillState = z.enum(['unfinished', 'handed over', 'sent']);
export type FillState = z.infer<typeof fillState>;
/** `newer`: there is a later version. `withdrawn`: it must not be handed over. */
const fillStanding = z.enum(['current', 'newer', 'withdrawn']);
export type FillStanding = z.infer<typeof fillStanding>;
/** A line of the list of one's messages. */
export const fillSummarySchema = z.strictObject({
  id: z.string(),
  text: z.string(),
  title: z.string(),
  recipient: z.string(),
  state: fillState,
  updatedAt: z.string(),
  /** The version it was begun on. */
  version: z.number().optional(),
  /** What became of that version since; said in words to whom it concerns. */
  standing: fillStanding,
  /** The trial that gave this version to the recipient. */
  trial: z.string().optional(),
});
export type FillSummary = Readonly<z.infer<typeof fillSummarySchema>>;
/** A message that is being filled, whole. */
export const fillSchema = fillSummarySchema.extend({
  fields: z.record(z.string(), z.string()).readonly(),
  answers: z.record(z.string(), z.unknown()).readonly(),
  /** The frozen documents it is compiled from, its own first. */
  texts: z.array(workingCopySchema).readonly(),
  /** The house at the time it was begun. */
  house: houseAnswer,
  /** The sender's signature at the time it was begun. */
  signature: z.string().optional(),
  offered: offeredValuesSchema,
  confirmed: z.array(z.string()).readonly(),
  changes: changesSchema,
  original: originalSchema.optional(),
  /** Whether the reply goes to all. */
  all: z.boolean(),
  /** Names of texts whose words are not to be changed here. */
  fixed: z.array(z.string()).readonly(),
  /** The last time it was handed over. */
  last: z
    .strictObject({
      way: z.enum(WAYS),
      at: z.string(),
    })
    .readonly()
    .optional(),
  /** What was said on beginning it, such as values that no question takes. */
  notes: z.array(z.string()).readonly(),
});
export type Fill = Readonly<z.infer<typeof fillSchema>>;

/** A message as the server rendered it for handing over. */
export const handedOverSchema = z.strictObject({
  subject: z.string(),
  to: z.array(z.string()).readonly(),
  html: z.string(),
  text: z.string(),
  blanks: z.array(z.string()).readonly(),
  findings: z.array(findingSchema).readonly(),
  at: z.string(),
  cc: z.array(z.string()).readonly(),
  bcc: z.array(z.string()).readonly(),
  /** Of what goes through the mail service: what it is known by there. */
  outgoing: z.string().optional(),
});
export type HandedOver = Readonly<z.infer<typeof handedOverSchema>>;
