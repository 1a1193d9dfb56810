/** Sample sets and recipient lists: one shape of table with two uses, one importer. */
import type { TableColumn, TableRow } from '@vocabula/core/tables';
import * as z from 'zod';

export const useSchema = z.enum(['sample', 'recipients']);
export type Use = z.infer<typeof useSchema>;

export const importTableSchema = z.strictObject({
  use: useSchema,
  title: z.string().trim().min(1, 'a title is needed').max(200),
  /** Goes on although columns had to be renamed; without it those are refused. */
  accept: z.enum(['true', 'false']).optional(),
});
export const listTablesSchema = z.strictObject({ use: useSchema.optional() });

export interface TableSummary {
  readonly id: string;
  readonly use: Use;
  readonly title: string;
  readonly rows: number;
  readonly updatedAt: string;
}
export interface StoredTable extends TableSummary {
  readonly columns: readonly TableColumn[];
  readonly cells: readonly TableRow[];
}

/** What was recognised in a file before anything is taken from it. */
export interface Recognised {
  readonly format: string;
  readonly separator: string | undefined;
  readonly encoding: string;
  readonly columns: readonly (TableColumn & {
    readonly empty: number;
    readonly distinct: number;
    readonly longest: number;
    readonly examples: readonly string[];
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
