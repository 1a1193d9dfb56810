/** Reads the first sheet of a workbook (.xlsx, ISO/IEC 29500). */
import { zipSync, type Unzipped } from 'fflate';
import { readSheet } from 'read-excel-file/universal';
import { PackedProblem, unpackWithin } from '../zip/index.js';

/** The most that a workbook may unpack to, in bytes. */
const MAX_UNPACKED = 200_000_000;

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
