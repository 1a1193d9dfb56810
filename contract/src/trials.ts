/** Trials: versions of one text that are used side by side until one is better. */
import * as z from 'zod';
import { FEWEST_ARMS, MOST_ARMS, TRIAL_OUTCOMES } from './constants.js';

const count = z.int().min(0);
const number = z.int().min(1);
const share = z.number().min(0).max(1);
/** The end of an interval of a difference of shares. */
const difference = z.number().min(-1).max(1);

/** Begins a trial: versions with their weights, the outcome that counts, and the smallest difference that matters. */
export const startTrialSchema = z.strictObject({
  arms: z
    .array(z.strictObject({ version: number, weight: z.int().min(1).max(100) }))
    .min(FEWEST_ARMS, 'two versions at least')
    .max(MOST_ARMS, 'three versions at most')
    .refine((arms) => new Set(arms.map(({ version }) => version)).size === arms.length, 'different versions'),
  outcome: z.enum(TRIAL_OUTCOMES),
  /** As a share: 0.05 for 5 points. */
  matters: z.number().min(0.01, 'one point at least').max(0.5, 'fifty points at most'),
});
export type StartTrial = z.infer<typeof startTrialSchema>;

/** Ends a trial. `publish` is the version that everybody gets from now on; without it the one in use stays. */
export const endTrialSchema = z.strictObject({ publish: number.optional() });
export type EndTrial = z.infer<typeof endTrialSchema>;

/** One of the versions of a trial, and what came of it so far. */
export const trialArmSchema = z.strictObject({
  version: number,
  /** What was noted when it was published. */
  note: z.string(),
  weight: z.int(),
  /** Recipients who got it, the first message of each; and for how many of them it came out well. */
  trials: count,
  successes: count,
  /** Interval of the share that holds at every moment at once, however often it is looked at. */
  low: share,
  high: share,
});
export type TrialArm = Readonly<z.infer<typeof trialArmSchema>>;

/** A trial as it stands, or stood when it ended. */
export const trialSchema = z.strictObject({
  id: z.string(),
  text: z.string(),
  outcome: z.enum(TRIAL_OUTCOMES),
  matters: share,
  startedAt: z.string(),
  by: z.string(),
  /** When and why it ended; none while it runs. */
  ended: z.strictObject({ at: z.string(), why: z.string() }).readonly().optional(),
  arms: z.array(trialArmSchema).readonly(),
  verdict: z.enum(['not yet', 'better', 'no difference that matters']),
  /** The version that is better than all others, once one is. */
  best: number.optional(),
  /** How much larger the share of one version is than another's, at least and at most. */
  differences: z
    .array(z.strictObject({ of: number, to: number, low: difference, high: difference }).readonly())
    .readonly(),
  mayEnd: z.boolean(),
});
export type Trial = Readonly<z.infer<typeof trialSchema>>;
