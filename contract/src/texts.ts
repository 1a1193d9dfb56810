/** Templates, blocks and signatures over the wire. */
import { documentSchema } from '@vocabula/core/schema';
import * as z from 'zod';
import { beyondBounds, type Finding, type Kind, type TextDocument } from '@vocabula/core';

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

export const createTextSchema = z.strictObject({
  kind: z.enum(['message', 'block', 'signature']),
  title: z.string().trim().min(1, 'a title is needed').max(200),
  document: document.optional(),
  /** The folder it is made in; where none is given, the first that the asker may write in. */
  folder: z.string().max(60).optional(),
});
export type CreateText = { kind: Kind; title: string; document?: TextDocument; folder?: string };

/** Saving says which revision it was based on; a newer one in between is a conflict. */
export const saveTextSchema = z.strictObject({ document, revision });
export type SaveText = { document: TextDocument; revision: number };

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
export type TextState = 'not published' | 'published' | 'changed' | 'withdrawn' | 'retired';

/** A line of the catalogue. To somebody who may not write it, it is as last published. */
export interface TextSummary {
  readonly name: string;
  readonly kind: Kind;
  readonly title: string;
  readonly subject: string;
  readonly call: string | undefined;
  readonly locale: string | undefined;
  readonly revision: number;
  readonly updatedAt: string;
  readonly lastUsed: string | undefined;
  /** How often a message was begun on it. */
  readonly used: number;
  readonly binned: boolean;
  readonly folder: string;
  readonly position: number;
  readonly tags: readonly string[];
  readonly state: TextState;
  /** The number of the version colleagues use. */
  readonly version: number | undefined;
  /** Whether a message can be begun on it now. */
  readonly offered: boolean;
  readonly mayWrite: boolean;
  readonly madeBy: string | undefined;
  readonly owner: string | undefined;
  readonly reviewBy: string | undefined;
  readonly validFrom: string | undefined;
  readonly validUntil: string | undefined;
  /** Errors, warnings, notes of the working copy; none where it may not be written. */
  readonly findings: readonly [number, number, number] | undefined;
  readonly replacedBy: string | undefined;
}

/** A text as its author works on it. */
export interface WorkingCopy {
  readonly name: string;
  readonly revision: number;
  readonly updatedAt: string;
  readonly document: TextDocument;
  /** The number of the version, where it is one. */
  readonly version?: number;
}

/** A text with all that it includes, at any depth, its own first, and with what the house puts around it. */
export interface Closure {
  readonly texts: readonly WorkingCopy[];
  readonly usedIn: readonly { name: string; title: string }[];
  /** The version that colleagues use, where this is it. */
  readonly version: number | undefined;
}

/** What a text needs and what needs it, a step at a time in both directions. */
export interface Neighbours {
  readonly name: string;
  readonly title: string;
  readonly kind: Kind;
  readonly needs: readonly { readonly name: string; readonly title: string; readonly kind: Kind | 'fact' }[];
  readonly usedIn: readonly { readonly name: string; readonly title: string; readonly kind: Kind }[];
}

/** Texts that say nearly the same. */
export interface AlikeGroup {
  readonly texts: readonly { readonly name: string; readonly title: string; readonly used: number }[];
  /** Of the least alike two that are next to each other, from 0 to 1. */
  readonly likeness: number;
}

/** Both sides of a conflict, in the details of a `stale-revision` problem. */
export interface Conflict {
  readonly yours: TextDocument;
  readonly theirs: WorkingCopy;
}

/** What came of each imported file. */
export interface Imported {
  readonly file: string;
  readonly name: string;
  readonly outcome: 'new' | 'changed' | 'same';
  readonly findings: readonly Finding[];
}

/** A hit of the call line. */
export interface Hit {
  readonly name: string;
  readonly kind: Kind;
  readonly title: string;
  readonly subject: string;
  readonly call: string | undefined;
  readonly opening: string;
  /** Where the typed words were found: a stretch of it, with the found parts in it. */
  readonly found: readonly { readonly text: string; readonly hit: boolean }[];
  readonly folder: string;
  /** Whether a message can be begun on it now. */
  readonly offered: boolean;
  /** Why it comes before others: used for this recipient, at hand, used last. */
  readonly why?: string;
}
