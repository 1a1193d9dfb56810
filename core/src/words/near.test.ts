import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { likeness, near, shinglesOf } from './near.js';

/** The same distance, by its definition. */
function distance(a: string, b: string): number {
  const [x, y] = [[...a], [...b]];
  const table = Array.from({ length: x.length + 1 }, (_, i) =>
    Array.from({ length: y.length + 1 }, (__, j) => (i === 0 ? j : j === 0 ? i : 0)),
  );
  const at = (i: number, j: number): number => table[i]?.[j] ?? 0;
  for (let i = 1; i <= x.length; i += 1)
    for (let j = 1; j <= y.length; j += 1) {
      const swapped =
        i > 1 && j > 1 && x[i - 1] === y[j - 2] && x[i - 2] === y[j - 1] ? at(i - 2, j - 2) + 1 : Infinity;
      const changed = at(i - 1, j - 1) + (x[i - 1] === y[j - 1] ? 0 : 1);
      (table[i] as number[])[j] = Math.min(at(i - 1, j) + 1, at(i, j - 1) + 1, changed, swapped);
    }
  return at(x.length, y.length);
}

describe('words that are near', () => {
  it('are those within so many slips, and no others', () => {
    const word = fc.array(fc.constantFrom('a', 'b', 'c'), { maxLength: 7 }).map((letters) => letters.join(''));
    fc.assert(
      fc.property(word, word, fc.integer({ min: 0, max: 3 }), (a, b, slips) => {
        expect(near(a, b, slips)).toBe(distance(a, b) <= slips);
      }),
    );
  });
});

describe('shingles', () => {
  const words = (text: string): string[] => text.split(' ');
  it('of the same words are the same, of others not', () => {
    const one = shinglesOf(words('a b c d e'));
    expect(one.size).toBe(3);
    expect(likeness(one, shinglesOf(words('a b c d e')))).toBe(1);
    expect(likeness(one, shinglesOf(words('a b c d x')))).toBe(0.5);
    expect(likeness(one, shinglesOf(words('v w x y z')))).toBe(0);
    expect(likeness(shinglesOf([]), shinglesOf([]))).toBe(0);
    expect(shinglesOf(['a']).size).toBe(1);
  });
});
