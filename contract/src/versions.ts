/** Versions: published states, checkpoints, requests to publish, remarks. */
import * as z from 'zod';
import { HOUSE_NAME } from './constants.js';
import { nameSchema } from './texts.js';
import { documentAnswer, houseAnswer } from './shared-schemas.js';

/** What has versions: a text by its name, or the house. */
export const subjectSchema = z.union([nameSchema, z.literal(HOUSE_NAME)]);

const noteWords = z.string().trim().min(1, 'say what is new').max(2000);
const revision = z.int().min(1);

/** Publishes a working copy, now or at a time. */
export const publishSchema = z.strictObject({
  revision,
  note: noteWords,
  /** A moment to come; none for now. */
  at: z.iso.datetime({ offset: true }).optional(),
});
export type Publish = z.infer<typeof publishSchema>;
/** The reason for withdrawing a version. */
export const becauseSchema = z.strictObject({ because: z.string().trim().min(1, 'say why').max(2000) });
export type Because = z.infer<typeof becauseSchema>;
/** Retires a text, and says what takes its place. */
export const retireSchema = z.strictObject({ replacedBy: nameSchema.optional() });
export type Retire = z.infer<typeof retireSchema>;
/** Makes a state of history the working copy again. */
export const restoreStateSchema = z.strictObject({
  state: z.string().regex(/^(version|checkpoint):[\w.-]{1,60}$/),
  revision,
});
export type RestoreState = z.infer<typeof restoreStateSchema>;
/** Why a checkpoint was made. */
export const REASONS = ['sitting', 'work', 'import', 'conversion', 'merge', 'replace-all', 'restore'] as const;
/** One of the reasons. */
export type CheckpointReason = (typeof REASONS)[number];
/** Makes a checkpoint. */
export const makeCheckpointSchema = z.strictObject({ reason: z.enum(REASONS) });

const reportSchema = z.strictObject({
  messages: z.int().min(0),
  set: z.string().max(200),
  errors: z.int().min(0),
  warnings: z.int().min(0),
  findings: z.array(z.string().max(1000)).max(200),
  lookedAt: z.int().min(0).optional(),
});
export type ProofReport = z.infer<typeof reportSchema>;
/** Asks for a text to be published, with the report of its proofs. */
export const askSchema = z.strictObject({ revision, note: noteWords, report: reportSchema });
export type Ask = z.infer<typeof askSchema>;
/** Answers such a request. */
export const answerSchema = z.discriminatedUnion('answer', [
  z.strictObject({ answer: z.literal('accept') }),
  z.strictObject({ answer: z.literal('return'), remark: z.string().trim().min(1, 'say what is missing').max(2000) }),
]);
export type Answer = z.infer<typeof answerSchema>;

/** Words of a text, as the Web Annotation Data Model quotes them. */
const quote = z.strictObject({
  exact: z.string().min(1).max(2000),
  prefix: z.string().max(64),
  suffix: z.string().max(64),
});
export type Quote = z.infer<typeof quote>;
/** Remarks on words of a text. */
export const makeRemarkSchema = z.strictObject({ quote, body: z.string().trim().min(1, 'say something').max(4000) });
export type MakeRemark = z.infer<typeof makeRemarkSchema>;
/** Answers a remark, or settles it. */
export const changeRemarkSchema = z.strictObject({
  settled: z.boolean().optional(),
  reply: z.string().trim().min(1).max(4000).optional(),
});
export type ChangeRemark = z.infer<typeof changeRemarkSchema>;

/** A published version. */
export const versionSchema = z.strictObject({
  number: z.number(),
  note: z.string(),
  who: z.string(),
  at: z.string(),
  withdrawn: z
    .strictObject({
      at: z.string(),
      by: z.string(),
      because: z.string(),
    })
    .readonly()
    .optional(),
  /** How many messages were handed over from it. */
  sent: z.number(),
});
export type Version = Readonly<z.infer<typeof versionSchema>>;
/** A state of a working copy that is kept for a while. */
export const checkpointSchema = z.strictObject({
  id: z.string(),
  reason: z.enum(REASONS),
  who: z.string(),
  at: z.string(),
});
export type Checkpoint = Readonly<z.infer<typeof checkpointSchema>>;
/** A version that is to be made at a time. */
export const timedSchema = z.strictObject({
  id: z.string(),
  note: z.string(),
  who: z.string(),
  due: z.string(),
  state: z.enum(['waiting', 'stopped']),
  /** Why it was stopped. */
  words: z.string().optional(),
});
export type Timed = Readonly<z.infer<typeof timedSchema>>;
/** A request to publish. */
export const requestSchema = z.strictObject({
  id: z.string(),
  text: z.string(),
  title: z.string(),
  revision: z.number(),
  note: z.string(),
  report: reportSchema,
  who: z.string(),
  mine: z.boolean(),
  at: z.string(),
  state: z.enum(['open', 'accepted', 'returned', 'taken back']),
  remark: z.string().optional(),
  answeredBy: z.string().optional(),
});
export type Request = Readonly<z.infer<typeof requestSchema>>;
/** A remark on words of a text, with its answers. */
export const remarkSchema = z.strictObject({
  id: z.string(),
  quote: quote,
  body: z.string(),
  who: z.string(),
  at: z.string(),
  answers: z
    .array(
      z
        .strictObject({
          who: z.string(),
          at: z.string(),
          body: z.string(),
        })
        .readonly(),
    )
    .readonly(),
  settled: z
    .strictObject({
      by: z.string(),
      at: z.string(),
    })
    .readonly()
    .optional(),
});
export type Remark = Readonly<z.infer<typeof remarkSchema>>;

/** Where a text stands between its working copy and what colleagues use. */
export const standingSchema = z.strictObject({
  name: z.string(),
  title: z.string(),
  revision: z.number(),
  /** The version colleagues use; none before the first, and after it was withdrawn. */
  published: versionSchema.optional(),
  /** Whether the working copy differs from it. */
  changed: z.boolean(),
  versions: z.array(versionSchema).readonly(),
  checkpoints: z.array(checkpointSchema).readonly(),
  timed: z.array(timedSchema).readonly(),
  requests: z.array(requestSchema).readonly(),
  openRemarks: z.number(),
  retired: z
    .strictObject({
      at: z.string(),
      replacedBy: z.string().optional(),
    })
    .readonly()
    .optional(),
  /** What the user may do. */
  mayPublish: z.boolean(),
  mayWrite: z.boolean(),
  /** Why the user may not publish although the folder would let them. */
  whyNot: z.string().optional(),
});
export type Standing = Readonly<z.infer<typeof standingSchema>>;
/** A state of a text or of the house, in words for its place in history. */
export const stateSchema = z.strictObject({
  state: z.string(),
  document: z.union([documentAnswer, houseAnswer]),
  at: z.string(),
});
export type State = Readonly<z.infer<typeof stateSchema>>;
/** A message that was handed over from a version. */
export const sentFromSchema = z.strictObject({
  at: z.string(),
  who: z.string(),
  recipients: z.array(z.string()).readonly(),
  subject: z.string(),
});
export type SentFrom = Readonly<z.infer<typeof sentFromSchema>>;

/** What depends on a text, a fact or the house style. */
export const dependentsSchema = z.strictObject({
  texts: z
    .array(
      z
        .strictObject({
          name: z.string(),
          title: z.string(),
        })
        .readonly(),
    )
    .readonly(),
  /** How many more there are that the user may not see. */
  hidden: z.number(),
});
export type Dependents = Readonly<z.infer<typeof dependentsSchema>>;
/** What a change does to the messages of one template. */
export const templateImpactSchema = z.strictObject({
  name: z.string(),
  title: z.string(),
  /** The sample set it was rendered for, in words. */
  set: z.string(),
  unchanged: z.number(),
  changed: z.number(),
  /** Some of the changed ones. */
  messages: z
    .array(
      z
        .strictObject({
          recipient: z.string(),
          before: z
            .strictObject({
              subject: z.string(),
              text: z.string(),
              html: z.string(),
            })
            .readonly(),
          after: z
            .strictObject({
              subject: z.string(),
              text: z.string(),
              html: z.string(),
            })
            .readonly(),
        })
        .readonly(),
    )
    .readonly(),
});
export type TemplateImpact = Readonly<z.infer<typeof templateImpactSchema>>;
