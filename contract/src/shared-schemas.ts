/** What core's own types are over the wire, in answers. */
import { KINDS, type Finding, type House, type TextDocument } from '@vocabula/core';
import type { SampleColumn } from '@vocabula/core/proof';
import * as z from 'zod';

const isObject = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null;

/** The kinds of texts. */
export const kindSchema = z.enum(KINDS);
/** The types of columns. */
export const columnTypeSchema = z.enum(['text', 'number', 'date', 'yes-no', 'email', 'phone', 'link']);
/** A row of a table, by column key. */
export const rowSchema = z.record(z.string(), z.string());
/** Documents and houses were checked as a whole when they came in; in answers only what they are is looked at. */
export const documentAnswer = z.custom<TextDocument>((value) => isObject(value) && value.type === 'template');
/** A house in an answer. */
export const houseAnswer = z.custom<House>((value) => isObject(value) && isObject(value.style));
/** A finding in an answer. */
export const findingSchema = z.custom<Finding>(
  (value) => isObject(value) && typeof value.code === 'string' && typeof value.message === 'string',
);
/** A column of a table in an answer. */
export const sampleColumnSchema: z.ZodType<SampleColumn> = z.strictObject({
  key: z.string(),
  name: z.string(),
  type: columnTypeSchema,
  value: z.string().optional(),
});
