/** Shares in words: the percentage, its interval and its count. */
import type { CountedShare } from '@vocabula/contract';
import { FEWEST_FOR_SHARES } from '@vocabula/contract/constants';
import { rate } from '@vocabula/core/insight';

export interface ShareWords {
  /** `22 %`; only the count for too few messages; `–` for none. */
  readonly share: string;
  /** `17–28 % of 253`, or `of 7`. */
  readonly span: string;
  /** Number that a column is sorted by; too few messages come last. */
  readonly order: number;
}
const percent = (share: number): number => Math.round(share * 100);

export function shareWords({ successes, trials }: CountedShare): ShareWords {
  if (trials === 0) return { share: '–', span: '', order: -2 };
  const { rate: share = 0, low, high } = rate(successes, trials);
  if (trials < FEWEST_FOR_SHARES) return { share: String(successes), span: `of ${trials}`, order: -1 };
  return {
    share: `${percent(share)} %`,
    span: `${percent(low)}–${percent(high)} % of ${trials}`,
    order: share,
  };
}

/** A duration in seconds, in words: `45 s`, `3 min`. */
export const lengthWords = (seconds: number | undefined): string =>
  seconds === undefined ? '–' : seconds < 90 ? `${Math.round(seconds)} s` : `${Math.round(seconds / 60)} min`;
