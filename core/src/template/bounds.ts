/** How large a text may be. Everything that is done with one costs time for each of its parts, so there are bounds. */

/** The most of each that one text holds. A text of 5,000 words with 200 placeholders has about a tenth of it. */
export const MOST_OF_TEXT = {
  /** Characters of fixed words. */
  characters: 500_000,
  /** Runs of words, placeholders, images and breaks. */
  runs: 6000,
  /** Paragraphs, headings, items, and whatever else is a block. */
  blocks: 4000,
  /** Cells of all tables. */
  cells: 4000,
  /** Places in the grid of one table, cells that span several counted as often. */
  area: 10_000,
} as const;

const RUNS = new Set(['text', 'placeholder', 'hardBreak', 'image', 'inlineInclusion', 'inlineComment']);
const CELLS = new Set(['tableCell', 'tableHeader']);

interface NodeLike {
  readonly type?: unknown;
  readonly text?: unknown;
  readonly attrs?: { readonly colspan?: unknown; readonly rowspan?: unknown };
  readonly content?: unknown;
}

/**
 * What of a text is too much, in words; undefined for one within the bounds. Looks once at each node, and takes any
 * JSON: it is asked before that is known to be a document.
 */
export function beyondBounds(document: unknown): string | undefined {
  let [characters, runs, blocks, cells, area] = [0, 0, 0, 0, 0];
  const left: unknown[] = [document];
  while (left.length > 0) {
    const node = left.pop() as NodeLike | null;
    if (typeof node !== 'object' || node === null) continue;
    const { type, text, content } = node;
    if (typeof text === 'string') characters += text.length;
    if (type === 'table') area = Math.max(area, areaOf(node));
    if (RUNS.has(String(type))) runs += 1;
    else if (CELLS.has(String(type))) cells += 1;
    else blocks += 1;
    if (Array.isArray(content)) for (const child of content) left.push(child);
    if (characters > MOST_OF_TEXT.characters) return words('characters', MOST_OF_TEXT.characters);
    if (runs > MOST_OF_TEXT.runs) return words('runs of words and placeholders', MOST_OF_TEXT.runs);
    if (blocks > MOST_OF_TEXT.blocks + cells) return words('paragraphs', MOST_OF_TEXT.blocks);
    if (cells > MOST_OF_TEXT.cells) return words('table cells', MOST_OF_TEXT.cells);
    if (area > MOST_OF_TEXT.area) return words('places in one table', MOST_OF_TEXT.area);
  }
  return undefined;
}

const words = (what: string, most: number): string =>
  `This text has more than ${most} ${what}, the most that one may have. Divide it into blocks.`;

/** Rows of a table, and those its last cells reach down to, times the columns of its widest row. */
function areaOf({ content }: NodeLike): number {
  const rows = Array.isArray(content) ? (content as NodeLike[]) : [];
  let [columns, height] = [0, rows.length];
  rows.forEach((row, at) => {
    let width = 0;
    for (const cell of Array.isArray(row?.content) ? (row.content as NodeLike[]) : []) {
      width += size(cell?.attrs?.colspan);
      height = Math.max(height, at + size(cell?.attrs?.rowspan));
    }
    columns = Math.max(columns, width);
  });
  return height * columns;
}
const size = (span: unknown): number => (typeof span === 'number' && span > 1 ? span : 1);
