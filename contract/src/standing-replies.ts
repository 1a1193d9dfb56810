/** Standing replies: rules that answer mail that comes in. */
import * as z from 'zod';
import { MAIL_ACTS, MOST_STANDING } from './constants.js';
import { nameSchema } from './texts.js';
import { zoneSchema } from './zone.js';

const count = z.int().min(0);

/** Where one answer of a standing reply comes from. */
export const valueSourceSchema = z.union([
  z.strictObject({ from: z.literal('fixed'), value: z.string().max(10_000) }),
  z.strictObject({ from: z.literal('found'), nth: z.int().min(1).max(12) }),
  z.strictObject({ from: z.literal('behind'), words: z.string().max(200) }),
  z.strictObject({ from: z.enum(['name', 'address', 'subject']) }),
]);

/** A rule as it is written. */
export const standingRuleSchema = z.strictObject({
  title: z.string().trim().min(1).max(120),
  /** An expression over what is known of a mail; empty while there is none. */
  when: z.string().max(4000),
  /** The template that answers; empty while none is chosen. */
  text: nameSchema.or(z.literal('')),
  /** Where answers come from, by the keys of questions. */
  values: z
    .record(z.string().max(80), valueSourceSchema)
    .refine((values) => Object.keys(values).length <= 200, 'too many values'),
  does: z.enum(MAIL_ACTS),
  /** It writes to one sender once in so many days. */
  everyDays: z.int().min(1).max(365),
  /** What it sends goes within working hours. */
  hours: z.boolean(),
  /** The most it sends a day: reaching it switches it off. */
  mostADay: z.int().min(1).max(MOST_STANDING),
  timezone: zoneSchema,
});
export type StandingRule = z.infer<typeof standingRuleSchema>;

/** What was found when a rule was tried on the past, as it is kept with it. */
export const keptTrialSchema = z.strictObject({
  at: z.string(),
  /** From when on mails were looked at. */
  since: z.string(),
  /** How many mails there were, how many it would have answered, and how many more its condition held for. */
  looked: count,
  answered: count,
  held: count,
  /** Letters that it answered and should not have. */
  wrong: z.array(z.string()).readonly(),
  /** Whether it is of the rule as it stands now. */
  current: z.boolean(),
  /** How many of those marked are answered still. */
  stillWrong: count,
});
export type KeptTrial = Readonly<z.infer<typeof keptTrialSchema>>;

/** A rule, with what became of it. */
export const standingReplySchema = z.strictObject({
  id: z.string(),
  rule: standingRuleSchema.readonly(),
  /** What is wrong with its condition, in words; empty where nothing is. */
  problem: z.string(),
  on: z.boolean(),
  /** Why it was switched off by itself; empty otherwise. */
  why: z.string(),
  trial: keptTrialSchema.optional(),
  /** What it did in the last thirty days. */
  done: z.strictObject({ suggest: count, draft: count, send: count }).readonly(),
});
export type StandingReply = Readonly<z.infer<typeof standingReplySchema>>;

/** Switches a rule on or off, moves it before or behind its neighbour, or puts it away and takes it back. */
export const driveStandingReplySchema = z.strictObject({ act: z.enum(['on', 'off', 'up', 'down', 'bin', 'restore']) });
export type DriveStandingReply = z.infer<typeof driveStandingReplySchema>;

/** Letters that a trial answered and should not have. */
export const markWrongSchema = z.strictObject({ wrong: z.array(z.string().max(60)).max(500) });

/** A mail of the past for which the condition of a rule held. */
export const triedMailSchema = z.strictObject({
  letter: z.string(),
  from: z.string(),
  subject: z.string(),
  opening: z.string(),
  at: z.string(),
  /** What would have become of it. */
  what: z.enum([...MAIL_ACTS, 'nothing']),
  /** Why it would not have been answered by itself, in words; empty where it would. */
  why: z.string(),
  wrong: z.boolean(),
  /** With which template its person answered it. */
  answeredWith: z.string().optional(),
});
/** A rule tried on the past. */
export const triedStandingSchema = z.strictObject({
  standing: standingReplySchema,
  mails: z.array(triedMailSchema).readonly(),
});
export type TriedStanding = Readonly<z.infer<typeof triedStandingSchema>>;

/** What was decided on a mail. */
export const standingDecisionSchema = z.strictObject({
  letter: z.string(),
  from: z.string(),
  subject: z.string(),
  at: z.string(),
  /** What the rule is called; empty where no condition held. */
  title: z.string(),
  what: z.enum([...MAIL_ACTS, 'nothing']),
  why: z.string(),
});
export type StandingDecisionLine = Readonly<z.infer<typeof standingDecisionSchema>>;
