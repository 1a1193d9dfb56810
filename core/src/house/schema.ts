/** Checks unknown JSON against a house. */
import * as z from 'zod';
import { variableSchema } from '../template/schema.js';
import { FACT_TYPES } from './house.js';

const hex = z.string().regex(/^#[0-9A-Fa-f]{6}$/, 'a colour is six digits behind #');
const colour = z.strictObject({ light: hex, dark: hex });
const key = z.string().regex(/^[a-z][a-z0-9_]{0,39}$/, 'a key has small letters, digits and underscores');
const name = z
  .string()
  .regex(/^[a-z0-9][a-z0-9-]*$/)
  .max(80);
const font = z
  .string()
  .regex(/^[\p{L}\p{N}' ,-]+$/u, 'a font is a list of families')
  .max(200);
const day = z.string().regex(/^\d{4}-\d{2}-\d{2}$/, 'a day is written year-month-day');
const size = z.number().min(8).max(80);
const source = z.string().max(100_000);

const styleSchema = z
  .strictObject({
    font,
    headingFont: font.optional(),
    size,
    lineHeight: size,
    width: z.number().min(320).max(1200).optional(),
    heading: z.tuple([size, size, size]),
    ink: colour,
    link: colour,
    rule: colour,
    colours: z.record(key, colour).refine((all) => Object.keys(all).length <= 60, 'at most 60 colours'),
    button: z.strictObject({ colour: key, words: hex, corners: z.number().min(0).max(40) }),
    table: z.strictObject({ head: key.optional(), lines: z.enum(['rows', 'all', 'none']) }),
    header: name.optional(),
    footer: name.optional(),
  })
  .refine(
    ({ colours, button, table }) =>
      [button.colour, table.head].every((each) => each === undefined || Object.hasOwn(colours, each)),
    'buttons and tables take their colours from the named ones',
  );

const factSchema = z.strictObject({
  variable: variableSchema.refine(
    ({ type }) => (FACT_TYPES as readonly string[]).includes(type),
    'a fact has one value',
  ),
  value: source,
  changes: z.array(z.strictObject({ date: day, value: source })).max(200),
});

/** The schema of a house that comes in. */
export const houseSchema = z.strictObject({
  style: styleSchema,
  facts: z
    .record(key, factSchema)
    .refine((facts) => Object.entries(facts).every(([each, fact]) => fact.variable.key === each), 'a fact has one key')
    .refine((facts) => Object.keys(facts).length <= 1000, 'at most 1,000 facts'),
  holidays: z.array(day).max(2000),
  locale: z.string().min(2).max(60),
});
