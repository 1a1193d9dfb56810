import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { pairArray } from './array.js';
import { fieldOf, planeArray } from './field.js';

/** The pairs that no row has, found without anything that made the rows. */
function missing(levels: readonly number[], rows: readonly (readonly number[])[]): string[] {
  const open: string[] = [];
  levels.forEach((count, i) =>
    levels.forEach((other, j) => {
      if (j <= i) return;
      for (let a = 0; a < count; a += 1)
        for (let b = 0; b < other; b += 1)
          if (!rows.some((row) => row[i] === a && row[j] === b)) open.push(`${i}:${a} ${j}:${b}`);
    }),
  );
  return open;
}
const times = (level: number, count: number): number[] => Array.from({ length: count }, () => level);

describe('arrays of pairs', () => {
  it('cover every pair with levels that there are, whatever the factors', () => {
    const levels = fc.array(fc.integer({ min: 1, max: 6 }), { minLength: 1, maxLength: 9 });
    fc.assert(
      fc.property(levels, fc.nat(1000), (given, seed) => {
        const rows = pairArray(given, { seed, steps: 100_000, candidates: 5 });
        expect(missing(given, rows)).toEqual([]);
        for (const row of rows) {
          expect(row).toHaveLength(given.length);
          expect(
            row.every((level, factor) => Number.isInteger(level) && level >= 0 && level < (given[factor] ?? 0)),
          ).toBe(true);
        }
      }),
      { numRuns: 60 },
    );
  });

  it('are never smaller than can be, and as small where that is known', () => {
    expect(pairArray(times(2, 4), {})).toHaveLength(5);
    expect(pairArray(times(2, 100), {})).toHaveLength(10);
    expect(pairArray(times(3, 4), { steps: 100_000 })).toHaveLength(9);
    expect(pairArray([7, 5], { steps: 100_000 })).toHaveLength(35);
    expect(pairArray([3], {})).toEqual([[0], [1], [2]]);
    expect(pairArray([], {})).toEqual([]);
  });

  it('are the same for the same seed', () => {
    const levels = [4, 3, 3, 2, 2, 5];
    const options = { seed: 7, steps: 200_000 };
    expect(pairArray(levels, options)).toEqual(pairArray(levels, options));
  });
});

describe('planes over finite fields', () => {
  it.each([2, 3, 4, 5, 7, 8, 9, 11, 13, 16])('of %d elements cover all pairs, once and multiplied', (size) => {
    const field = fieldOf(size);
    expect(field?.size).toBe(size);
    if (!field) return;
    const once = planeArray(field, size + 1);
    expect([once.length, missing(times(size, size + 1), once)]).toEqual([size * size, []]);
    if (size > 5) return;
    const twice = planeArray(field, size * (size + 1) + 1);
    expect([twice.length, missing(times(size, size * (size + 1) + 1), twice)]).toEqual([2 * size * size - size, []]);
  });

  it('have elements for which all laws of a field hold', () => {
    const field = fieldOf(9);
    if (!field) throw new Error('no field of nine');
    const all = Array.from({ length: 9 }, (_, at) => at);
    for (const a of all) {
      if (a !== 0) expect(all.filter((b) => field.multiply(a, b) === 1)).toHaveLength(1);
      for (const b of all)
        for (const c of all)
          expect(field.multiply(a, field.add(b, c))).toBe(field.add(field.multiply(a, b), field.multiply(a, c)));
    }
  });
});
