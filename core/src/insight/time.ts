/** A gap without a key or a press counts as work up to here, in milliseconds. */
const LONGEST_GAP = 5 * 60_000;

/**
 * How long somebody was at it: the time between moments at which they did something, leaving out what is longer than
 * five minutes.
 * @param moments milliseconds since any beginning, in any order
 * @returns milliseconds
 */
export function activeTime(moments: readonly number[]): number {
  const ordered = [...moments].sort((a, b) => a - b);
  let sum = 0;
  for (const [at, moment] of ordered.entries()) {
    const gap = moment - (ordered[at - 1] ?? moment);
    if (gap <= LONGEST_GAP) sum += gap;
  }
  return sum;
}

/** The middle one of some numbers, the mean of both where there are two; none of none. */
export function median(numbers: readonly number[]): number | undefined {
  const ordered = [...numbers].sort((a, b) => a - b);
  const middle = ordered.length / 2;
  const high = ordered[Math.floor(middle)];
  if (high === undefined || ordered.length % 2 === 1) return high;
  return ((ordered[middle - 1] ?? high) + high) / 2;
}
