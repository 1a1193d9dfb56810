/** Looking back: what happened to messages. */
import * as z from 'zod';
import { LEDGER_WEEKS } from './constants.js';
import { zoneSchema } from './zone.js';

const day = z.iso.date('a day as 2026-11-27');
const count = z.int().min(0);

/** A period from day to day, both included. Without `from` it starts at the beginning; without `until` it ends now. */
export const periodSchema = z.strictObject({ from: day.optional(), until: day.optional() });
export type Period = z.infer<typeof periodSchema>;

/** A count out of the number of times it could be observed. */
export const countedSchema = z.strictObject({ successes: count, trials: count }).readonly();
export type CountedShare = z.infer<typeof countedSchema>;

/** One text in the ledger. Figures are never about a person, except that colleagues see their own use. */
export const ledgerRowSchema = z.strictObject({
  name: z.string(),
  title: z.string(),
  folder: z.string(),
  uses: count,
  /** Number of people who use it. */
  people: count,
  lastUse: z.string().optional(),
  /** Messages in each of the last weeks of the period, the oldest first. */
  weeks: z.array(count).length(LEDGER_WEEKS).readonly(),
  /** Median active time from beginning to handing over, in seconds, of the `workedOf` messages where it was recorded. */
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
/** A sentence of a text, and how often it was changed. */
export const sentenceInsightSchema = z.strictObject({
  /** Name of its text: the template or one of its blocks. */
  text: z.string(),
  path: z.array(z.int()).readonly(),
  /** Index of the sentence in its line. */
  at: count,
  words: z.string(),
  /** Number of messages that had it. */
  shown: count,
  reworded: count,
  takenOut: count,
  /** Replacements, grouped when they say the same, most frequent first. */
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
  /** Number of answers other than the default; missing if there is none. */
  changed: count.optional(),
  /** The answer that was given most often, in words. */
  usual: z.strictObject({ words: z.string(), count }).optional(),
  /** Number of times each option was chosen. */
  options: z.array(z.strictObject({ key: z.string(), label: z.string(), count })).readonly(),
});
export type QuestionInsight = Readonly<z.infer<typeof questionInsightSchema>>;

/** A suggestion with its evidence. */
export const suggestionSchema = z.strictObject({
  kind: z.enum(['retire', 'default', 'drop option', 'reword', 'option']),
  words: z.string(),
  /** The figures behind it, in words. */
  evidence: z.string(),
  /** What it is about: a question's key, or a sentence's words. */
  about: z.string(),
});
export type Suggestion = Readonly<z.infer<typeof suggestionSchema>>;

/** What became of some messages of a text: those of one version, say. Shares are of those where it can be known. */
export const outcomeGroupSchema = z.strictObject({
  label: z.string(),
  messages: count,
  opened: countedSchema,
  followed: countedSchema,
  answered: countedSchema,
  bounced: countedSchema,
});
export type OutcomeGroup = Readonly<z.infer<typeof outcomeGroupSchema>>;

/** The messages of a text told apart by one thing: its version, an answer, a passage, when they were sent. */
export const outcomesBySchema = z.strictObject({
  by: z.enum(['version', 'answer', 'passage', 'weekday', 'time of day']),
  /** The question or the passage; empty for the others. */
  about: z.string(),
  groups: z.array(outcomeGroupSchema).readonly(),
});
export type OutcomesBy = Readonly<z.infer<typeof outcomesBySchema>>;

/** Which messages one text's report counts; weekdays and times of day are those of the zone. */
export const textPeriodSchema = periodSchema.extend({ zone: zoneSchema.default('UTC') });

/** The report on one text. */
export const textInsightSchema = z.strictObject({
  name: z.string(),
  title: z.string(),
  uses: count,
  sentences: z.array(sentenceInsightSchema).readonly(),
  /** Sentences that were added, grouped, each with its place and in how many messages that was shown. */
  added: z
    .array(
      replacement.unwrap().extend({
        of: count,
        place: z.strictObject({ text: z.string(), path: z.array(z.int()).readonly(), at: z.int().min(-1) }).optional(),
      }),
    )
    .readonly(),
  questions: z.array(questionInsightSchema).readonly(),
  suggestions: z.array(suggestionSchema).readonly(),
  outcomes: z.array(outcomesBySchema).readonly(),
});
export type TextInsight = Readonly<z.infer<typeof textInsightSchema>>;
