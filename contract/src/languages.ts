/** Versions of texts in other languages: which lines were compared with the original. */
import type { Agreed } from '@vocabula/core/languages';
import * as z from 'zod';

const line = z.string().max(60_000);
const agreedSchema: z.ZodType<Agreed> = z.strictObject({ original: line, version: line });
/** The most lines that are kept for one text; the oldest are let go of. */
export const MOST_AGREED = 5000;

/** Lines that were compared: they are added to those that are known. */
export const agreeSchema = z.strictObject({ pairs: z.array(agreedSchema).min(1).max(MOST_AGREED) });
export type Agree = z.infer<typeof agreeSchema>;
/** Lines that were compared, the newest last. */
export const agreedAnswerSchema = z.strictObject({ pairs: z.array(agreedSchema).readonly() });
export type AgreedAnswer = Readonly<z.infer<typeof agreedAnswerSchema>>;
