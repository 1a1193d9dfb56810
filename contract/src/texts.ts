/** Templates, blocks and signatures over the wire. */
import { documentSchema } from '@vocabula/core/schema';
import * as z from 'zod';
import type { Finding, Kind, TextDocument } from '@vocabula/core';

export const nameSchema = z
  .string()
  .regex(/^[a-z0-9][a-z0-9-]*$/, 'a name has small letters, digits and hyphens')
  .max(80);
const revision = z.int().min(1);
const document = documentSchema.transform((value) => value as TextDocument);

export const createTextSchema = z.strictObject({
  kind: z.enum(['message', 'block', 'signature']),
  title: z.string().trim().min(1, 'a title is needed').max(200),
  document: document.optional(),
});
export type CreateText = { kind: Kind; title: string; document?: TextDocument };

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
});
export type ImportFiles = z.infer<typeof importFilesSchema>;

/** A line of the catalogue. */
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
  readonly binned: boolean;
}

/** A text as its author works on it. */
export interface WorkingCopy {
  readonly name: string;
  readonly revision: number;
  readonly updatedAt: string;
  readonly document: TextDocument;
}

/** A text with all that it includes, at any depth, its own first, and with what the house puts around it. */
export interface Closure {
  readonly texts: readonly WorkingCopy[];
  readonly usedIn: readonly { name: string; title: string }[];
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
}
