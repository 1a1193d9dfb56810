/** Reads the first sheet of a workbook (.xlsx, ISO/IEC 29500). */
import { unzip, zipSync, type Unzipped } from 'fflate';
import { readSheet } from 'read-excel-file/universal';

/** The most that a workbook may unpack to, in bytes, and the most parts it may have. */
const MAX_UNPACKED = 200_000_000;
const MAX_PARTS = 2000;

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

/** The parts that cells are made of. Sizes are those that were found, never those that the file declares. */
function unpack(bytes: Uint8Array): Promise<Unzipped> {
  let total = 0;
  let count = 0;
  let tooLarge = false;
  return new Promise((resolve, reject) => {
    unzip(
      bytes,
      {
        filter: ({ name, originalSize }) => {
          if (!/^(?:\[Content_Types\]\.xml|_rels\/|xl\/(?!media|drawings))/.test(name)) return false;
          total += originalSize;
          count += 1;
          if (total > MAX_UNPACKED || count > MAX_PARTS) tooLarge = true;
          return !tooLarge;
        },
      },
      (problem, parts) => {
        if (tooLarge) reject(new WorkbookProblem(`This workbook unpacks to more than ${MAX_UNPACKED / 1_000_000} MB.`));
        else if (problem) reject(new WorkbookProblem('This packed file is damaged.'));
        else resolve(parts);
      },
    );
  });
}
