/** Reads the first sheet of a workbook (.xlsx, ISO/IEC 29500). */
import { zipSync, type Unzipped } from 'fflate';
import { readSheet } from 'read-excel-file/universal';
import { PackedProblem, unpackWithin } from '../zip/index.js';

/** The most that a workbook may unpack to, in bytes. */
const MAX_UNPACKED = 80_000_000;
/** The most rows, columns and cells of a sheet, empty ones between them included. */
const MOST = { rows: 200_000, columns: 1000, cells: 3_000_000 };

/** Why a workbook cannot be read, in words. */
export class WorkbookProblem extends Error {}

/** True for bytes that begin as a packed file does. */
export const isPacked = (bytes: Uint8Array): boolean => bytes[0] === 0x50 && bytes[1] === 0x4b;

/**
 * The cells of the first sheet as text: days in ISO form, numbers with a point. Formulas give the value that was stored.
 * @throws WorkbookProblem
 */
export async function readWorkbook(bytes: Uint8Array): Promise<string[][]> {
  const parts = await unpack(bytes);
  if (!parts['xl/workbook.xml']) throw new WorkbookProblem('This is a packed file, but not a workbook (.xlsx).');
  demandBounded(parts);
  let rows: unknown[][];
  try {
    // Packed again from parts of known size, so that the reader unpacks no more than was measured.
    const measured = zipSync(parts, { level: 0 });
    rows = (await readSheet(new Blob([measured as Uint8Array<ArrayBuffer>]))) as unknown[][];
  } catch {
    throw new WorkbookProblem('This workbook cannot be read.');
  }
  return rows.map((row) => row.map(cellText));
}

/**
 * Looks at every cell's address before the reader makes a grid of them: one cell far out would make it as large as all
 * between. Cells without an address stand one after the other.
 */
function demandBounded(parts: Unzipped): void {
  for (const [name, content] of Object.entries(parts)) {
    if (!/^xl\/worksheets\/[^/]*\.xml$/.test(name)) continue;
    const { rows, columns, cells } = extentOf(new TextDecoder().decode(content));
    if (rows > MOST.rows || columns > MOST.columns || rows * columns > MOST.cells || cells > MOST.cells)
      throw new WorkbookProblem(
        `This sheet reaches to row ${rows} and column ${columns}, which is more than is read. Delete what is far out.`,
      );
  }
}

/** How far a sheet reaches, by what its rows and cells say. */
function extentOf(sheet: string): { rows: number; columns: number; cells: number } {
  let [rows, columns, cells, row, column] = [0, 0, 0, 0, 0];
  for (const [, element, attributes = ''] of sheet.matchAll(/<(?:\w{1,20}:)?(row|c)\b([^>]{0,2000})/g)) {
    const address = /\br="([A-Z]{0,3})(\d{0,7})"/.exec(attributes);
    if (element === 'row') {
      row = address ? Number(address[2]) : row + 1;
      column = 0;
    } else {
      cells += 1;
      column = address?.[1] ? columnNumber(address[1]) : column + 1;
      if (address?.[2]) row = Number(address[2]);
    }
    rows = Math.max(rows, row);
    columns = Math.max(columns, column);
  }
  return { rows, columns, cells };
}

/** 1 for A, 27 for AA. */
const columnNumber = (letters: string): number =>
  [...letters].reduce((number, letter) => number * 26 + letter.charCodeAt(0) - 64, 0);

function cellText(cell: unknown): string {
  if (cell === null || cell === undefined) return '';
  if (!(cell instanceof Date)) return String(cell);
  const iso = cell.toISOString();
  return iso.endsWith('T00:00:00.000Z') ? iso.slice(0, 10) : iso.slice(0, 16);
}

/** The parts that cells are made of. */
async function unpack(bytes: Uint8Array): Promise<Unzipped> {
  try {
    return await unpackWithin(bytes, /^(?:\[Content_Types\]\.xml|_rels\/|xl\/(?!media|drawings))/, MAX_UNPACKED);
  } catch (problem) {
    if (!(problem instanceof PackedProblem)) throw problem;
    throw new WorkbookProblem(
      problem.why === 'too large'
        ? `This workbook unpacks to more than ${MAX_UNPACKED / 1_000_000} MB.`
        : 'This packed file is damaged.',
    );
  }
}
