/** Tables of recipients: read from CSV, JSON, vCard or a workbook, written as CSV or JSON (format notes). */
import { isVcard, readVcards } from '../vcard/index.js';
import { readCsv, tableOfGrid } from './csv.js';
import { decode } from './decode.js';
import { readJson } from './json.js';
import { TableProblem, type ColumnChoices, type Table } from './table.js';

export { COLUMN_TYPES, type ColumnType } from '../../template/variable.js';
export type { ColumnChoice } from './columns.js';
export { writeCsv } from './csv.js';
export { decode as decodeText, type Encoding } from './decode.js';
export { writeJson } from './json.js';
export { matchColumns, type Match } from './match.js';
export * from './table.js';

/**
 * Reads a table of text: CSV, JSON or vCard.
 * @throws TableProblem with words and a line
 */
export function readTable(bytes: Uint8Array, choices: ColumnChoices = {}): Table {
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
  if (isVcard(text)) return tableOfCards(text, { format: 'vCard', separator: undefined, encoding }, choices);
  return /^\s*\[/.test(text) ? readJson(text, encoding, choices) : readCsv(text, encoding, choices);
}

function tableOfCards(text: string, recognised: Table['recognised'], choices: ColumnChoices): Table {
  let grid: string[][];
  try {
    grid = readVcards(text);
  } catch (problem) {
    const line = /line (\d+)/.exec(String(problem))?.[1];
    throw new TableProblem('These address cards cannot be read.', line === undefined ? undefined : Number(line));
  }
  return tableOfGrid(grid, (row) => row, recognised, choices);
}
