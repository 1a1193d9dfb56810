/** What many sequences have in common, and where each differs. */

/**
 * A longest common subsequence of two (D. Hirschberg, 1975, in its plain form; common ends are taken off first).
 * Work grows with the product of the lengths that remain; beyond `MOST` only the common ends count.
 */
export function commonOf<T>(a: readonly T[], b: readonly T[]): T[] {
  let start = 0;
  while (start < a.length && start < b.length && a[start] === b[start]) start += 1;
  let end = 0;
  while (end < a.length - start && end < b.length - start && a[a.length - 1 - end] === b[b.length - 1 - end]) end += 1;
  const [x, y] = [a.slice(start, a.length - end), b.slice(start, b.length - end)];
  const middle = x.length * y.length > MOST ? [] : longest(x, y);
  return [...a.slice(0, start), ...middle, ...a.slice(a.length - end)];
}

const MOST = 1_000_000;

function longest<T>(x: readonly T[], y: readonly T[]): T[] {
  if (x.length === 0 || y.length === 0) return [];
  const width = y.length + 1;
  const best = new Uint32Array((x.length + 1) * width);
  for (let i = x.length - 1; i >= 0; i -= 1)
    for (let j = y.length - 1; j >= 0; j -= 1)
      best[i * width + j] =
        x[i] === y[j]
          ? (best[(i + 1) * width + j + 1] ?? 0) + 1
          : Math.max(best[(i + 1) * width + j] ?? 0, best[i * width + j + 1] ?? 0);
  const common: T[] = [];
  for (let i = 0, j = 0; i < x.length && j < y.length;) {
    if (x[i] === y[j]) {
      common.push(x[i] as T);
      i += 1;
      j += 1;
    } else if ((best[(i + 1) * width + j] ?? 0) >= (best[i * width + j + 1] ?? 0)) i += 1;
    else j += 1;
  }
  return common;
}

/** A subsequence of all of them: the first, less what any other lacks. Undefined of none. */
export function commonOfAll<T>(sequences: Iterable<readonly T[]>): readonly T[] | undefined {
  let common: readonly T[] | undefined;
  for (const each of sequences) {
    common = common ? commonOf(common, each) : each;
    if (common.length === 0) break;
  }
  return common;
}

/** A stretch of two sequences that is common to both, or stands in one of them. */
export interface Stretch<T> {
  readonly common: boolean;
  readonly items: readonly T[];
}

/** A sequence in stretches that are common and such that are its own; `common` must be a subsequence of it. */
export function stretchesOf<T>(sequence: readonly T[], common: readonly T[]): Stretch<T>[] {
  const stretches: { common: boolean; items: T[] }[] = [];
  let at = 0;
  for (const item of sequence) {
    const isCommon = at < common.length && item === common[at];
    if (isCommon) at += 1;
    const last = stretches.at(-1);
    if (last?.common === isCommon) last.items.push(item);
    else stretches.push({ common: isCommon, items: [item] });
  }
  return stretches;
}
