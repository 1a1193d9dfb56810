import { demandConfidence, demandShare, normalQuantile } from './numbers.js';

/** How often something happened, of how many times it could. */
export interface Counted {
  readonly successes: number;
  readonly trials: number;
}
/** A span that holds the true value, as sure as was asked. */
export interface Interval {
  readonly low: number;
  readonly high: number;
}

/**
 * A share with its score interval (E. B. Wilson 1927).
 * @param confidence - between 0 and 1
 * @returns shares from 0 to 1; without trials no rate, and an interval that says nothing
 * @throws RangeError that names what is no count
 */
export function rate(
  successes: number,
  trials: number,
  confidence = 0.95,
): Interval & { readonly rate: number | undefined } {
  demandShare(successes, trials);
  demandConfidence(confidence);
  if (trials === 0) return { rate: undefined, low: 0, high: 1 };
  const z = normalQuantile(1 - (1 - confidence) / 2);
  const share = successes / trials;
  const shrunk = 1 + (z * z) / trials;
  const centre = (share + (z * z) / (2 * trials)) / shrunk;
  const half = (z / shrunk) * Math.sqrt((share * (1 - share)) / trials + (z * z) / (4 * trials * trials));
  return {
    rate: share,
    // At the ends the interval touches them: rounding must not take it past.
    low: successes === 0 ? 0 : Math.max(0, centre - half),
    high: successes === trials ? 1 : Math.min(1, centre + half),
  };
}

/**
 * How much larger the share of b is than that of a, with its hybrid score interval (R. G. Newcombe 1998, method 10).
 * @param confidence - between 0 and 1
 * @returns differences of shares from −1 to 1; none where one of them was never tried
 * @throws RangeError that names what is no count
 */
export function difference(
  a: Counted,
  b: Counted,
  confidence = 0.95,
): Interval & { readonly difference: number | undefined } {
  demandShare(a.successes, a.trials, 'a');
  demandShare(b.successes, b.trials, 'b');
  demandConfidence(confidence);
  const [of, to] = [rate(a.successes, a.trials, confidence), rate(b.successes, b.trials, confidence)];
  if (of.rate === undefined || to.rate === undefined) return { difference: undefined, low: -1, high: 1 };
  const between = to.rate - of.rate;
  return {
    difference: between,
    low: Math.max(-1, between - Math.hypot(to.rate - to.low, of.high - of.rate)),
    high: Math.min(1, between + Math.hypot(to.high - to.rate, of.rate - of.low)),
  };
}
