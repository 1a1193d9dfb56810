/** The mailroom: the stand-in for a mail service, with mailboxes and recipients that are made up. */
import * as z from 'zod';

export interface LetterSummary {
  readonly id: string;
  readonly sender: string;
  readonly recipients: readonly string[];
  readonly subject: string;
  readonly at: string;
}
/** A letter in somebody's mailbox. */
export interface Delivered extends LetterSummary {
  readonly from: string;
  readonly opening: string;
  readonly done: boolean;
  /** How many letters of its thread there are, itself included. */
  readonly thread: number;
}
export interface Letter extends LetterSummary {
  readonly from: string;
  readonly html: string;
  readonly text: string;
  readonly files: readonly string[];
  /** What could not be read in it, in words. */
  readonly broken: string;
}
export const letterDoneSchema = z.strictObject({ done: z.boolean() });
export const forwardSchema = z.strictObject({
  hours: z
    .number()
    .positive()
    .max(24 * 60),
});
/** The stand-in's clock, and what its recipients are still going to do. */
export interface StandInClock {
  /** False where mail goes to a service of its own. */
  readonly standIn: boolean;
  readonly now: string;
  readonly ahead: number;
  readonly waiting: number;
}
export interface Forwarded extends StandInClock {
  /** What happened meanwhile, by what it is. */
  readonly happened: Readonly<Record<string, number>>;
}
/** What was taken from files that were dropped in. */
export interface DroppedIn {
  readonly taken: number;
  readonly problems: readonly string[];
}
