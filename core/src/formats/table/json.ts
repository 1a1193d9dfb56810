/** Tables as JSON: a list of objects, in and out. */
import { unformulated } from './csv.js';
import type { Encoding } from './decode.js';
import { makeTable, TableProblem, type ColumnChoices, type Table, type TableRow } from './table.js';

/** Reads a list of objects as a table. @throws TableProblem where it is none */
export function readJson(text: string, encoding: Encoding, choices: ColumnChoices): Table {
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
  return makeTable(
    names,
    data.map((row: Record<string, unknown>, index) => ({
      cells: names.map((name) => cell(row[name])),
      line: index + 1,
    })),
    { format: 'JSON', separator: undefined, encoding },
    choices,
  );
}

/**
 * Writes a table as JSON by the names of its columns. A spreadsheet that opens JSON runs formulas as well as one that
 * opens CSV, so the same cells get the apostrophe.
 */
export function writeJson(
  columns: readonly { readonly key: string; readonly name: string }[],
  rows: readonly TableRow[],
): string {
  return `${JSON.stringify(
    rows.map((row) => Object.fromEntries(columns.map(({ key, name }) => [name, unformulated(row[key] ?? '')]))),
    null,
    1,
  )}\n`;
}
