/** Tables of recipients: read from CSV or JSON, written as CSV (format notes). */
import Papa from 'papaparse';
import { columnKey } from '../../template/keys.js';
import { COLUMN_TYPES, recogniseColumn, type ColumnType } from './columns.js';
import { decode, type Encoding } from './decode.js';

export { COLUMN_TYPES, type ColumnType } from './columns.js';
export { decode as decodeText, type Encoding } from './decode.js';

export interface TableColumn {
  readonly key: string;
  readonly name: string;
  readonly type: ColumnType;
}

/** A row by column key; every cell is text in the form of answers, and empty if there is nothing. */
export type TableRow = Readonly<Record<string, string>>;

export interface Table {
  readonly columns: readonly TableColumn[];
  readonly rows: readonly TableRow[];
  readonly recognised: {
    readonly format: 'CSV' | 'JSON';
    readonly separator: 'comma' | 'semicolon' | 'tab' | undefined;
    readonly encoding: Encoding;
  };
  /** What was put right on the way, in words; a careful importer shows it before going on. */
  readonly notes: readonly string[];
}

/** Why a file cannot be read as a table, with the line where there is one. */
export class TableProblem extends Error {
  constructor(
    message: string,
    readonly line?: number,
  ) {
    super(message);
  }
}

const SEPARATORS = { ',': 'comma', ';': 'semicolon', '\t': 'tab' } as const;
export const MAX_COLUMNS = 500;
export const MAX_ROWS = 100_000;
export const MAX_CELL = 100_000;

/**
 * Reads a table.
 * @throws TableProblem with words and a line
 */
export function readTable(bytes: Uint8Array): Table {
  if (bytes.length === 0) throw new TableProblem('The file is empty.');
  if (bytes[0] === 0x50 && bytes[1] === 0x4b)
    throw new TableProblem('This is a spreadsheet or another packed file, not CSV. Save it as CSV first.');
  if (bytes[0] === 0xd0 && bytes[1] === 0xcf)
    throw new TableProblem('This is an old spreadsheet, not CSV. Save it as CSV first.');
  const { text, encoding } = decode(bytes);
  const nul = text.indexOf('\0');
  if (nul >= 0)
    throw new TableProblem(
      'There is a NUL byte here, so this is not a text file.',
      text.slice(0, nul).split('\n').length,
    );
  if (text.trim() === '') throw new TableProblem('The file is empty.');
  return /^\s*\[/.test(text) ? readJson(text, encoding) : readCsv(text, encoding);
}

function readCsv(text: string, encoding: Encoding): Table {
  const separator = findSeparator(text);
  const { data, errors } = Papa.parse<string[]>(text, { delimiter: separator, skipEmptyLines: false });
  const lineOf = lineCounter(data);
  const broken = errors.find((error) => error.type === 'Quotes');
  if (broken)
    throw new TableProblem('A quotation mark is not closed, or stands where none may.', lineOf(broken.row ?? 0));
  const isBlank = (cells: readonly string[]): boolean => cells.every((cell) => cell.trim() === '');
  const headAt = data.findIndex((cells) => !isBlank(cells));
  const head = data[headAt] ?? [];
  // Cells that spreadsheets leave behind the last column, in every row, are no columns.
  let width = head.length;
  while (
    width > 0 &&
    (head[width - 1] ?? '').trim() === '' &&
    data.every((cells) => (cells[width - 1] ?? '').trim() === '')
  )
    width -= 1;
  const body = data
    .map((cells, index) => ({ cells, index }))
    .slice(headAt + 1)
    .filter(({ cells }) => !isBlank(cells));
  const ragged = body.filter(
    ({ cells }) => cells.length < width || cells.slice(width).some((cell) => cell.trim() !== ''),
  );
  const [first] = ragged;
  if (first) {
    const others = ragged.length > 1 ? ` (and ${ragged.length - 1} more ${ragged.length === 2 ? 'row' : 'rows'})` : '';
    throw new TableProblem(
      `This row has ${first.cells.length} cells, and the first row has ${width}${others}.`,
      lineOf(first.index),
    );
  }
  if (body.length > MAX_ROWS) throw new TableProblem(`There are ${body.length} rows; ${MAX_ROWS} at most are read.`);
  return build(
    head.slice(0, width),
    body.map(({ cells, index }) => ({ cells, line: lineOf(index) })),
    { format: 'CSV', separator: SEPARATORS[separator], encoding },
  );
}

/** The separator that cuts the first lines most evenly. A single column has a comma. */
function findSeparator(text: string): keyof typeof SEPARATORS {
  const sample = text.slice(0, 20_000);
  const scores = (Object.keys(SEPARATORS) as (keyof typeof SEPARATORS)[]).map((separator) => {
    const rows = Papa.parse<string[]>(sample, { delimiter: separator, preview: 12 }).data.filter((cells) =>
      cells.some((cell) => cell.trim() !== ''),
    );
    const width = rows[0]?.length ?? 1;
    const even = rows.filter((cells) => cells.length === width).length / Math.max(1, rows.length);
    return { separator, score: width > 1 ? even * 100 + Math.min(width, 50) : 0 };
  });
  return scores.reduce((best, each) => (each.score > best.score ? each : best)).separator;
}

/** Lines of rows, which quoted line breaks push on. */
function lineCounter(data: readonly (readonly string[])[]): (row: number) => number {
  const starts = [1];
  for (const cells of data)
    starts.push((starts.at(-1) ?? 1) + 1 + cells.reduce((sum, cell) => sum + (cell.match(/\n/g)?.length ?? 0), 0));
  return (row) => starts[Math.min(row, starts.length - 1)] ?? 1;
}

function readJson(text: string, encoding: Encoding): Table {
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch (error) {
    throw new TableProblem(`This is not JSON: ${error instanceof Error ? error.message : 'unreadable'}`);
  }
  if (!Array.isArray(data) || !data.every((row) => typeof row === 'object' && row !== null && !Array.isArray(row)))
    throw new TableProblem('A table in JSON is a list of objects.');
  const names = [...new Set(data.flatMap((row: object) => Object.keys(row)))];
  const cell = (value: unknown): string =>
    value === null || value === undefined ? '' : typeof value === 'object' ? JSON.stringify(value) : String(value);
  return build(
    names,
    data.map((row: Record<string, unknown>, index) => ({
      cells: names.map((name) => cell(row[name])),
      line: index + 1,
    })),
    { format: 'JSON', separator: undefined, encoding },
  );
}

function build(
  names: readonly string[],
  rows: readonly { readonly cells: readonly string[]; readonly line: number }[],
  recognised: Table['recognised'],
): Table {
  if (names.length === 0) throw new TableProblem('There are no columns.');
  if (names.length > MAX_COLUMNS)
    throw new TableProblem(`There are ${names.length} columns; ${MAX_COLUMNS} at most are read.`);
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
    return { key, name: name || key, form: recogniseColumn(rows.map(({ cells }) => cells[index] ?? '')) };
  });
  return {
    columns: forms.map(({ key, name, form }) => ({ key, name, type: form.type })),
    rows: rows.map(({ cells }) =>
      Object.fromEntries(forms.map(({ key, form }, index) => [key, form.rewrite(cells[index] ?? '')])),
    ),
    recognised,
    notes,
  };
}

/** Writes a table as CSV (RFC 4180); a cell that a spreadsheet would run as a formula gets an apostrophe before it. */
export function writeCsv(
  columns: readonly { readonly key: string; readonly name: string }[],
  rows: readonly TableRow[],
): string {
  const safe = (cell: string): string =>
    /^[=+\-@\t\r]/.test(cell) && !/^[+-]?\d+([.,]\d+)?$/.test(cell) ? `'${cell}` : cell;
  return `${Papa.unparse([columns.map((column) => safe(column.name)), ...rows.map((row) => columns.map((column) => safe(row[column.key] ?? '')))], { newline: '\r\n' })}\r\n`;
}

/** True for a name of a column type. */
export const isColumnType = (type: string): type is ColumnType => (COLUMN_TYPES as readonly string[]).includes(type);
