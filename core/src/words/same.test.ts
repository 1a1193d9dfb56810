import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { sameValue } from './same.js';

/** The same value with the keys of its objects in another order. */
function turned(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(turned);
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value)
      .reverse()
      .map(([key, each]) => [key, turned(each)]),
  );
}

describe('values', () => {
  it('are the same whatever the order of their keys', () => {
    fc.assert(fc.property(fc.jsonValue(), (value) => sameValue(value, turned(value))));
  });
  it('differ exactly where what they are written as does', () => {
    const sorted = (value: unknown): string =>
      JSON.stringify(value, (_key, each: unknown) =>
        typeof each === 'object' && each !== null && !Array.isArray(each)
          ? Object.fromEntries(Object.entries(each).sort(([a], [b]) => (a < b ? -1 : 1)))
          : each,
      );
    const small = fc.jsonValue({ maxDepth: 2 }).filter((value) => !JSON.stringify(value).includes('__proto__'));
    fc.assert(fc.property(small, small, (a, b) => sameValue(a, b) === (sorted(a) === sorted(b))));
    expect(sameValue({ a: 1, b: undefined }, { a: 1 })).toBe(true);
    expect(sameValue([1, 2], { 0: 1, 1: 2 })).toBe(false);
  });
});
