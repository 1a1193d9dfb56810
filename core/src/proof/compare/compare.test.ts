import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { commonOf, commonOfAll, stretchesOf } from './common.js';
import { compareMessages } from './messages.js';

const letters = fc.array(fc.constantFrom('a', 'b', 'c', 'd'), { maxLength: 12 });
function isWithin<T>(part: readonly T[], whole: readonly T[]): boolean {
  let at = 0;
  for (const each of whole) if (at < part.length && each === part[at]) at += 1;
  return at === part.length;
}
/** The length of a longest common subsequence, by trying everything. */
function longest(a: readonly string[], b: readonly string[]): number {
  const [first, ...rest] = a;
  if (first === undefined || b.length === 0) return 0;
  const at = b.indexOf(first);
  return Math.max(longest(rest, b), at < 0 ? 0 : 1 + longest(rest, b.slice(at + 1)));
}

describe('what sequences have in common', () => {
  it('is as long as it can be for two, and is in both', () => {
    fc.assert(
      fc.property(letters, letters, (a, b) => {
        const common = commonOf(a, b);
        expect(isWithin(common, a) && isWithin(common, b)).toBe(true);
        expect(common.length).toBe(longest(a, b));
      }),
    );
  });
  it('is in every one of many, and the stretches of each give it back', () => {
    fc.assert(
      fc.property(fc.array(letters, { minLength: 1, maxLength: 6 }), (all) => {
        const common = commonOfAll(all) ?? [];
        for (const each of all) {
          const stretches = stretchesOf(each, common);
          expect(stretches.flatMap(({ items }) => items)).toEqual(each);
          expect(stretches.filter((stretch) => stretch.common).flatMap(({ items }) => items)).toEqual(common);
          stretches.slice(1).forEach((stretch, at) => expect(stretch.common).not.toBe(stretches[at]?.common));
        }
      }),
    );
  });
  it('keeps to the common ends of what is too long to go through', () => {
    const long = (sign: string): string[] => ['x', ...Array.from({ length: 1200 }, (_, at) => `${sign}${at}`), 'y'];
    expect(commonOf(long('a'), long('b'))).toEqual(['x', 'y']);
  });
});

describe('two messages', () => {
  const say = (left: string[], right: string[]): (string | undefined)[][] =>
    compareMessages(left, right).map((each) => [each.left, each.right]);
  it('stand level where paragraphs are alike, and alone where they are not', () => {
    expect(
      say(
        ['Dear Ann,', 'Come to the north gate at noon.', 'Bring rugs.', 'Bye'],
        ['Dear Bo,', 'Snow is likely.', 'Come to the river gate at noon.', 'Bye'],
      ),
    ).toEqual([
      ['Dear Ann,', 'Dear Bo,'],
      [undefined, 'Snow is likely.'],
      ['Come to the north gate at noon.', 'Come to the river gate at noon.'],
      ['Bring rugs.', undefined],
      ['Bye', 'Bye'],
    ]);
  });
  it('number the changes from first to last', () => {
    const compared = compareMessages(['one two three', 'same', 'x'], ['one 2 three 4', 'same', 'y']);
    expect(compared.map(({ changes }) => changes)).toEqual([[1, 2], [], [3], [4]]);
  });
  it('give either side back whole, whatever they are', () => {
    const lines = fc.array(fc.string({ maxLength: 30 }), { maxLength: 8 });
    fc.assert(
      fc.property(lines, lines, (left, right) => {
        const compared = compareMessages(left, right);
        expect(compared.flatMap((each) => each.left ?? [])).toEqual(left);
        expect(compared.flatMap((each) => each.right ?? [])).toEqual(right);
        for (const { left: a, right: b, runs, changes } of compared) {
          const side = (not: string): string => runs.flatMap((run) => (run.in === not ? [] : run.text)).join('');
          expect([side('right'), side('left')]).toEqual([a ?? '', b ?? '']);
          expect(changes.length > 0).toBe((a ?? '') !== (b ?? ''));
        }
      }),
    );
  });
});
