/** Files that a text is started from. */
import * as z from 'zod';
import { documentAnswer } from './shared-schemas.js';

/** The name of the file that a text is started from. */
export const convertSchema = z.strictObject({ name: z.string().trim().min(1).max(300) });

/** What a file was read as. */
export const convertedSchema = z.strictObject({
  /** A text without a title: what the file said is in its envelope and body. */
  document: documentAnswer,
  /** What the file would be called, to be taken or left. */
  suggestedTitle: z.string(),
  /** What was recognised, changed or left out, in words. */
  notes: z.array(z.string()).readonly(),
});
export type Converted = Readonly<z.infer<typeof convertedSchema>>;

/** A text to start from for an occasion. */
export const starterSchema = z.strictObject({
  name: z.string(),
  title: z.string(),
  description: z.string(),
  document: documentAnswer,
});
export type Starter = Readonly<z.infer<typeof starterSchema>>;
