/** Files that a text is started from. */
import * as z from 'zod';
import type { TextDocument } from '@vocabula/core';

export const convertSchema = z.strictObject({ name: z.string().trim().min(1).max(300) });

export interface Converted {
  /** A text without a title: what the file said is in its envelope and body. */
  readonly document: TextDocument;
  /** What the file would be called, to be taken or left. */
  readonly suggestedTitle: string;
  /** What was recognised, changed or left out, in words. */
  readonly notes: readonly string[];
}

/** A text to start from for an occasion. */
export interface Starter {
  readonly name: string;
  readonly title: string;
  readonly description: string;
  readonly document: TextDocument;
}
