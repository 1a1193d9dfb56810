/** Templates, blocks and signatures over the wire. */
import { documentSchema } from '@vocabula/core/schema';
import * as z from 'zod';
import { beyondBounds, type Kind, type TextDocument } from '@vocabula/core';
import { documentAnswer, findingSchema, kindSchema } from './shared-schemas.js';

/** The name of a text: it never changes, and is never given to another. */
export const nameSchema = z
  .string()
  .regex(/^[a-z0-9][a-z0-9-]*$/, 'a name has small letters, digits and hyphens')
  .max(80);
const revision = z.int().min(1);
/** A document within the bounds of a text. They are looked at first: the rest of the schema costs time for each node. */
const document = z
  .unknown()
  .superRefine((value, context) => {
    const beyond = beyondBounds(value);
    if (beyond !== undefined)
      context.addIssue({ code: 'custom', message: beyond, params: { status: 422, code: 'too-large' }, fatal: true });
  })
  .pipe(documentSchema)
  .transform((value) => value as TextDocument);

/** Makes a text. */
export const createTextSchema = z.strictObject({
  kind: kindSchema,
  title: z.string().trim().min(1, 'a title is needed').max(200),
  document: document.optional(),
  /** The folder it is made in; where none is given, the first that the user may write in. */
  folder: z.string().max(60).optional(),
});
/** What a text is made of. */
export type CreateText = { kind: Kind; title: string; document?: TextDocument; folder?: string };

/** Saving says which revision it was based on; a newer one in between is a conflict. */
export const saveTextSchema = z.strictObject({ document, revision });
/** What is saved. */
export type SaveText = { document: TextDocument; revision: number };

/** Takes files of the format in. */
export const importFilesSchema = z.strictObject({
  files: z
    .array(
      z.strictObject({
        /** `house.yaml`, or a file of the format; folders before the name do not matter. */
        file: z.string().min(1).max(300),
        content: z.string().max(2_000_000),
      }),
    )
    .min(1)
    .max(500),
  /** The folder that new ones are put in; else as for a text that is made. */
  folder: z.string().max(60).optional(),
});
export type ImportFiles = z.infer<typeof importFilesSchema>;

const names = z.array(nameSchema).min(1).max(10_000);
/** What is done to several texts at once. */
export const manySchema = z.discriminatedUnion('act', [
  z.strictObject({ act: z.literal('move'), names, folder: z.string().max(60) }),
  z.strictObject({ act: z.literal('bin'), names }),
  z.strictObject({ act: z.literal('restore'), names }),
  z.strictObject({ act: z.literal('purge'), names }),
  z.strictObject({
    act: z.literal('tag'),
    names,
    tags: z
      .array(
        z
          .string()
          .trim()
          .min(1)
          .max(40)
          .regex(/^[^\s,]+$/, 'a tag is one word'),
      )
      .min(1)
      .max(20),
    /** Whether the tags are taken off instead. */
    off: z.boolean().optional(),
  }),
  /** Puts them in this order, before the others of the folder. */
  z.strictObject({ act: z.literal('order'), names, folder: z.string().max(60) }),
]);
export type Many = z.infer<typeof manySchema>;

/** Where a text stands: see `Standing`. */
const textState = z.enum(['not published', 'published', 'changed', 'withdrawn', 'retired']);
export type TextState = z.infer<typeof textState>;

/** A line of the catalogue. To somebody who may not write it, it is as last published. */
export const textSummarySchema = z.strictObject({
  name: z.string(),
  kind: kindSchema,
  title: z.string(),
  subject: z.string(),
  call: z.string().optional(),
  locale: z.string().optional(),
  /** The name of the text whose version in another language it is. */
  translationOf: z.string().optional(),
  revision: z.number(),
  updatedAt: z.string(),
  lastUsed: z.string().optional(),
  /** How often a message was begun on it. */
  used: z.number(),
  binned: z.boolean(),
  folder: z.string(),
  position: z.number(),
  tags: z.array(z.string()).readonly(),
  state: textState,
  /** The number of the version colleagues use. */
  version: z.number().optional(),
  /** Whether a message can be begun on it now. */
  offered: z.boolean(),
  mayWrite: z.boolean(),
  madeBy: z.string().optional(),
  owner: z.string().optional(),
  reviewBy: z.string().optional(),
  validFrom: z.string().optional(),
  validUntil: z.string().optional(),
  /** Errors, warnings, notes of the working copy; none where it may not be written. */
  findings: z.tuple([z.number(), z.number(), z.number()]).readonly().optional(),
  replacedBy: z.string().optional(),
});
export type TextSummary = Readonly<z.infer<typeof textSummarySchema>>;

/** A text as its author works on it. */
export const workingCopySchema = z.strictObject({
  name: z.string(),
  revision: z.number(),
  updatedAt: z.string(),
  document: documentAnswer,
  /** The number of the version, where it is one. */
  version: z.number().optional(),
});
export type WorkingCopy = Readonly<z.infer<typeof workingCopySchema>>;

const textBriefSchema = z.strictObject({ name: z.string(), title: z.string(), kind: kindSchema });

/** A text with all that it includes, at any depth, its own first, and with what the house puts around it. */
export const closureSchema = z.strictObject({
  texts: z.array(workingCopySchema).readonly(),
  /** The version that colleagues use, where this is it. */
  version: z.number().optional(),
});
export type Closure = Readonly<z.infer<typeof closureSchema>>;

/** What a text needs and what needs it, a step at a time in both directions. */
export const neighboursSchema = textBriefSchema.extend({
  needs: z.array(textBriefSchema.extend({ kind: z.union([kindSchema, z.literal('fact')]) })).readonly(),
  usedIn: z.array(textBriefSchema).readonly(),
});
export type Neighbours = Readonly<z.infer<typeof neighboursSchema>>;

/** Texts that say nearly the same. */
export const alikeGroupSchema = z.strictObject({
  texts: z
    .array(
      z
        .strictObject({
          name: z.string(),
          title: z.string(),
          used: z.number(),
        })
        .readonly(),
    )
    .readonly(),
  /** Of the least alike two that are next to each other, from 0 to 1. */
  likeness: z.number(),
});
export type AlikeGroup = Readonly<z.infer<typeof alikeGroupSchema>>;

/** Both sides of a conflict, in the details of a `stale-revision` problem. */
export const conflictSchema = z.strictObject({
  yours: documentAnswer,
  theirs: workingCopySchema,
});
export type Conflict = Readonly<z.infer<typeof conflictSchema>>;

/** What came of each imported file. */
export const importedSchema = z.strictObject({
  file: z.string(),
  name: z.string(),
  outcome: z.enum(['new', 'changed', 'same']),
  findings: z.array(findingSchema).readonly(),
});
export type Imported = Readonly<z.infer<typeof importedSchema>>;

/** A hit of the call line. */
export const hitSchema = z.strictObject({
  name: z.string(),
  kind: kindSchema,
  title: z.string(),
  subject: z.string(),
  call: z.string().optional(),
  opening: z.string(),
  /** Where the typed words were found: a stretch of it, with the found parts in it. */
  found: z
    .array(
      z
        .strictObject({
          text: z.string(),
          hit: z.boolean(),
        })
        .readonly(),
    )
    .readonly(),
  folder: z.string(),
  /** Whether a message can be begun on it now. */
  offered: z.boolean(),
  /** Why it comes before others: used for this recipient, at hand, used last. */
  why: z.string().optional(),
});
export type Hit = Readonly<z.infer<typeof hitSchema>>;
