import { describe, expect, it } from 'vitest';
import { gridOf, statsInWords, statsOf } from './stats';

describe('a column', () => {
  it('says how many are empty and distinct, and how long the shortest and the longest are, in letters as seen', () => {
    const stats = statsOf(['Ann', '', 'Ann', 'e\u0301', '👩‍🌾👩‍🌾']);
    expect(stats).toEqual({ empty: 1, distinct: 3, shortest: 1, longest: 3 });
    expect(statsInWords(stats)).toBe('1 empty · 3 distinct · 1–3 long');
    expect(statsInWords(statsOf([]))).toBe('0 empty · 0 distinct · 0 long');
  });
});

describe('what was copied from a spreadsheet', () => {
  it('is rows of cells, without the line that ends it', () => {
    expect(gridOf('a\tb\r\n\tc\r\n')).toEqual([
      ['a', 'b'],
      ['', 'c'],
    ]);
    expect(gridOf('one')).toEqual([['one']]);
  });
});
