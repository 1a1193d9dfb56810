/** Sample sets and recipient lists: one shape of table with two uses, one importer. */
import type { RecognisedColumn, Table, TableRow } from '@vocabula/core/tables';
import type { SampleColumn } from '@vocabula/core/proof';
import * as z from 'zod';
import { nameSchema } from './texts.js';

export const useSchema = z.enum(['sample', 'recipients']);
export type Use = z.infer<typeof useSchema>;

const title = z.string().trim().min(1, 'a title is needed').max(200);
const key = z
  .string()
  .regex(/^[a-z][a-z0-9_]*$/, 'a key has small letters, digits and underscores')
  .max(60);
const cell = z.string().max(100_000);
const columnType = z.enum(['text', 'number', 'date', 'yes-no', 'email', 'phone', 'link']);

/** What is decided about the columns of a file, by key. */
const choicesSchema = z.record(
  key,
  z.strictObject({
    type: columnType.optional(),
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

export const recogniseSchema = z.strictObject({
  choices: choicesInAddress,
  /** The set that the rows may be added to: columns are matched to its. */
  into: z.string().max(60).optional(),
});
export const importTableSchema = z.strictObject({
  use: useSchema,
  title,
  /** Goes on although columns had to be renamed; without it those are refused. */
  accept: z.enum(['true', 'false']).optional(),
  choices: choicesInAddress,
});
export const addRowsSchema = z.strictObject({
  revision: z.coerce.number().int().min(0).default(0),
  choices: choicesInAddress,
});
export const listTablesSchema = z.strictObject({ use: useSchema.optional() });

const columnSchema = z.strictObject({
  key,
  name: z.string().trim().min(1).max(200),
  type: columnType,
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
export type TableChange = ChangeTable['changes'][number];

export const copyTableSchema = z.strictObject({
  title,
  /** True for made-up names and addresses in place of the real ones. */
  disguise: z.boolean(),
});
export type CopyTable = z.infer<typeof copyTableSchema>;

export const ownSetSchema = z.strictObject({ table: z.string().max(60).nullable() });

export interface TableSummary {
  readonly id: string;
  readonly use: Use;
  readonly title: string;
  readonly rows: number;
  readonly revision: number;
  readonly updatedAt: string;
  /** Templates whose own set it is. */
  readonly ownOf: readonly string[];
  /** Of recipient lists: whose it is, and the day after which its rows go. */
  readonly owner: string | undefined;
  readonly keepUntil: string | undefined;
  /** Of recipient lists: the folder whose writers may change it too. */
  readonly folder: string | undefined;
  /** Whether who asks may change it, and whether they say who else may. */
  readonly mayChange: boolean;
  readonly mayShare: boolean;
}
export interface StoredTable extends TableSummary {
  readonly columns: readonly SampleColumn[];
  /** Columns that are worked out are filled in. */
  readonly cells: readonly TableRow[];
  /** By which each row is meant in changes. */
  readonly positions: readonly number[];
  /** What is wrong with columns that are worked out, by key. */
  readonly problems: Readonly<Record<string, string>>;
}

/** What was recognised in a file before anything is taken from it. */
export interface Recognised {
  readonly format: Table['recognised']['format'];
  readonly separator: string | undefined;
  readonly encoding: string;
  readonly columns: readonly (RecognisedColumn & {
    readonly empty: number;
    readonly distinct: number;
    readonly shortest: number;
    readonly longest: number;
    readonly examples: readonly string[];
    /** Where rows are added to a set: the key of the column it would go into, and what speaks for it. */
    readonly into?: string | undefined;
    readonly by?: 'name' | 'likeness' | 'content' | undefined;
  })[];
  readonly rows: number;
  readonly notes: readonly string[];
}

/** A person found in a recipient list. */
export interface RecipientHit {
  readonly table: string;
  readonly list: string;
  readonly name: string;
  readonly email: string;
  readonly fields: TableRow;
}
