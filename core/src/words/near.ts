/** Words and texts that are nearly the same. */

/**
 * Whether a word becomes another by so many slips at most: a letter more, a letter less, another letter, or two
 * neighbours changed round (the restricted edit distance of Damerau, 1964, and Levenshtein, 1966). Work grows with
 * the shorter length times `slips`.
 */
export function near(a: string, b: string, slips: number): boolean {
  const [x, y] = [[...a], [...b]];
  if (Math.abs(x.length - y.length) > slips) return false;
  const far = slips + 1;
  let before: number[] = [];
  let above = Array.from({ length: y.length + 1 }, (_, at) => at);
  for (let i = 1; i <= x.length; i += 1) {
    const row = [i, ...Array<number>(y.length).fill(far)];
    for (let j = Math.max(1, i - slips); j <= Math.min(y.length, i + slips); j += 1) {
      const cost = x[i - 1] === y[j - 1] ? 0 : 1;
      let least = Math.min((above[j] ?? far) + 1, (row[j - 1] ?? far) + 1, (above[j - 1] ?? far) + cost);
      if (i > 1 && j > 1 && x[i - 1] === y[j - 2] && x[i - 2] === y[j - 1])
        least = Math.min(least, (before[j - 2] ?? far) + 1);
      row[j] = least;
    }
    [before, above] = [above, row];
  }
  return (above[y.length] ?? far) <= slips;
}

/** How many words of a text make one shingle. */
const WORDS = 3;

/** The runs of three words of a text, as hashes (FNV-1a); of a shorter text all its words at once. */
export function shinglesOf(words: readonly string[]): Set<number> {
  const shingles = new Set<number>();
  const last = Math.max(0, words.length - WORDS);
  if (words.length === 0) return shingles;
  for (let at = 0; at <= last; at += 1) shingles.add(hash(words.slice(at, at + WORDS).join(' ')));
  return shingles;
}

/** How much two sets of shingles share, from 0 to 1 (A. Broder, On the resemblance of documents, 1997). */
export function likeness(a: ReadonlySet<number>, b: ReadonlySet<number>): number {
  const [small, large] = a.size <= b.size ? [a, b] : [b, a];
  let shared = 0;
  for (const each of small) if (large.has(each)) shared += 1;
  const all = a.size + b.size - shared;
  return all === 0 ? 0 : shared / all;
}

function hash(text: string): number {
  let value = 0x811c9dc5;
  for (let at = 0; at < text.length; at += 1) value = Math.imul(value ^ text.charCodeAt(at), 0x01000193);
  return value >>> 0;
}
