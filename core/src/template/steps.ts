/** The steps of a series: which template goes when, and under what condition. */

/** What happens to a series when one of its messages is answered. */
export const ON_ANSWER = ['stop', 'continue'] as const;
/** What happens to a series when one of its messages is answered: it stops, unless it says otherwise. */
export type OnAnswer = (typeof ON_ANSWER)[number];

/** The most steps that a series has. */
export const MOST_STEPS = 30;
/** The longest wait of a step, in days. */
export const MOST_DAYS = 3650;

/** What a condition of a step may ask beside the values of the series: what became of the messages before it. */
export const OUTCOME_FLAGS = ['answered', 'followed', 'opened'] as const;
/** What became of earlier messages of a series, to one recipient. */
export type OutcomeFlag = (typeof OUTCOME_FLAGS)[number];

/**
 * One message of a series. It goes so many days after the step before it (after the beginning, for the first), or so
 * many days before or after a day among the values of the series.
 */
export interface Step {
  /** The name of its template. */
  readonly text: string;
  /** Left out, none: at once, or on the day that is named. */
  readonly days?: number;
  /** Counts working days only. */
  readonly working?: true;
  /** The key of the day that is counted from; one of the two at most. */
  readonly before?: string;
  readonly after?: string;
  /** The time of day, `09:30`; left out, that of the step before. */
  readonly at?: string;
  /** An expression over the values of the series and what became of earlier messages; left out, it always goes. */
  readonly when?: string;
  /** It waits until somebody has looked at it. */
  readonly look?: true;
  /** Keys of questions that are asked on the day, not at the beginning. */
  readonly later?: readonly string[];
}

const WAIT = /^(?:(\d{1,4}) (working )?days?(?: (before|after) ([a-z][a-z0-9_]*))?|on ([a-z][a-z0-9_]*))$/;

/** The wait of a step as files have it: `3 working days before visit_date`, `on visit_date`, or undefined for none. */
export function writeWait({ days = 0, working, before, after }: Step): string | undefined {
  const anchor = before ?? after;
  if (days === 0) return anchor === undefined ? undefined : `on ${anchor}`;
  const counted = `${days} ${working ? 'working ' : ''}day${days === 1 ? '' : 's'}`;
  if (before !== undefined) return `${counted} before ${before}`;
  return after === undefined ? counted : `${counted} after ${after}`;
}

/** Reads a wait as it is written. @returns undefined for what is none */
export function readWait(text: string): Pick<Step, 'days' | 'working' | 'before' | 'after'> | undefined {
  const [, count, working, side, anchor, on] = WAIT.exec(text.trim()) ?? [];
  if (on !== undefined) return { after: on };
  const days = Number(count ?? Number.NaN);
  if (!(days <= MOST_DAYS)) return undefined;
  return {
    ...(days > 0 ? { days } : {}),
    ...(working && days > 0 ? { working: true as const } : {}),
    ...(anchor === undefined ? {} : { [days === 0 ? 'after' : (side as 'before' | 'after')]: anchor }),
  };
}

/** True for a time of day, `09:30`. */
export const isClock = (text: string): boolean => /^(?:[01]\d|2[0-3]):[0-5]\d$/.test(text);
