/** Versions: published states, checkpoints, requests to publish, remarks. */
import * as z from 'zod';
import type { House, TextDocument } from '@vocabula/core';
import { nameSchema } from './texts.js';

/** The house has versions as texts have. */
export const HOUSE_NAME = 'house.yaml';
export const subjectSchema = z.union([nameSchema, z.literal(HOUSE_NAME)]);

const noteWords = z.string().trim().min(1, 'say what is new').max(2000);
const revision = z.int().min(1);

export const publishSchema = z.strictObject({
  revision,
  note: noteWords,
  /** A moment to come; none for now. */
  at: z.iso.datetime({ offset: true }).optional(),
});
export type Publish = z.infer<typeof publishSchema>;
export const becauseSchema = z.strictObject({ because: z.string().trim().min(1, 'say why').max(2000) });
export type Because = z.infer<typeof becauseSchema>;
export const retireSchema = z.strictObject({ replacedBy: nameSchema.optional() });
export type Retire = z.infer<typeof retireSchema>;
export const restoreStateSchema = z.strictObject({
  state: z.string().regex(/^(version|checkpoint):[\w.-]{1,60}$/),
  revision,
});
export type RestoreState = z.infer<typeof restoreStateSchema>;
export const REASONS = ['sitting', 'work', 'import', 'conversion', 'merge', 'replace-all', 'restore'] as const;
export type CheckpointReason = (typeof REASONS)[number];
export const checkpointSchema = z.strictObject({ reason: z.enum(REASONS) });

export const askSchema = z.strictObject({
  revision,
  note: noteWords,
  report: z.strictObject({
    messages: z.int().min(0),
    set: z.string().max(200),
    errors: z.int().min(0),
    warnings: z.int().min(0),
    findings: z.array(z.string().max(1000)).max(200),
    lookedAt: z.int().min(0).optional(),
  }),
});
export type Ask = z.infer<typeof askSchema>;
export type ProofReport = Ask['report'];
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
export const makeRemarkSchema = z.strictObject({ quote, body: z.string().trim().min(1, 'say something').max(4000) });
export type MakeRemark = z.infer<typeof makeRemarkSchema>;
export const changeRemarkSchema = z.strictObject({
  settled: z.boolean().optional(),
  reply: z.string().trim().min(1).max(4000).optional(),
});
export type ChangeRemark = z.infer<typeof changeRemarkSchema>;

export interface Version {
  readonly number: number;
  readonly note: string;
  readonly who: string;
  readonly at: string;
  readonly withdrawn: { readonly at: string; readonly by: string; readonly because: string } | undefined;
  /** How many messages were handed over from it. */
  readonly sent: number;
}
export interface Checkpoint {
  readonly id: string;
  readonly reason: CheckpointReason;
  readonly who: string;
  readonly at: string;
}
export interface Timed {
  readonly id: string;
  readonly note: string;
  readonly who: string;
  readonly due: string;
  readonly state: 'waiting' | 'stopped';
  /** Why it was stopped. */
  readonly words: string | undefined;
}
export interface Request {
  readonly id: string;
  readonly text: string;
  readonly title: string;
  readonly revision: number;
  readonly note: string;
  readonly report: ProofReport;
  readonly who: string;
  readonly mine: boolean;
  readonly at: string;
  readonly state: 'open' | 'accepted' | 'returned' | 'taken back';
  readonly remark: string | undefined;
  readonly answeredBy: string | undefined;
}
export interface Remark {
  readonly id: string;
  readonly quote: Quote;
  readonly body: string;
  readonly who: string;
  readonly at: string;
  readonly answers: readonly { readonly who: string; readonly at: string; readonly body: string }[];
  readonly settled: { readonly by: string; readonly at: string } | undefined;
}

/** Where a text stands between its working copy and what colleagues use. */
export interface Standing {
  readonly name: string;
  readonly title: string;
  readonly revision: number;
  /** The version colleagues use; none before the first, and after it was withdrawn. */
  readonly published: Version | undefined;
  /** Whether the working copy differs from it. */
  readonly changed: boolean;
  readonly versions: readonly Version[];
  readonly checkpoints: readonly Checkpoint[];
  readonly timed: readonly Timed[];
  readonly requests: readonly Request[];
  readonly openRemarks: number;
  readonly retired: { readonly at: string; readonly replacedBy: string | undefined } | undefined;
  /** What the asker may do. */
  readonly mayPublish: boolean;
  readonly mayWrite: boolean;
  /** Why the asker may not publish although the folder would let them. */
  readonly whyNot: string | undefined;
}
/** A state of a text or of the house, in words for its place in history. */
export interface State {
  readonly state: string;
  readonly document: TextDocument | House;
  readonly at: string;
}
/** A message that was handed over from a version. */
export interface SentFrom {
  readonly at: string;
  readonly who: string;
  readonly recipients: readonly string[];
  readonly subject: string;
}

/** What depends on a text, a fact or the house style. */
export interface Dependents {
  readonly texts: readonly { readonly name: string; readonly title: string }[];
  /** How many more there are that the asker may not see. */
  readonly hidden: number;
}
/** What a change does to the messages of one template. */
export interface TemplateImpact {
  readonly name: string;
  readonly title: string;
  /** The sample set it was rendered for, in words. */
  readonly set: string;
  readonly unchanged: number;
  readonly changed: number;
  /** Some of the changed ones. */
  readonly messages: readonly {
    readonly recipient: string;
    readonly before: { readonly subject: string; readonly text: string; readonly html: string };
    readonly after: { readonly subject: string; readonly text: string; readonly html: string };
  }[];
}
