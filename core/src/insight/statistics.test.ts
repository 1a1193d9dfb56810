import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { always, difference, rate, recipientsNeeded, trial } from './index.js';
import { random } from '../random.js';
import { logBeta, logGamma, normalQuantile } from './numbers.js';

describe('special functions', () => {
  it('are those of the tables', () => {
    expect(logGamma(0.5)).toBeCloseTo(Math.log(Math.sqrt(Math.PI)), 12);
    expect(logGamma(10)).toBeCloseTo(Math.log(362_880), 11);
    expect(logGamma(1000)).toBeCloseTo(5905.220423209181, 8);
    expect(logGamma(0.1)).toBeCloseTo(2.252712651734206, 11);
    expect(logBeta(2, 3)).toBeCloseTo(Math.log(1 / 12), 12);
  });
  it('give the quantiles that AS 241 is checked with, on both sides', () => {
    expect(normalQuantile(0.25)).toBeCloseTo(-0.6744897501960817, 14);
    expect(normalQuantile(0.975)).toBeCloseTo(1.959963984540054, 14);
    expect(normalQuantile(0.001)).toBeCloseTo(-3.090232306167814, 13);
    expect(normalQuantile(1e-20)).toBeCloseTo(-9.262340089798408, 12);
    expect(normalQuantile(0.5)).toBe(0);
  });
});

describe('a share and its interval (Wilson 1927)', () => {
  it.each([
    [0, 10, 0, 0.2775],
    [5, 10, 0.2366, 0.7634],
    [81, 263, 0.2553, 0.3662],
    [10, 10, 0.7225, 1],
    [15, 148, 0.0624, 0.1605],
  ])('%i of %i lies between %f and %f', (successes, trials, low, high) => {
    const found = rate(successes, trials);
    expect(found.rate).toBe(successes / trials);
    expect(found.low).toBeCloseTo(low, 4);
    expect(found.high).toBeCloseTo(high, 4);
  });
  it('says nothing where nothing was tried, and more the surer it is to be', () => {
    expect(rate(0, 0)).toEqual({ rate: undefined, low: 0, high: 1 });
    const [usual, sure] = [rate(5, 20), rate(5, 20, 0.99)];
    expect(sure.low).toBeLessThan(usual.low);
    expect(sure.high).toBeGreaterThan(usual.high);
  });
  it('holds the true share about as often as it says', () => {
    const draw = random(1).fraction;
    let held = 0;
    const runs = 4000;
    for (let run = 0; run < runs; run += 1) {
      const share = 0.05 + 0.9 * draw();
      const trials = 20 + Math.floor(draw() * 200);
      let successes = 0;
      for (let each = 0; each < trials; each += 1) if (draw() < share) successes += 1;
      const { low, high } = rate(successes, trials);
      if (low <= share && share <= high) held += 1;
    }
    expect(held / runs).toBeGreaterThan(0.935);
    expect(held / runs).toBeLessThan(0.965);
  });
  it('lies within 0 and 1 and around the share, and is turned round with what is counted', () => {
    fc.assert(
      fc.property(fc.nat(5000), fc.nat(5000), (a, b) => {
        const [successes, trials] = [Math.min(a, b), Math.max(a, b, 1)];
        const { rate: share = NaN, low, high } = rate(successes, trials);
        expect(0 <= low && low <= share && share <= high && high <= 1).toBe(true);
        const other = rate(trials - successes, trials);
        expect(other.low).toBeCloseTo(1 - high, 12);
        expect(other.high).toBeCloseTo(1 - low, 12);
      }),
    );
  });
});

describe('a difference of two shares (Newcombe 1998, method 10)', () => {
  it.each([
    // The examples of the paper, table II: a − b there is b − a here.
    [{ successes: 48, trials: 80 }, { successes: 56, trials: 70 }, 0.2, 0.0524, 0.3339],
    [{ successes: 3, trials: 10 }, { successes: 9, trials: 10 }, 0.6, 0.1705, 0.809],
    [{ successes: 2, trials: 7 }, { successes: 6, trials: 7 }, 0.5714, 0.0582, 0.8062],
    [{ successes: 0, trials: 29 }, { successes: 5, trials: 56 }, 0.0893, -0.0381, 0.1926],
    [{ successes: 0, trials: 20 }, { successes: 0, trials: 10 }, 0, -0.1611, 0.2775],
    [{ successes: 0, trials: 10 }, { successes: 10, trials: 10 }, 1, 0.6075, 1],
  ])('of %o and %o', (a, b, between, low, high) => {
    const found = difference(a, b);
    expect(found.difference).toBeCloseTo(between, 4);
    expect(found.low).toBeCloseTo(low, 4);
    expect(found.high).toBeCloseTo(high, 4);
  });
  it('is turned round with its sides, and unknown where one was never tried', () => {
    const [a, b] = [
      { successes: 12, trials: 40 },
      { successes: 30, trials: 55 },
    ];
    expect(difference(b, a).low).toBeCloseTo(-difference(a, b).high, 12);
    expect(difference(a, { successes: 0, trials: 0 })).toEqual({ difference: undefined, low: -1, high: 1 });
  });
  it('holds the true difference about as often as it says', () => {
    const draw = random(2).fraction;
    let held = 0;
    const runs = 3000;
    const arm = (share: number, trials: number): { successes: number; trials: number } => {
      let successes = 0;
      for (let each = 0; each < trials; each += 1) if (draw() < share) successes += 1;
      return { successes, trials };
    };
    for (let run = 0; run < runs; run += 1) {
      const [x, y] = [0.1 + 0.8 * draw(), 0.1 + 0.8 * draw()];
      const { low, high } = difference(arm(x, 60), arm(y, 45));
      if (low <= y - x && y - x <= high) held += 1;
    }
    expect(held / runs).toBeGreaterThan(0.935);
  });
});

describe('an interval that always holds', () => {
  it('says nothing of nothing, and is wider than one that is looked at once', () => {
    expect(always(0, 0)).toEqual({ low: 0, high: 1 });
    for (const [successes, trials] of [
      [5, 10],
      [81, 263],
      [0, 40],
      [400, 400],
    ] as const) {
      const [one, ever] = [rate(successes, trials), always(successes, trials)];
      expect(ever.low).toBeLessThanOrEqual(one.low);
      expect(ever.high).toBeGreaterThanOrEqual(one.high);
    }
  });
  it('ends where the mixture says: the likelihood there is just too small', () => {
    const [successes, trials] = [30, 100];
    const { low, high } = always(successes, trials);
    const least = logBeta(30.5, 70.5) - logBeta(0.5, 0.5) + Math.log(0.05);
    for (const end of [low, high]) expect(successes * Math.log(end) + 70 * Math.log1p(-end)).toBeCloseTo(least, 5);
  });
  it('is turned round with what is counted', () => {
    const [few, many] = [always(7, 50), always(43, 50)];
    expect(few.low).toBeCloseTo(1 - many.high, 8);
    expect(few.high).toBeCloseTo(1 - many.low, 8);
  });
  it('leaves the true share out at any moment in at most one run of twenty', () => {
    const draw = random(3).fraction;
    const runs = 1500;
    let ever = 0;
    for (let run = 0; run < runs; run += 1) {
      const share = [0.5, 0.2, 0.05][run % 3] ?? 0.5;
      let successes = 0;
      let left = false;
      for (let trials = 1; trials <= 300 && !left; trials += 1) {
        if (draw() < share) successes += 1;
        const { low, high } = always(successes, trials);
        left = share < low || share > high;
      }
      if (left) ever += 1;
    }
    expect(ever / runs).toBeLessThanOrEqual(0.05);
  });
});

describe('a trial', () => {
  const arms = (...all: readonly (readonly [number, number])[]) =>
    all.map(([successes, trials], at) => ({ name: 'ABC'[at] ?? '', successes, trials }));
  it('says not yet, better by how much, or no difference that matters', () => {
    expect(trial(arms([3, 10], [5, 10]), { matters: 0.05 })).toMatchObject({ verdict: 'not yet', best: undefined });
    const better = trial(arms([200, 1000], [320, 1000]), { matters: 0.05 });
    expect(better).toMatchObject({ verdict: 'better', best: 'B' });
    const gain = better.differences.find(({ of, to }) => of === 'B' && to === 'A');
    expect(gain?.low).toBeGreaterThan(0);
    expect(gain?.high).toBeLessThan(0.25);
    expect(trial(arms([5000, 50_000], [5020, 50_000]), { matters: 0.05 })).toMatchObject({
      verdict: 'no difference that matters',
      best: undefined,
    });
  });
  it('of three needs one that is better than both', () => {
    expect(trial(arms([200, 1000], [400, 1000], [390, 1000]), { matters: 0.05 })).toMatchObject({ verdict: 'not yet' });
    expect(trial(arms([200, 1000], [500, 1000], [350, 1000]), { matters: 0.05 })).toMatchObject({ best: 'B' });
  });
  it('of no difference, looked at after every message, cries one in at most one of twenty', () => {
    const draw = random(4).fraction;
    const runs = 2000;
    let cried = 0;
    for (let run = 0; run < runs; run += 1) {
      const share = [0.5, 0.24, 0.1, 0.03][run % 4] ?? 0.5;
      const [a, b] = [
        { name: 'A', successes: 0, trials: 0 },
        { name: 'B', successes: 0, trials: 0 },
      ];
      for (let each = 0; each < 200; each += 1) {
        const arm = draw() < 0.5 ? a : b;
        arm.trials += 1;
        if (draw() < share) arm.successes += 1;
        if (trial([a, b], { matters: 0.05 }).verdict !== 'better') continue;
        cried += 1;
        break;
      }
    }
    expect(cried / runs).toBeLessThanOrEqual(0.05);
  }, 60_000);
});

describe('recipients that a trial needs', () => {
  it.each([
    [0.24, 0.05, 2],
    [0.5, 0.1, 2],
    [0.02, 0.01, 2],
    [0.3, 0.05, 3],
  ])('at a share of %d to see that a difference of %d does not matter, with %d versions', (share, matters, count) => {
    const needed = recipientsNeeded(share, { matters, arms: count }) ?? 0;
    const verdict = (trials: number): string =>
      trial(
        Array.from({ length: count }, (_, at) => ({
          ...{ name: `V${at}`, trials, successes: Math.round(share * trials) },
        })),
        { matters },
      ).verdict;
    expect(verdict(needed)).toBe('no difference that matters');
    expect(verdict(Math.floor(needed * 0.97))).toBe('not yet');
  });
  it('are more for smaller differences and for more versions, and none where a million are too few', () => {
    const needed = (matters: number, count: number) => recipientsNeeded(0.3, { matters, arms: count }) ?? 0;
    expect(needed(0.05, 2)).toBeGreaterThan(3 * needed(0.1, 2));
    expect(needed(0.05, 3)).toBeGreaterThan(needed(0.05, 2));
    expect(recipientsNeeded(0.5, { matters: 0.0001, arms: 2 })).toBeUndefined();
  });
});

describe('bad numbers', () => {
  it.each([
    [() => rate(-1, 2), 'successes'],
    [() => rate(1.5, 2), 'successes'],
    [() => rate(3, 2), 'successes'],
    [() => rate(0, -1), 'trials'],
    [() => rate(0, NaN), 'trials'],
    [() => rate(0, 1, 0), 'confidence'],
    [() => rate(0, 1, 1), 'confidence'],
    [() => rate(0, 1, NaN), 'confidence'],
    [() => always(3, 2), 'successes'],
    [() => always(0, 1, 1.5), 'confidence'],
    [() => difference({ successes: 2, trials: 1 }, { successes: 0, trials: 1 }), 'a.successes'],
    [() => difference({ successes: 0, trials: 1 }, { successes: 0, trials: 1.5 }), 'b.trials'],
    [() => recipientsNeeded(1.5, { matters: 0.05, arms: 2 }), 'share'],
    [() => recipientsNeeded(0.5, { matters: 0, arms: 2 }), 'matters'],
    [() => recipientsNeeded(0.5, { matters: 0.1, arms: 2, confidence: 2 }), 'confidence'],
    [() => trial([{ name: 'A', successes: 0, trials: 0 }], { matters: 0.05 }), 'arms'],
    [
      () =>
        trial(
          [
            { name: 'A', successes: 0, trials: 0 },
            { name: 'A', successes: 0, trials: 0 },
          ],
          { matters: 0.05 },
        ),
      'arms',
    ],
    [
      () =>
        trial(
          [
            { name: 'A', successes: 2, trials: 1 },
            { name: 'B', successes: 0, trials: 0 },
          ],
          { matters: 0.05 },
        ),
      'A.successes',
    ],
    [
      () =>
        trial(
          [
            { name: 'A', successes: 0, trials: 1 },
            { name: 'B', successes: 0, trials: 0 },
          ],
          { matters: -1 },
        ),
      'matters',
    ],
  ])('throw a RangeError that names the argument: %s', (work, named) => {
    expect(work).toThrow(RangeError);
    expect(work).toThrow(new RegExp(`^${named.replace('.', '\\.')} `));
  });
});
