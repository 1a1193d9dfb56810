/** Files that a text is started from. */
import * as z from 'zod';
import { documentAnswer } from './shared-schemas.js';
import { nameSchema } from './texts.js';

/** The name of the file that a text is started from. */
export const convertSchema = z.strictObject({ name: z.string().trim().min(1).max(300) });

/** What a file was read as. */
export const convertedSchema = z.strictObject({
  /** A text without a title: what the file said is in its envelope and body. */
  document: documentAnswer,
  /** What the file would be called, to be taken or left. */
  suggestedTitle: z.string(),
  /** What was recognised, changed or left out, in words. */
  notes: z.array(z.string()).readonly(),
});
export type Converted = Readonly<z.infer<typeof convertedSchema>>;

/** A message as it went, its words as they stand. */
export const pastWordsSchema = z.strictObject({
  file: z.string(),
  subject: z.string(),
  from: z.string().optional(),
  to: z.array(z.string()).readonly(),
  /** The ISO day it was written on. */
  day: z.string().optional(),
  html: z.string().optional(),
  text: z.string().optional(),
});
export type PastWords = Readonly<z.infer<typeof pastWordsSchema>>;
/** Which of one's own messages are wanted: those of a template, those to a person, or both. */
export const sentWordsSchema = z.strictObject({
  text: nameSchema.optional(),
  address: z.string().max(320).optional(),
});

/** Those of one's messages that went out under these ids. */
export const chosenSentSchema = z.strictObject({ outgoing: z.array(z.string().max(60)).min(1).max(500) });

/** A template that one has sent messages from, and how many. */
export const sentTextSchema = z.strictObject({ text: z.string(), title: z.string(), messages: z.int() });
export type SentText = Readonly<z.infer<typeof sentTextSchema>>;

/** A text to start from for an occasion. */
export const starterSchema = z.strictObject({
  name: z.string(),
  title: z.string(),
  description: z.string(),
  document: documentAnswer,
});
export type Starter = Readonly<z.infer<typeof starterSchema>>;
