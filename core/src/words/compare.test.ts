import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compareWords } from './compare.js';

const side = (which: 'left' | 'right', left: string, right: string): string =>
  compareWords(left, right)
    .filter((run) => run.in === 'both' || run.in === which)
    .map(({ text }) => text)
    .join('');

describe('words compared', () => {
  it('are told apart by what only one side says', () => {
    expect(compareWords('See you on Friday at ten.', 'See you on Monday at ten.')).toEqual([
      { text: 'See you on ', in: 'both' },
      { text: 'Friday', in: 'left' },
      { text: 'Monday', in: 'right' },
      { text: ' at ten.', in: 'both' },
    ]);
  });

  it('know the words of a language that writes none apart', () => {
    const runs = compareWords('明日は雨です', '明日は雪です', 'ja');
    expect(runs.filter((run) => run.in !== 'both')).toEqual([
      { text: '雨', in: 'left' },
      { text: '雪', in: 'right' },
    ]);
  });

  it('give back both sides letter by letter', () => {
    const words = fc.array(fc.constantFrom('a', 'b', ' ', '\n', 'é', '€5', '…', '👩‍🌾')).map((each) => each.join(''));
    fc.assert(
      fc.property(words, words, (left, right) => {
        expect([side('left', left, right), side('right', left, right)]).toEqual([left, right]);
      }),
    );
  });
});
