/** Series under way: messages to one recipient over time. */
import * as z from 'zod';
import { MOST_STARTED, STEP_STATES, RUN_STATES } from './constants.js';
import { answersSchema, fieldsSchema } from './fills.js';
import { nameSchema } from './texts.js';
import { zoneSchema } from './zone.js';

const count = z.int().min(0);

/** Starts a series: for people who are named, pasted or in a list; each gets messages of their own. */
export const startSeriesSchema = z.strictObject({
  text: nameSchema,
  timezone: zoneSchema,
  /** What is asked once at the beginning, by the ids of questions. */
  answers: answersSchema,
  to: z.union([
    z.strictObject({ people: z.array(fieldsSchema).min(1).max(MOST_STARTED) }),
    z.strictObject({ paste: z.string().max(2_000_000) }),
    z.strictObject({ list: z.string().max(60), search: z.string().max(200).default('') }),
  ]),
});
export type StartSeries = z.infer<typeof startSeriesSchema>;
/** What was started, and who was not, with the reason. */
export const startedSeriesSchema = z.strictObject({
  started: z.array(z.string()).readonly(),
  refused: z.array(z.string()).readonly(),
});
export type StartedSeries = Readonly<z.infer<typeof startedSeriesSchema>>;

/** A series under way, or ended, as lists show it. */
export const runSummarySchema = z.strictObject({
  id: z.string(),
  text: z.string(),
  title: z.string(),
  version: z.int().optional(),
  address: z.string(),
  name: z.string(),
  state: z.enum(RUN_STATES),
  /** Why it was stopped, in words; empty otherwise. */
  why: z.string(),
  startedAt: z.string(),
  endedAt: z.string().optional(),
  steps: count,
  /** How many messages have gone. */
  gone: count,
  /** The step that is next, from 0, when it is due, and whether somebody has to look at it first. */
  next: z
    .strictObject({ at: count, title: z.string(), due: z.string().optional(), look: z.boolean(), why: z.string() })
    .readonly()
    .optional(),
});
export type RunSummary = Readonly<z.infer<typeof runSummarySchema>>;

/** One step of a series under way. */
export const runStepSchema = z.strictObject({
  /** From 0. */
  at: count,
  text: z.string(),
  title: z.string(),
  state: z.enum(STEP_STATES),
  /** Why it is as it is, in words; empty where that needs none. */
  why: z.string(),
  /** When it went, is due, or is foreseen to be; none where that cannot be told. */
  moment: z.string().optional(),
  /** It goes only if something comes of the messages before it. */
  perhaps: z.boolean(),
  /** Somebody chose its moment. */
  moved: z.boolean(),
  look: z.boolean(),
  /** The unfinished message that it is, to be changed for this recipient alone. */
  fill: z.string(),
});
export type RunStep = Readonly<z.infer<typeof runStepSchema>>;
/** A series under way, whole. */
export const runSchema = runSummarySchema.extend({
  zone: z.string(),
  /** Working hours and days of who sends it, and holidays, as far as the series reaches. */
  from: z.string(),
  to: z.string(),
  days: z.array(z.int()).readonly(),
  holidays: z.array(z.string()).readonly(),
  /** The moment that counts as now, ISO: in the demo, the stand-in's clock may be ahead. */
  now: z.string(),
  plan: z.array(runStepSchema).readonly(),
});
export type Run = Readonly<z.infer<typeof runSchema>>;

/** Changes one step for this recipient alone. */
export const changeStepSchema = z.union([
  /** Another moment. */
  z.strictObject({ due: z.iso.datetime() }),
  z.strictObject({
    act: z.enum([
      /** It is left out. */
      'skip',
      /** It goes after all. */
      'take in',
      /** It was looked at: it goes when it is due. */
      'let go',
    ]),
  }),
]);
export type ChangeStep = z.infer<typeof changeStepSchema>;
