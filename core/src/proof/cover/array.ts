/**
 * Covering arrays of pairs: few rows in which every two levels of different factors stand together somewhere.
 *
 * Two beginnings are tried and the better is kept: rows made one at a time, each the best of several candidates
 * (Cohen, Dalal, Fredman and Patton 1997), and lines of a finite plane (`field.ts`), their surplus levels free for
 * whatever is missing. For factors of two levels alone there is an array that cannot be smaller (Kleitman and Spencer
 * 1973; Katona 1973). Then rows are taken out, as long as a search that must not undo what it just did
 * (Gonzalez-Hernandez, Rangel-Valdez and Torres-Jimenez 2010) finds room for what only they had. All choice comes from
 * a seed, and all work is bounded by steps, so that a seed gives one array everywhere.
 */
import { fieldOf, planeArray } from './field.js';
import { ANY, PairTable, shuffled } from './pairs.js';
import { random, type Random } from '../../random.js';

/** How hard the search for a covering array tries. */
export interface ArrayOptions {
  readonly seed?: number;
  /** How many rows are made for each that is taken. */
  readonly candidates?: number;
  /** Evaluations of single changes that the search may make in all. */
  readonly steps?: number;
}

/**
 * Rows that cover every pair of levels.
 * @param levels how many levels each factor has, at least 1 each
 * @returns rows of one level for each factor
 */
export function pairArray(
  levels: readonly number[],
  { seed = 1, candidates = 20, steps = 60_000_000 }: ArrayOptions = {},
): readonly (readonly number[])[] {
  if (levels.length === 0) return [];
  if (levels.length === 1) return Array.from({ length: levels[0] ?? 0 }, (_, level) => [level]);
  const source = random(seed);
  if (Math.max(...levels) <= 2) return binaryArray(levels);
  const beginnings = [greedy(levels, candidates, source), fromPlane(levels, candidates, source)];
  const [first, second] = beginnings
    .filter((table): table is PairTable => table !== undefined)
    .sort((a, b) => a.rows.length - b.rows.length);
  const smallest = first as PairTable;
  // An array that begins far behind the other is not worth the search.
  const close = second && second.rows.length <= smallest.rows.length * 1.15 ? second : undefined;
  const budget = { left: steps };
  const found = [smallest, ...(close ? [close] : [])].map((table, index, all) => {
    const share = Math.floor(budget.left / (all.length - index));
    const own = { left: share };
    const rows = takeOut(table, source, own);
    budget.left -= share - own.left;
    return rows;
  });
  return found.reduce((best, rows) => (rows.length < best.length ? rows : best));
}

/** The smallest array of two-level factors: one row of zeros, and for each factor another half of the other rows. */
function binaryArray(levels: readonly number[]): number[][] {
  const choose = (n: number, k: number): number => {
    let result = 1;
    for (let at = 1; at <= k; at += 1) result = (result * (n - k + at)) / at;
    return result;
  };
  let rows = 4;
  while (choose(rows - 1, Math.ceil(rows / 2)) < levels.length) rows += 1;
  const size = Math.ceil(rows / 2);
  const columns: number[][] = [];
  const gather = (from: number, taken: readonly number[]): void => {
    if (columns.length === levels.length) return;
    if (taken.length === size) {
      columns.push(Array.from({ length: rows }, (_, row) => (taken.includes(row) ? 1 : 0)));
      return;
    }
    for (let row = from; row < rows; row += 1) gather(row + 1, [...taken, row]);
  };
  gather(1, []);
  return Array.from({ length: rows }, (_, row) =>
    levels.map((count, factor) => Math.min(columns[factor]?.[row] ?? 0, count - 1)),
  );
}

/** Adds rows until no pair is open. */
function complete(table: PairTable, candidates: number, source: Random): void {
  while (table.open.length > 0) {
    let best: number[] = [];
    let closes = -1;
    for (let candidate = 0; candidate < candidates; candidate += 1) {
      const before = table.open.length;
      const at = table.rows.length;
      table.addRow(table.levels.map(() => ANY));
      const pair = table.open[source.next(table.open.length)] as number;
      const [one, two] = [Math.floor(pair / table.total), pair % table.total];
      const [i, j] = [table.factorOf(one), table.factorOf(two)];
      table.set(at, i, one - table.id(i, 0));
      table.set(at, j, two - table.id(j, 0));
      for (const factor of shuffled(table.levels.length, source))
        if (factor !== i && factor !== j) table.set(at, factor, table.best(at, factor, source));
      const closed = before - table.open.length;
      const row = table.removeRow(at);
      if (closed > closes) [best, closes] = [row, closed];
    }
    table.addRow(best);
  }
}

function greedy(levels: readonly number[], candidates: number, source: Random): PairTable {
  const table = new PairTable(levels);
  complete(table, candidates, source);
  return table;
}

/** Begins with a plane over a field of as many elements as the largest factors have levels. */
function fromPlane(levels: readonly number[], candidates: number, source: Random): PairTable | undefined {
  const field = fieldOf(Math.max(...levels));
  if (!field) return undefined;
  const order = levels.map((_, factor) => factor).sort((a, b) => (levels[b] ?? 0) - (levels[a] ?? 0));
  // Only the factors that need the plane are given one of its columns each: more would make it longer.
  const large = order.filter((factor) => (levels[factor] ?? 0) > field.size / 2);
  let columns = field.size + 1;
  while (columns < large.length && columns * field.size + 1 <= large.length + field.size)
    columns = columns * field.size + 1;
  const width = Math.max(columns, columns < large.length && field.size <= 5 ? large.length : columns);
  const plane = planeArray(field, Math.min(width, levels.length));
  const table = new PairTable(levels);
  for (const line of plane) {
    const row = levels.map(() => ANY);
    order.slice(0, line.length).forEach((factor, at) => {
      const level = line[at] ?? ANY;
      row[factor] = level < (levels[factor] ?? 0) ? level : ANY;
    });
    table.addRow(row);
  }
  table.fill(source);
  complete(table, candidates, source);
  return table;
}

interface Budget {
  left: number;
}

/** Takes rows out one by one, as long as the pairs that only they had find room in the others. */
function takeOut(table: PairTable, source: Random, budget: Budget): number[][] {
  let kept = table.rows.map((row) => [...row]);
  while (budget.left > 0) {
    let least = 0;
    let fewest = Infinity;
    table.rows.forEach((_, at) => {
      const alone = table.alone(at);
      if (alone < fewest) [least, fewest] = [at, alone];
    });
    table.removeRow(least);
    if (!settle(table, source, budget)) return kept;
    kept = table.rows.map((row) => [...row]);
  }
  return kept;
}

/** Changes levels until no pair is open; false when the budget is used up before. */
function settle(table: PairTable, source: Random, budget: Budget): boolean {
  const width = table.levels.length;
  /** The step until which a level that was given up there must not come back. */
  const barred = new Map<number, number>();
  let best = table.open.length;
  for (let step = 0; table.open.length > 0; step += 1) {
    if (budget.left <= 0) return false;
    const pair = table.open[source.next(table.open.length)] as number;
    const [one, two] = [Math.floor(pair / table.total), pair % table.total];
    const [i, j] = [table.factorOf(one), table.factorOf(two)];
    const [a, b] = [one - table.id(i, 0), two - table.id(j, 0)];
    let [chosen, cost, equals, both] = [-1, Infinity, 0, false];
    table.rows.forEach((row, at) => {
      const [hasOne, hasTwo] = [row[i] === a, row[j] === b];
      if (!hasOne && !hasTwo) return;
      const [factor, level] = hasOne ? [j, b] : [i, a];
      budget.left -= width;
      const each = table.cost(at, factor, level);
      const bar = barred.get((at * width + factor) * 64 + level) ?? 0;
      if (bar > step && table.open.length + each >= best) return;
      if (each < cost) [chosen, cost, equals, both] = [at, each, 1, false];
      else if (each === cost && source.next((equals += 1)) === 0) chosen = at;
    });
    if (chosen < 0) {
      chosen = source.next(table.rows.length);
      both = true;
      budget.left -= width;
    }
    const change = (factor: number, level: number): void => {
      const old = table.rows[chosen]?.[factor] ?? ANY;
      if (old === level) return;
      barred.set((chosen * width + factor) * 64 + old, step + 4 + source.next(8));
      table.set(chosen, factor, level);
    };
    if (both || table.rows[chosen]?.[i] !== a) change(i, a);
    if (both || table.rows[chosen]?.[j] !== b) change(j, b);
    best = Math.min(best, table.open.length);
  }
  return true;
}
