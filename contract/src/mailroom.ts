/** The mailroom: the stand-in for a mail service, with mailboxes and recipients that are made up. */
import * as z from 'zod';

/** A line of the list of letters. */
export const letterSummarySchema = z.strictObject({
  id: z.string(),
  sender: z.string(),
  recipients: z.array(z.string()).readonly(),
  subject: z.string(),
  at: z.string(),
});
export type LetterSummary = Readonly<z.infer<typeof letterSummarySchema>>;
/** A letter in somebody's mailbox. */
export const deliveredSchema = letterSummarySchema.extend({
  from: z.string(),
  opening: z.string(),
  done: z.boolean(),
  /** How many letters of its thread there are, itself included. */
  thread: z.number(),
});
export type Delivered = Readonly<z.infer<typeof deliveredSchema>>;
/** A letter, whole. */
export const letterSchema = letterSummarySchema.extend({
  from: z.string(),
  html: z.string(),
  text: z.string(),
  files: z.array(z.string()).readonly(),
  /** What could not be read in it, in words. */
  broken: z.string(),
});
export type Letter = Readonly<z.infer<typeof letterSchema>>;
/** Says whether a letter is dealt with. */
export const letterDoneSchema = z.strictObject({ done: z.boolean() });
/** Sets the stand-in's clock forward. */
export const forwardSchema = z.strictObject({
  hours: z
    .number()
    .positive()
    .max(24 * 60),
});
/** The stand-in's clock, and what its recipients are still going to do. */
export const standInClockSchema = z.strictObject({
  /** False where mail goes to a service of its own. */
  standIn: z.boolean(),
  now: z.string(),
  ahead: z.number(),
  waiting: z.number(),
});
export type StandInClock = Readonly<z.infer<typeof standInClockSchema>>;
/** The clock after it was set forward. */
export const forwardedSchema = standInClockSchema.extend({
  /** What happened meanwhile, by what it is. */
  happened: z.record(z.string(), z.number()).readonly(),
});
export type Forwarded = Readonly<z.infer<typeof forwardedSchema>>;
/** What was taken from files that were dropped in. */
export const droppedInSchema = z.strictObject({
  taken: z.number(),
  problems: z.array(z.string()).readonly(),
});
export type DroppedIn = Readonly<z.infer<typeof droppedInSchema>>;
