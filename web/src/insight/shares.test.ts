import { describe, expect, it } from 'vitest';
import { lengthWords, shareWords } from './shares';

describe('a share in words', () => {
  it('has its span and its count', () => {
    expect(shareWords({ successes: 57, trials: 253 })).toMatchObject({ share: '23 %', span: '18–28 % of 253' });
  });
  it('is a count where there are few, and nothing where it was never known', () => {
    expect(shareWords({ successes: 3, trials: 9 })).toMatchObject({ share: '3', span: 'of 9' });
    expect(shareWords({ successes: 0, trials: 0 })).toMatchObject({ share: '–', span: '' });
  });
  it('is sorted behind larger ones; what says little comes last', () => {
    const orders = [
      { successes: 9, trials: 10 },
      { successes: 1, trials: 10 },
      { successes: 5, trials: 5 },
      { successes: 0, trials: 0 },
    ].map((each) => shareWords(each).order);
    expect(orders).toEqual(orders.toSorted((a, b) => b - a));
  });
});

it('a time is said in seconds, then minutes', () => {
  expect([lengthWords(undefined), lengthWords(44.6), lengthWords(89), lengthWords(150)]).toEqual([
    '–',
    '45 s',
    '89 s',
    '3 min',
  ]);
});
