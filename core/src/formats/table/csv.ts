/** CSV (RFC 4180) with any of the usual separators, in and out. */
import Papa from 'papaparse';
import type { Encoding } from './decode.js';
import { makeTable, TableProblem, type ColumnChoices, type Table, type TableRow } from './table.js';

const SEPARATORS = { ',': 'comma', ';': 'semicolon', '\t': 'tab' } as const;

/** Reads CSV; the first row that is not blank names the columns. */
export function readCsv(text: string, encoding: Encoding, choices: ColumnChoices): Table {
  const separator = findSeparator(text);
  const { data, errors } = Papa.parse<string[]>(text, { delimiter: separator, skipEmptyLines: false });
  const lineOf = lineCounter(data);
  const broken = errors.find((error) => error.type === 'Quotes');
  if (broken)
    throw new TableProblem('A quotation mark is not closed, or stands where none may.', lineOf(broken.row ?? 0));
  return tableOfGrid(data, lineOf, { format: 'CSV', separator: SEPARATORS[separator], encoding }, choices);
}

/** A table of rows of cells, the names of the columns in the first that is not blank. */
export function tableOfGrid(
  data: readonly (readonly string[])[],
  lineOf: (row: number) => number,
  recognised: Table['recognised'],
  choices: ColumnChoices,
): Table {
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
  return makeTable(
    head.slice(0, width),
    body.map(({ cells, index }) => ({ cells, line: lineOf(index) })),
    recognised,
    choices,
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

/** Writes a table as CSV (RFC 4180); a cell that a spreadsheet would run as a formula gets an apostrophe before it. */
export function writeCsv(
  columns: readonly { readonly key: string; readonly name: string }[],
  rows: readonly TableRow[],
): string {
  const cells = rows.map((row) => columns.map((column) => unformulated(row[column.key] ?? '')));
  return `${Papa.unparse([columns.map((column) => unformulated(column.name)), ...cells], { newline: '\r\n' })}\r\n`;
}

/** A cell as a spreadsheet will show it, rather than run it. */
export const unformulated = (cell: string): string =>
  /^[=+\-@\t\r]/.test(cell) && !/^[+-]?\d+([.,]\d+)?$/.test(cell) ? `'${cell}` : cell;
