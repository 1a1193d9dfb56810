import { describe, expect, it } from 'vitest';
import { fitting } from './useFitting';

describe('what fits into a row', () => {
  it.each<[number[], number, number[]]>([
    [[50, 50, 50], 150, [0, 1, 2]],
    [[50, 50, 50], 149, [0, 1]],
    [[50, 50, 50], 100, [0]],
    [[50, 50, 50], 20, [0]],
    [[50, 50, 50], 0, [0, 1, 2]],
    [[], 100, []],
  ])('%j in %i', (widths, room, indexes) => expect(fitting(widths, room, 30, 0)).toEqual(indexes));
  it('holds what is chosen, however wide it is', () => {
    expect(fitting([50, 50, 50], 149, 30, 2)).toEqual([0, 2]);
    expect(fitting([50, 50, 90], 150, 30, 2)).toEqual([2]);
    expect(fitting([50, 50, 90, 10], 199, 30, 2)).toEqual([0, 2]);
    expect(fitting([50, 50, 50], 149, 30, 1)).toEqual([0, 1]);
  });
});
