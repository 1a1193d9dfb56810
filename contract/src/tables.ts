/** Sample sets and recipient lists: one shape of table with two uses, one importer. */
import * as z from 'zod';
import { nameSchema } from './texts.js';
import { columnTypeSchema, rowSchema, sampleColumnSchema } from './shared-schemas.js';

/** What a table is for: proofing, or writing to. */
export const useSchema = z.enum(['sample', 'recipients']);
export type Use = z.infer<typeof useSchema>;

const title = z.string().trim().min(1, 'a title is needed').max(200);
const key = z
  .string()
  .regex(/^[a-z][a-z0-9_]*$/, 'a key has small letters, digits and underscores')
  .max(60);
const cell = z.string().max(100_000);

/** What is decided about the columns of a file, by key. */
const choicesSchema = z.record(
  key,
  z.strictObject({
    type: columnTypeSchema.optional(),
    order: z.enum(['day first', 'month first']).optional(),
    /** The column it goes into, where rows are added to a set; empty for one that is left out. */
    into: z.union([key, z.literal('')]).optional(),
  }),
);
export type Choices = z.infer<typeof choicesSchema>;

/** Choices come in the address, beside a file that is the whole body. */
const choicesInAddress = z
  .string()
  .max(12_000)
  .optional()
  .transform((text, context) => {
    if (text === undefined) return {};
    try {
      const result = choicesSchema.safeParse(JSON.parse(text));
      if (result.success) return result.data;
    } catch {
      // Said below.
    }
    context.addIssue({ code: 'custom', message: 'choices are an object by column' });
    return z.NEVER;
  });

/** Asks what a file would be read as. */
export const recogniseSchema = z.strictObject({
  choices: choicesInAddress,
  /** The set that the rows may be added to: columns are matched to its. */
  into: z.string().max(60).optional(),
});
/** What a set or list is called. */
export const tableTitleSchema = z.strictObject({ title });

/** Makes a table of a file. */
export const importTableSchema = z.strictObject({
  use: useSchema,
  title,
  /** Goes on although columns had to be renamed; without it those are refused. */
  accept: z.enum(['true', 'false']).optional(),
  choices: choicesInAddress,
});
/** Adds the rows of a file to a table. */
export const addRowsSchema = z.strictObject({
  revision: z.coerce.number().int().min(0).default(0),
  choices: choicesInAddress,
});
/** Which tables are listed. */
export const listTablesSchema = z.strictObject({ use: useSchema.optional() });

/** A column of a set or list: its name, its type, and what it is worked out from. */
export const columnSchema = z.strictObject({
  key,
  name: z.string().trim().min(1, 'a column needs a name').max(200),
  type: columnTypeSchema,
  value: z.string().max(2000).optional(),
});

/** A set that is made rather than imported. */
export const makeTableSchema = z.strictObject({
  use: useSchema,
  title,
  columns: z.array(columnSchema).min(1).max(500),
  rows: z.array(z.record(key, cell)).max(1000),
  /** The template whose own set it becomes. */
  ownOf: nameSchema.optional(),
});
export type MakeTable = z.infer<typeof makeTableSchema>;

/** Changes of a set, made together or not at all. Rows are meant by their positions, as `StoredTable` gives them. */
export const changeTableSchema = z.strictObject({
  revision: z.int().min(1),
  changes: z
    .array(
      z.discriminatedUnion('what', [
        z.strictObject({ what: z.literal('title'), title }),
        z.strictObject({ what: z.literal('keep-until'), day: z.iso.date().nullable() }),
        /** Shares a recipient list with those who may write in a folder; null with nobody. */
        z.strictObject({ what: z.literal('folder'), folder: z.string().max(60).nullable() }),
        z.strictObject({ what: z.literal('cells'), position: z.int().min(0), cells: z.record(key, cell) }),
        z.strictObject({ what: z.literal('add-rows'), rows: z.array(z.record(key, cell)).min(1).max(10_000) }),
        z.strictObject({ what: z.literal('remove-rows'), positions: z.array(z.int().min(0)).min(1).max(100_000) }),
        /** Adds a column, or changes the one of that key. */
        z.strictObject({ what: z.literal('column'), column: columnSchema }),
        z.strictObject({ what: z.literal('remove-column'), key }),
      ]),
    )
    .min(1)
    .max(1000),
});
export type ChangeTable = z.infer<typeof changeTableSchema>;
/** One of the changes. */
export type TableChange = ChangeTable['changes'][number];

/** Makes a sample set of a table. */
export const copyTableSchema = z.strictObject({
  title,
  /** True for made-up names and addresses in place of the real ones. */
  disguise: z.boolean(),
});
export type CopyTable = z.infer<typeof copyTableSchema>;

/** The sample set that becomes a template's own; null for none. */
export const ownSetSchema = z.strictObject({ table: z.string().max(60).nullable() });

/** A line of the list of tables. */
export const tableSummarySchema = z.strictObject({
  id: z.string(),
  use: useSchema,
  title: z.string(),
  rows: z.number(),
  /** Of its columns. */
  keys: z.array(z.string()).readonly(),
  revision: z.number(),
  updatedAt: z.string(),
  /** Templates whose own set it is. */
  ownOf: z.array(z.string()).readonly(),
  /** Of recipient lists: whose it is, and the day after which its rows go. */
  owner: z.string().optional(),
  keepUntil: z.string().optional(),
  /** Of recipient lists: the folder whose writers may change it too. */
  folder: z.string().optional(),
  /** Whether who asks may change it, and whether they say who else may. */
  mayChange: z.boolean(),
  mayShare: z.boolean(),
});
export type TableSummary = Readonly<z.infer<typeof tableSummarySchema>>;
/** A table, whole. */
export const storedTableSchema = tableSummarySchema.extend({
  columns: z.array(sampleColumnSchema).readonly(),
  /** Columns that are worked out are filled in. */
  cells: z.array(rowSchema).readonly(),
  /** By which each row is meant in changes. */
  positions: z.array(z.number()).readonly(),
  /** What is wrong with columns that are worked out, by key. */
  problems: rowSchema.readonly(),
});
export type StoredTable = Readonly<z.infer<typeof storedTableSchema>>;

/** What was recognised in a file before anything is taken from it. */
export const recognisedSchema = z.strictObject({
  format: z.enum(['CSV', 'JSON', 'vCard', 'Workbook']),
  separator: z.string().optional(),
  encoding: z.string(),
  columns: z
    .array(
      z.strictObject({
        ...columnSchema.omit({ value: true }).shape,
        doubtful: z.array(z.string()).readonly(),
        misfits: z.number(),
        empty: z.number(),
        distinct: z.number(),
        shortest: z.number(),
        longest: z.number(),
        examples: z.array(z.string()).readonly(),
        /** Where rows are added to a set: the key of the column it would go into, and what speaks for it. */
        into: z.string().optional(),
        by: z.enum(['name', 'likeness', 'content']).optional(),
      }),
    )
    .readonly(),
  rows: z.number(),
  notes: z.array(z.string()).readonly(),
});
export type Recognised = Readonly<z.infer<typeof recognisedSchema>>;

/** A person found in a recipient list. */
export const recipientHitSchema = z.strictObject({
  table: z.string(),
  list: z.string(),
  name: z.string(),
  email: z.string(),
  fields: rowSchema,
});
export type RecipientHit = Readonly<z.infer<typeof recipientHitSchema>>;
