/**
 * Covering arrays of pairs: ours beside a plain greedy method that makes one row at a time, each factor in a random
 * order taking the level that covers most pairs still open with those chosen before it. Sizes, and times as ratios.
 */
import { figure } from './figures.js';
import { pairArray } from '@vocabula/core/cover';

interface Row {
  readonly name: string;
  readonly levels: readonly number[];
  /** The most cases that ours is to have. */
  readonly most: number;
}
const times = (level: number, count: number): number[] => Array.from({ length: count }, () => level);
const ROWS: readonly Row[] = [
  { name: '2^100', levels: times(2, 100), most: 10 },
  { name: '3^13', levels: times(3, 13), most: 15 },
  { name: '4^15 3^17 2^29', levels: [...times(4, 15), ...times(3, 17), ...times(2, 29)], most: 28 },
  { name: '4^1 3^39 2^35', levels: [...times(4, 1), ...times(3, 39), ...times(2, 35)], most: 21 },
  { name: '10^20', levels: times(10, 20), most: 178 },
];

/** The plain greedy method, with its own small source of chance. */
function greedy(levels: readonly number[]): number[][] {
  let state = 1;
  const next = (below: number): number => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return Math.floor((state / 4294967296) * below);
  };
  const open = new Set<string>();
  const key = (a: number, x: number, b: number, y: number): string =>
    a < b ? `${a} ${x} ${b} ${y}` : `${b} ${y} ${a} ${x}`;
  for (let a = 0; a < levels.length; a += 1)
    for (let b = a + 1; b < levels.length; b += 1)
      for (let x = 0; x < (levels[a] ?? 0); x += 1)
        for (let y = 0; y < (levels[b] ?? 0); y += 1) open.add(key(a, x, b, y));
  const rows: number[][] = [];
  while (open.size > 0) {
    const [first = ''] = open;
    const [a = 0, x = 0, b = 0, y = 0] = first.split(' ').map(Number);
    const row = new Map([
      [a, x],
      [b, y],
    ]);
    const rest = levels.map((_, at) => at).filter((at) => !row.has(at));
    while (rest.length > 0) {
      const [factor = 0] = rest.splice(next(rest.length), 1);
      let best = { level: 0, news: -1 };
      for (let level = 0; level < (levels[factor] ?? 0); level += 1) {
        let news = 0;
        for (const [other, value] of row) if (open.has(key(factor, level, other, value))) news += 1;
        if (news > best.news) best = { level, news };
      }
      row.set(factor, best.level);
    }
    const full = levels.map((_, at) => row.get(at) ?? 0);
    for (let one = 0; one < full.length; one += 1)
      for (let other = one + 1; other < full.length; other += 1)
        open.delete(key(one, full[one] ?? 0, other, full[other] ?? 0));
    rows.push(full);
  }
  return rows;
}

function timed<T>(work: () => T): { readonly result: T; readonly took: number } {
  const begun = performance.now();
  return { result: work(), took: performance.now() - begun };
}

/** Runs the comparison and prints its table. */
export function bench(): void {
  console.log('| factors | to reach | ours | greedy | greedy to ours | our time to its |');
  console.log('|---|---:|---:|---:|---:|---:|');
  for (const { name, levels, most } of ROWS) {
    const ours = timed(() => pairArray(levels, { seed: 1 }).length);
    const plain = timed(() => greedy(levels).length);
    figure(`cases for ${name}`, ours.result, most);
    console.log(
      `| ${name} | ${most} | ${ours.result} | ${plain.result} | ${(plain.result / ours.result).toFixed(2)} | ${(ours.took / plain.took).toFixed(2)} |`,
    );
  }
}
