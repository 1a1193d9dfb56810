/** Numbers of messages as people write them: `1-3, 7`. */

/** The places meant, counted from 0, each once and in order; undefined for what is no such list. */
export function numbersIn(typed: string, count: number): number[] | undefined {
  const found = new Set<number>();
  for (const part of typed.split(/[,;\s]+/).filter(Boolean)) {
    const match = /^(\d{1,6})(?:[-–](\d{1,6}))?$/.exec(part);
    if (!match) return undefined;
    const [first, last] = [Number(match[1]), Number(match[2] ?? match[1])];
    if (first < 1 || last < first || last > count) return undefined;
    for (let number = first; number <= last; number += 1) found.add(number - 1);
  }
  return [...found].sort((a, b) => a - b);
}
