/** Looking back: what happened to messages. */
import * as z from 'zod';
import { LEDGER_WEEKS } from './constants.js';

const day = z.string().regex(/^\d{4}-\d\d-\d\d$/, 'a day as 2026-11-27');
const count = z.int().min(0);

/** From which day to which, both in it; since the beginning, and until now, where they are left out. */
export const periodSchema = z.strictObject({ from: day.optional(), until: day.optional() });
export type Period = z.infer<typeof periodSchema>;

/** How often something happened, of how many times it could have been known to. */
export const countedSchema = z.strictObject({ successes: count, trials: count }).readonly();
export type CountedShare = z.infer<typeof countedSchema>;

/** One text in the ledger. Nothing in it is about a person, but of those who look at their own use. */
export const ledgerRowSchema = z.strictObject({
  name: z.string(),
  title: z.string(),
  folder: z.string(),
  uses: count,
  /** How many people use it; never who. */
  people: count,
  lastUse: z.string().optional(),
  /** Messages in each of the last weeks of the period, the oldest first. */
  weeks: z.array(count).length(LEDGER_WEEKS).readonly(),
  /** The middle one of the times from beginning to handing over, in seconds; of as many as were recorded. */
  worked: z.number().optional(),
  workedOf: count,
  missing: countedSchema,
  reworded: countedSchema,
  opened: countedSchema,
  followed: countedSchema,
  answered: countedSchema,
  bounced: countedSchema,
});
export type LedgerRow = Readonly<z.infer<typeof ledgerRowSchema>>;

const replacement = z.strictObject({ words: z.string(), count }).readonly();
/** A sentence of a text, and what became of it. */
export const sentenceInsightSchema = z.strictObject({
  /** Which text it stands in: the template itself, or a block of it. */
  text: z.string(),
  path: z.array(z.int()).readonly(),
  /** Its place among the sentences of its line. */
  at: count,
  words: z.string(),
  /** Messages that it was in. */
  shown: count,
  reworded: count,
  takenOut: count,
  /** What was written instead, grouped where it says the same, most frequent first. */
  replacements: z.array(replacement.unwrap().extend({ all: z.array(replacement).readonly() })).readonly(),
});
export type SentenceInsight = Readonly<z.infer<typeof sentenceInsightSchema>>;

/** A question of a text, and how it was answered. */
export const questionInsightSchema = z.strictObject({
  key: z.string(),
  label: z.string(),
  type: z.string(),
  asked: count,
  empty: count,
  /** How many answered something else than the default; none where it has no default. */
  changed: count.optional(),
  /** The answer that was given most often, in words. */
  usual: z.strictObject({ words: z.string(), count }).optional(),
  /** Of what is picked: how often each option was. */
  options: z.array(z.strictObject({ key: z.string(), label: z.string(), count })).readonly(),
});
export type QuestionInsight = Readonly<z.infer<typeof questionInsightSchema>>;

/** Something that the figures suggest, with what speaks for it. */
export const suggestionSchema = z.strictObject({
  kind: z.enum(['retire', 'default', 'drop option', 'reword', 'option']),
  words: z.string(),
  /** The figures behind it, in words. */
  evidence: z.string(),
  /** What it is about: a question's key, or a sentence's words. */
  about: z.string(),
});
export type Suggestion = Readonly<z.infer<typeof suggestionSchema>>;

/** One text, looked back at. */
export const textInsightSchema = z.strictObject({
  name: z.string(),
  title: z.string(),
  uses: count,
  sentences: z.array(sentenceInsightSchema).readonly(),
  /** What was written besides, grouped. */
  added: z.array(replacement).readonly(),
  questions: z.array(questionInsightSchema).readonly(),
  suggestions: z.array(suggestionSchema).readonly(),
});
export type TextInsight = Readonly<z.infer<typeof textInsightSchema>>;
