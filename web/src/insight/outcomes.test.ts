import { describe, expect, it } from 'vitest';
import { differenceWords } from './outcomes';

const share = (successes: number, trials: number) => ({ successes, trials });

describe('a difference of outcomes', () => {
  it('is said in points with its interval, and whether it may be chance', () => {
    // R. G. Newcombe 1998, table II: 56/70 against 48/80 gives 0.20 (0.0524 to 0.3339).
    expect(differenceWords(share(48, 80), share(56, 70))).toBe('+20 points (+5 to +33): more');
    expect(differenceWords(share(56, 70), share(48, 80))).toBe('−20 points (−33 to −5): less');
    expect(differenceWords(share(10, 40), share(11, 40))).toMatch(/^\+3 points \(−\d+ to \+\d+\): may be chance$/);
  });
  it('is none of too few messages', () => {
    expect(differenceWords(share(1, 4), share(20, 40))).toBe('too few messages');
  });
  it('is none where both are the same', () => {
    expect(differenceWords(share(20, 40), share(20, 40))).toMatch(/^0 points/);
  });
});
