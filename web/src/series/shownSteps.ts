/** Steps as the line of time and the list beside it show them: foreseen, tried out, or under way. */
import type { RunStep } from '@vocabula/contract';

export interface ShownStep {
  /** From 0. */
  readonly at: number;
  readonly title: string;
  /** Milliseconds since 1970; none where it has no moment. */
  readonly moment?: number;
  readonly kind: 'ahead' | 'perhaps' | 'gone' | 'look' | 'out';
  /** When it goes, or why it does not. */
  readonly words: string;
}

/** A step of a series under way. @param words what is said of it */
export const shownStep = ({ at, title, state, moment, perhaps }: RunStep, words: string): ShownStep => ({
  at,
  title,
  words,
  kind:
    state === 'gone'
      ? 'gone'
      : state === 'look'
        ? 'look'
        : state === 'waiting'
          ? perhaps
            ? 'perhaps'
            : 'ahead'
          : 'out',
  ...(moment === undefined ? {} : { moment: Date.parse(moment) }),
});
