/** Columns of a sample set that are worked out from the others of their row. */
import { compile } from '../../compile/compile.js';
import type { TableColumn, TableRow } from '../../formats/table/table.js';
import { emptyDocument } from '../../template/document.js';
import type { Variable } from '../../template/variable.js';
import { valuesOf } from '../../render/render.js';
import type { Value } from '../../values/index.js';

/** A column of a sample set; with an expression it is calculated from the others. */
export interface SampleColumn extends TableColumn {
  /** An expression over the other columns; makes the column worked out. */
  readonly value?: string | undefined;
}

/** Rows with their calculated cells filled in. */
export interface Computed {
  readonly rows: readonly TableRow[];
  /** What is wrong with a column's expression, by the column's key. */
  readonly problems: Readonly<Record<string, string>>;
}

/**
 * Fills in the cells of columns that are worked out; a cell that cannot be told is empty.
 * @param today ISO day, for expressions that ask for it
 */
export function withComputed(
  columns: readonly SampleColumn[],
  rows: readonly TableRow[],
  today: string,
  locale = 'en-GB',
): Computed {
  const worked = columns.filter(({ value }) => value !== undefined);
  if (worked.length === 0) return { rows, problems: {} };
  const variables = columns.map(({ key, name, type, value }): Variable => ({
    key,
    type,
    label: name,
    ...(value === undefined ? { from: `recipient.${key}` } : { value }),
  }));
  const front = { kind: 'block' as const, title: 'columns', locale };
  const document = emptyDocument(front as Parameters<typeof emptyDocument>[0]);
  const program = compile(
    { name: 'columns', document: { ...document, attrs: { ...document.attrs, variables } } },
    { library: { get: () => undefined }, today },
  );
  const problems: Record<string, string> = {};
  for (const { level, message, place } of program.findings)
    if (level === 'error' && place.variable !== undefined) problems[place.variable] ??= message;
  const keys = new Set(worked.map(({ key }) => key));
  return {
    problems,
    rows: rows.map((row) => {
      const cells: Record<string, string> = { ...row };
      for (const { slot, value } of valuesOf(program, { recipient: row, today }))
        if (keys.has(slot.key)) cells[slot.key] = cellOf(value);
      return cells;
    }),
  };
}

const cellOf = (value: Value | undefined): string =>
  value === undefined || typeof value === 'object' ? '' : String(value);
