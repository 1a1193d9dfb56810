/** Outcomes of messages in words. */
import type { CountedShare } from '@vocabula/contract';
import { FEWEST_FOR_SHARES } from '@vocabula/contract/constants';
import { difference } from '@vocabula/core/insight';

/** The outcomes in the order of their columns, with their headings. */
export const OUTCOME_NAMES = [
  ['answered', 'Answered'],
  ['opened', 'Opened'],
  ['followed', 'Followed'],
  ['bounced', 'Bounced'],
] as const;

const points = (share: number): string => {
  const whole = Math.round(share * 100);
  return `${whole > 0 ? '+' : whole < 0 ? '−' : ''}${Math.abs(whole)}`;
};

/** By how many percentage points the share of `b` is larger than that of `a`, with its interval and what that means. */
export function differenceWords(a: CountedShare, b: CountedShare): string {
  if (a.trials < FEWEST_FOR_SHARES || b.trials < FEWEST_FOR_SHARES) return 'too few messages';
  const { difference: between = 0, low, high } = difference(a, b);
  const span = `${points(between)} points (${points(low)} to ${points(high)})`;
  return low > 0 ? `${span}: more` : high < 0 ? `${span}: less` : `${span}: may be chance`;
}
