/** What a table is, and how one is made of names and cells. */
import { columnKey } from '../../template/keys.js';
import type { ColumnType } from '../../template/variable.js';
import { recogniseColumn, type ColumnChoice } from './columns.js';
import type { Encoding } from './decode.js';

/** A column: its key, the name it had in the file, and its type. */
export interface TableColumn {
  readonly key: string;
  readonly name: string;
  readonly type: ColumnType;
}

/** A row by column key; every cell is text in the form of answers, and empty if there is nothing. */
export type TableRow = Readonly<Record<string, string>>;

/** How a column was recognised. */
export interface RecognisedColumn extends TableColumn {
  /** Cells of dates whose day and month could be either; none where there is no doubt. */
  readonly doubtful: readonly string[];
  /** How many filled cells are not of the type. */
  readonly misfits: number;
}

/** A table as it was read from a file, with how the file was recognised. */
export interface Table {
  readonly columns: readonly RecognisedColumn[];
  readonly rows: readonly TableRow[];
  readonly recognised: {
    readonly format: 'CSV' | 'JSON' | 'vCard' | 'Workbook';
    readonly separator: 'comma' | 'semicolon' | 'tab' | undefined;
    readonly encoding: Encoding;
  };
  /** What was put right on the way, in words; a careful importer shows it before going on. */
  readonly notes: readonly string[];
}

/** What an importer decides about columns, by their keys. */
export type ColumnChoices = Readonly<Record<string, ColumnChoice>>;

/** Why a file cannot be read as a table, with the line where there is one. */
export class TableProblem extends Error {
  constructor(
    message: string,
    readonly line?: number,
  ) {
    super(message);
  }
}

/** The most columns that a table may have. */
export const MAX_COLUMNS = 500;
/** The most rows that a table may have. */
export const MAX_ROWS = 100_000;
/** The most characters that a cell may have. */
export const MAX_CELL = 100_000;
/** Rows times columns: what keeps the memory that a table takes within bounds. */
export const MAX_CELLS = 5_000_000;

/**
 * Makes a table: columns get keys and types, cells the form of answers.
 * @throws TableProblem where there is more than is taken
 */
export function makeTable(
  names: readonly string[],
  rows: readonly { readonly cells: readonly string[]; readonly line: number }[],
  recognised: Table['recognised'],
  choices: ColumnChoices = {},
): Table {
  if (names.length === 0) throw new TableProblem('There are no columns.');
  if (names.length > MAX_COLUMNS)
    throw new TableProblem(`There are ${names.length} columns; ${MAX_COLUMNS} at most are read.`);
  if (rows.length > MAX_ROWS) throw new TableProblem(`There are ${rows.length} rows; ${MAX_ROWS} at most are read.`);
  if (rows.length * names.length > MAX_CELLS)
    throw new TableProblem(
      `There are ${rows.length} rows of ${names.length} columns; ${MAX_CELLS / 1_000_000} million cells at most are read.`,
    );
  const long = rows.find(({ cells }) => cells.some((cell) => cell.length > MAX_CELL));
  if (long) throw new TableProblem(`A cell has more than ${MAX_CELL} characters.`, long.line);
  const taken = new Set<string>();
  const notes: string[] = [];
  const seen = new Set<string>();
  const forms = names.map((raw, index) => {
    const name = raw.trim();
    const key = columnKey(name, index, taken);
    if (name === '') notes.push(`Column ${index + 1} has no name; it becomes “${key}”.`);
    else if (seen.has(name.toLowerCase()))
      notes.push(`There is more than one column “${name}”; this one becomes “${key}”.`);
    seen.add(name.toLowerCase());
    const form = recogniseColumn(
      rows.map(({ cells }) => cells[index] ?? ''),
      choices[key],
    );
    return { key, name: name || key, form };
  });
  return {
    columns: forms.map(({ key, name, form: { type, doubtful, misfits } }) => ({ key, name, type, doubtful, misfits })),
    rows: rows.map(({ cells }) =>
      Object.fromEntries(forms.map(({ key, form }, index) => [key, form.rewrite(cells[index] ?? '')])),
    ),
    recognised,
    notes,
  };
}
