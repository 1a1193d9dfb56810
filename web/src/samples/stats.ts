/** What a column holds, in a few words. */
export interface ColumnStats {
  readonly empty: number;
  readonly distinct: number;
  readonly shortest: number;
  readonly longest: number;
}

/** Counts cells; lengths are in letters as a reader sees them. */
export function statsOf(cells: readonly string[]): ColumnStats {
  const seen = new Map<string, number>();
  let empty = 0;
  for (const cell of cells) {
    if (cell === '') empty += 1;
    else if (!seen.has(cell)) seen.set(cell, lengthOf(cell));
  }
  let [shortest, longest] = [Infinity, 0];
  for (const length of seen.values()) {
    shortest = Math.min(shortest, length);
    longest = Math.max(longest, length);
  }
  return { empty, distinct: seen.size, shortest: seen.size > 0 ? shortest : 0, longest };
}

const segmenter = new Intl.Segmenter('en', { granularity: 'grapheme' });
/** Plain letters are counted at once: most cells hold nothing else. */
const lengthOf = (text: string): number =>
  /^[\x20-\x7E\u00A0-\u02FF]*$/.test(text) ? text.length : [...segmenter.segment(text)].length;

export const statsInWords = ({ empty, distinct, shortest, longest }: ColumnStats): string =>
  `${empty} empty · ${distinct} distinct · ${shortest === longest ? longest : `${shortest}–${longest}`} long`;

/** Rows and cells of what was copied from a spreadsheet: tabs between cells, lines between rows. */
export function gridOf(text: string): string[][] {
  const lines = text.replace(/\r\n?/g, '\n').replace(/\n$/, '').split('\n');
  return lines.map((line) => line.split('\t'));
}
