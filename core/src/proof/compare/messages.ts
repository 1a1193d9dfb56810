/** Two messages beside each other, paragraph by paragraph and word by word. */
import { compareWords, type Run } from '../../words/compare.js';

/** A paragraph of one side, or the same paragraph of both. */
export interface ComparedParagraph {
  readonly left: string | undefined;
  readonly right: string | undefined;
  /** In reading order; see `compareWords`. */
  readonly runs: readonly Run[];
  /** Numbers of the changes that begin here, from 1; none where both sides are the same. */
  readonly changes: readonly number[];
}

/** Words that two paragraphs must share to be taken for one that was changed, as a part of the shorter's. */
const ALIKE = 0.34;

/**
 * Brings the paragraphs of two messages level. Equal ones are found first, in order (Needleman and Wunsch, 1970, with
 * the words that two paragraphs share as their likeness); what has no partner stands alone.
 */
export function compareMessages(
  left: readonly string[],
  right: readonly string[],
  locale?: string,
): ComparedParagraph[] {
  let change = 0;
  return level(left, right).map(([a, b]) => {
    const runs = compareWords(a ?? '', b ?? '', locale);
    const changes: number[] = [];
    runs.forEach(({ in: side }, at) => {
      if (side !== 'both' && (at === 0 || runs[at - 1]?.in === 'both')) changes.push((change += 1));
    });
    return { left: a, right: b, runs, changes };
  });
}

type Pair = readonly [left: string | undefined, right: string | undefined];

function level(left: readonly string[], right: readonly string[]): Pair[] {
  let start = 0;
  while (start < left.length && start < right.length && left[start] === right[start]) start += 1;
  let end = 0;
  while (
    end < left.length - start &&
    end < right.length - start &&
    left[left.length - 1 - end] === right[right.length - 1 - end]
  )
    end += 1;
  const same = (from: number, to?: number): Pair[] => left.slice(from, to).map((each): Pair => [each, each]);
  const [a, b] = [left.slice(start, left.length - end), right.slice(start, right.length - end)];
  return [...same(0, start), ...align(a, b), ...(end > 0 ? same(left.length - end) : [])];
}

function align(a: readonly string[], b: readonly string[]): Pair[] {
  // Very many that differ are put side by side as they come: nobody reads such a comparison word by word.
  if (a.length * b.length > 250_000)
    return Array.from({ length: Math.max(a.length, b.length) }, (_, at): Pair => [a[at], b[at]]);
  const words = [a.map(wordSet), b.map(wordSet)] as const;
  const likeness = (i: number, j: number): number =>
    a[i] === b[j] ? 1.5 : shared(words[0][i] as Set<string>, words[1][j] as Set<string>);
  const width = b.length + 1;
  const best = new Float64Array((a.length + 1) * width);
  const likes = new Float64Array(a.length * b.length);
  for (let i = a.length - 1; i >= 0; i -= 1)
    for (let j = b.length - 1; j >= 0; j -= 1) {
      const alike = likeness(i, j);
      likes[i * b.length + j] = alike;
      best[i * width + j] = Math.max(
        best[(i + 1) * width + j] ?? 0,
        best[i * width + j + 1] ?? 0,
        alike >= ALIKE ? alike + (best[(i + 1) * width + j + 1] ?? 0) : 0,
      );
    }
  const pairs: Pair[] = [];
  let [i, j] = [0, 0];
  while (i < a.length || j < b.length) {
    const alike = i < a.length && j < b.length ? (likes[i * b.length + j] ?? 0) : 0;
    const here = best[i * width + j] ?? 0;
    if (alike >= ALIKE && here === alike + (best[(i + 1) * width + j + 1] ?? 0)) pairs.push([a[i++], b[j++]]);
    else if (j >= b.length || (i < a.length && here === (best[(i + 1) * width + j] ?? 0)))
      pairs.push([a[i++], undefined]);
    else pairs.push([undefined, b[j++]]);
  }
  return pairs;
}

const wordSet = (text: string): Set<string> => new Set(text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? []);

function shared(a: ReadonlySet<string>, b: ReadonlySet<string>): number {
  if (a.size === 0 || b.size === 0) return 0;
  let both = 0;
  for (const word of a) if (b.has(word)) both += 1;
  return both / Math.min(a.size, b.size);
}
