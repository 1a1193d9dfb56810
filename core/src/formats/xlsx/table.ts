/** Tables from any file, workbooks among them. Kept apart: reading a workbook brings code that text does not need. */
import { readTable, TableProblem, type ColumnChoices, type Table } from '../table/index.js';
import { tableOfGrid } from '../table/csv.js';
import { isPacked, readWorkbook, WorkbookProblem } from './index.js';

/**
 * Reads a table from CSV, JSON, vCard or the first sheet of a workbook.
 * @throws TableProblem with words and a line, or a row of the sheet
 */
export async function readAnyTable(bytes: Uint8Array, choices: ColumnChoices = {}): Promise<Table> {
  if (!isPacked(bytes)) return readTable(bytes, choices);
  try {
    const grid = await readWorkbook(bytes);
    const width = Math.max(0, ...grid.map((row) => row.length));
    const even = grid.map((row) => [...row, ...Array.from({ length: width - row.length }, () => '')]);
    return tableOfGrid(
      even,
      (row) => row + 1,
      { format: 'Workbook', separator: undefined, encoding: 'UTF-8' },
      choices,
    );
  } catch (problem) {
    if (problem instanceof WorkbookProblem) throw new TableProblem(problem.message);
    throw problem;
  }
}
