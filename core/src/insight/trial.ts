import { demandConfidence, demandShare, logBeta } from './numbers.js';
import type { Counted, Interval } from './rate.js';

/** How close the ends of an interval are found. */
const CLOSE = 1e-9;

/**
 * The interval of one share that holds at every moment at once, however often it is looked at: the Beta(½, ½) mixture
 * martingale (H. Robbins 1970; S. R. Howard, A. Ramdas, J. McAuliffe, J. Sekhon 2021). It holds all shares p under which
 * what happened is not rarer than 1 − confidence: B(s + ½, n − s + ½) / B(½, ½) < p^s (1 − p)^(n − s) / (1 − confidence).
 * @param confidence - between 0 and 1
 * @throws RangeError that names what is no count
 */
export function always(successes: number, trials: number, confidence = 0.95): Interval {
  demandShare(successes, trials);
  demandConfidence(confidence);
  if (trials === 0) return { low: 0, high: 1 };
  const failures = trials - successes;
  const least = logBeta(successes + 0.5, failures + 0.5) - logBeta(0.5, 0.5) + Math.log(1 - confidence);
  const likely = (p: number): boolean =>
    (successes === 0 ? 0 : successes * Math.log(p)) + (failures === 0 ? 0 : failures * Math.log1p(-p)) > least;
  const share = successes / trials;
  return {
    low: successes === 0 || likely(0) ? 0 : edge(likely, share, 0),
    high: failures === 0 || likely(1) ? 1 : edge(likely, share, 1),
  };
}
/** Where what is likely ends on the way out: the likelihood falls on both sides of the observed share. */
function edge(likely: (p: number) => boolean, inside: number, outside: number): number {
  let [is, not] = [inside, outside];
  while (Math.abs(is - not) > CLOSE) {
    const middle = (is + not) / 2;
    if (likely(middle)) is = middle;
    else not = middle;
  }
  return not;
}

/** One of the versions that are used side by side. */
export interface Arm extends Counted {
  readonly name: string;
}
/** How much larger the share of one arm is than that of another, at least and at most. */
export interface ArmDifference extends Interval {
  readonly of: string;
  readonly to: string;
}
/** What a trial says at the moment. */
export interface TrialResult {
  readonly verdict: 'not yet' | 'better' | 'no difference that matters';
  /** The arm that is better than all others, once one is. */
  readonly best: string | undefined;
  /** Of each arm to each other. */
  readonly differences: readonly ArmDifference[];
}

/**
 * A trial as it stands. Each of k arms has the interval that always holds at 1 − α/k, so that of all trials at most α ever
 * say something false, at whatever moments they are looked at (union over the arms).
 * @param options.matters - the smallest difference worth having, as a share: 0.05 for 5 points
 * @throws RangeError that names what is no count, fewer than two arms, or two of one name
 */
export function trial(
  arms: readonly Arm[],
  { matters, confidence = 0.95 }: { readonly matters: number; readonly confidence?: number },
): TrialResult {
  if (arms.length < 2) throw new RangeError(`arms are two at least, not ${arms.length}`);
  if (new Set(arms.map(({ name }) => name)).size < arms.length) throw new RangeError('arms have names of their own');
  if (!(matters >= 0 && matters <= 1)) throw new RangeError(`matters is a share from 0 to 1, not ${matters}`);
  demandConfidence(confidence);
  for (const { name, successes, trials } of arms) demandShare(successes, trials, name);
  const each = 1 - (1 - confidence) / arms.length;
  const known = arms.map(({ name, successes, trials }) => ({ name, ...always(successes, trials, each) }));
  const differences = known.flatMap((of) =>
    known
      .filter((to) => to !== of)
      .map((to) => ({ of: of.name, to: to.name, low: of.low - to.high, high: of.high - to.low })),
  );
  const best = known.find(({ name }) => differences.every(({ of, low }) => of !== name || low > 0))?.name;
  const same = differences.every(({ low, high }) => low >= -matters && high <= matters);
  return {
    verdict: best !== undefined ? 'better' : same ? 'no difference that matters' : 'not yet',
    best,
    differences,
  };
}

/** The most recipients that are reckoned with. */
const MOST = 1_000_000;

/**
 * How many recipients each version needs before a trial that shows no difference can say so: with as many, the intervals
 * of versions with the same share are so close that their difference lies within `matters`. A larger difference is seen
 * with fewer.
 * @param share - what is expected of each version
 * @param options.matters - the smallest difference worth having, as a share
 * @param options.arms - how many versions there are
 * @returns undefined where a million are too few
 * @throws RangeError that names what is no share
 */
export function recipientsNeeded(
  share: number,
  {
    matters,
    arms,
    confidence = 0.95,
  }: { readonly matters: number; readonly arms: number; readonly confidence?: number },
): number | undefined {
  if (!(share >= 0 && share <= 1)) throw new RangeError(`share is from 0 to 1, not ${share}`);
  if (!(matters > 0 && matters <= 1)) throw new RangeError(`matters is a share above 0, not ${matters}`);
  demandConfidence(confidence);
  const each = 1 - (1 - confidence) / arms;
  const isEnough = (count: number): boolean => {
    const { low, high } = always(Math.round(share * count), count, each);
    return high - low <= matters;
  };
  let [few, enough] = [1, 2];
  while (!isEnough(enough)) {
    if (enough > MOST) return undefined;
    [few, enough] = [enough, enough * 2];
  }
  while (enough - few > 1) {
    const middle = Math.floor((few + enough) / 2);
    if (isEnough(middle)) enough = middle;
    else few = middle;
  }
  return enough;
}
