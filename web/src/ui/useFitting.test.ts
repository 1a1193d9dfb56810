import { describe, expect, it } from 'vitest';
import { fitting, withChosen } from './useFitting';

describe('what fits into a row', () => {
  it.each<[number[], number, number]>([
    [[50, 50, 50], 150, 3],
    [[50, 50, 50], 149, 2],
    [[50, 50, 50], 100, 1],
    [[50, 50, 50], 20, 1],
    [[50, 50, 50], 0, 3],
    [[], 100, 0],
  ])('%j in %i', (widths, room, count) => expect(fitting(widths, room, 30)).toBe(count));
  it('holds what is chosen', () => {
    expect(withChosen(['a', 'b', 'c'], 2, (each) => each === 'c')).toEqual(['a', 'c']);
    expect(withChosen(['a', 'b', 'c'], 2, (each) => each === 'a')).toEqual(['a', 'b']);
    expect(withChosen(['a', 'b', 'c'], 3, (each) => each === 'c')).toEqual(['a', 'b', 'c']);
  });
});
