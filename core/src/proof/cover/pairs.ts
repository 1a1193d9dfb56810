/** Rows with a count of how often each pair of levels stands in them, changed one level at a time. */
import type { Random } from '../../random.js';

/** Any level will do there. */
export const ANY = -1;

/** Which pairs of levels are covered, impossible or still open. */
export class PairTable {
  /** Where each factor's levels begin among all levels. */
  readonly offset: readonly number[];
  readonly total: number;
  private readonly counts: Uint16Array;
  /** The pairs that no row has, as `lower * total + higher`; with the place of each in that list. */
  readonly open: number[] = [];
  private readonly placeInOpen: Int32Array;
  readonly rows: number[][] = [];

  constructor(readonly levels: readonly number[]) {
    let total = 0;
    this.offset = levels.map((count) => {
      const begin = total;
      total += count;
      return begin;
    });
    this.total = total;
    this.counts = new Uint16Array(total * total);
    this.placeInOpen = new Int32Array(total * total).fill(-1);
    for (let i = 0; i < levels.length; i += 1)
      for (let j = i + 1; j < levels.length; j += 1)
        for (let a = 0; a < (levels[i] ?? 0); a += 1)
          for (let b = 0; b < (levels[j] ?? 0); b += 1) this.opened(this.id(i, a) * total + this.id(j, b));
  }

  id(factor: number, level: number): number {
    return (this.offset[factor] ?? 0) + level;
  }
  private opened(pair: number): void {
    this.placeInOpen[pair] = this.open.push(pair) - 1;
  }
  private closed(pair: number): void {
    const place = this.placeInOpen[pair] ?? -1;
    const last = this.open.pop() as number;
    if (last !== pair) {
      this.open[place] = last;
      this.placeInOpen[last] = place;
    }
    this.placeInOpen[pair] = -1;
  }
  private count(a: number, b: number): number {
    return this.counts[a < b ? a * this.total + b : b * this.total + a] ?? 0;
  }
  private change(a: number, b: number, by: 1 | -1): void {
    const pair = a < b ? a * this.total + b : b * this.total + a;
    const before = this.counts[pair] ?? 0;
    this.counts[pair] = before + by;
    if (before === 0) this.closed(pair);
    else if (before + by === 0) this.opened(pair);
  }

  addRow(row: readonly number[]): void {
    const at = this.rows.push(row.map(() => ANY)) - 1;
    row.forEach((level, factor) => this.set(at, factor, level));
  }
  removeRow(at: number): number[] {
    const row = [...(this.rows[at] ?? [])];
    row.forEach((_, factor) => this.set(at, factor, ANY));
    this.rows.splice(at, 1);
    return row;
  }
  set(at: number, factor: number, level: number): void {
    const row = this.rows[at] as number[];
    const old = row[factor] as number;
    if (old === level) return;
    for (let other = 0; other < row.length; other += 1) {
      const there = row[other] as number;
      if (other === factor || there === ANY) continue;
      const id = this.id(other, there);
      if (old !== ANY) this.change(this.id(factor, old), id, -1);
      if (level !== ANY) this.change(this.id(factor, level), id, 1);
    }
    row[factor] = level;
  }
  /** By how many pairs more would be open if a row had another level there. */
  cost(at: number, factor: number, level: number): number {
    const row = this.rows[at] as number[];
    const old = row[factor] as number;
    if (old === level) return 0;
    let cost = 0;
    for (let other = 0; other < row.length; other += 1) {
      const there = row[other] as number;
      if (other === factor || there === ANY) continue;
      const id = this.id(other, there);
      if (old !== ANY && this.count(this.id(factor, old), id) === 1) cost += 1;
      if (level !== ANY && this.count(this.id(factor, level), id) === 0) cost -= 1;
    }
    return cost;
  }
  /** How many pairs only this row has. */
  alone(at: number): number {
    const row = this.rows[at] as number[];
    let alone = 0;
    for (let i = 0; i < row.length; i += 1)
      for (let j = i + 1; j < row.length; j += 1) {
        const [a, b] = [row[i] as number, row[j] as number];
        if (a !== ANY && b !== ANY && this.count(this.id(i, a), this.id(j, b)) === 1) alone += 1;
      }
    return alone;
  }
  /** The factor that a level among all levels belongs to. */
  factorOf(id: number): number {
    let factor = this.levels.length - 1;
    while ((this.offset[factor] ?? 0) > id) factor -= 1;
    return factor;
  }

  /** Gives every place where any level would do the one that closes most pairs. */
  fill(random: Random): void {
    this.rows.forEach((row, at) => {
      for (const factor of shuffled(row.length, random)) {
        if (row[factor] !== ANY) continue;
        this.set(at, factor, this.best(at, factor, random));
      }
    });
  }
  /** The level that would close most pairs there, by chance among equals. */
  best(at: number, factor: number, random: Random): number {
    let [best, cost, equals] = [0, Infinity, 0];
    for (let level = 0; level < (this.levels[factor] ?? 0); level += 1) {
      const each = this.cost(at, factor, level);
      if (each < cost) [best, cost, equals] = [level, each, 1];
      else if (each === cost && random.next((equals += 1)) === 0) best = level;
    }
    return best;
  }
}

/** The numbers below `count` in an order by chance. */
export function shuffled(count: number, random: Random): number[] {
  const order = Array.from({ length: count }, (_, at) => at);
  for (let at = count - 1; at > 0; at -= 1) {
    const to = random.next(at + 1);
    [order[at], order[to]] = [order[to] as number, order[at] as number];
  }
  return order;
}
