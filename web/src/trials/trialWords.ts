/** A trial in words. */
import type { Trial } from '@vocabula/contract';
import type { TrialOutcome } from '@vocabula/contract/constants';

/** What counts as an outcome: as a choice, as what is counted, and as what there is more or fewer of. */
export const OUTCOMES: Readonly<
  Record<TrialOutcome, { readonly label: string; readonly about: string; readonly words: string }>
> = {
  answered: { label: 'It is answered', about: 'Counted: how many recipients answer.', words: 'answers' },
  opened: { label: 'It is opened', about: 'Counted: how many recipients open it.', words: 'openings' },
  followed: {
    label: 'A link in it is followed',
    about: 'Counted: how many recipients follow a link in it.',
    words: 'followed links',
  },
};

const inHundred = (share: number): number => Math.round(Math.abs(share) * 100);

/** What a trial says at the moment, in a sentence. */
export function verdictWords({ verdict, best, differences, outcome }: Trial): string {
  const { words } = OUTCOMES[outcome];
  if (verdict === 'no difference that matters') {
    const most = Math.max(...differences.map(({ low, high }) => Math.max(-low, high)));
    return `No difference that matters: at most ${inHundred(most)} ${words} in 100 either way.`;
  }
  if (best === undefined) return 'Not yet: the difference may still be chance.';
  // Of the differences to the others the smallest is promised.
  const over = differences.filter(({ of }) => of === best);
  const low = Math.min(...over.map((each) => each.low));
  const high = Math.min(...over.map((each) => each.high));
  return `Version ${best} is better: ${inHundred(low)} to ${inHundred(high)} more ${words} in 100.`;
}

/** How far the difference of two versions is known. */
export function rangeWords({ of, to, low, high }: Trial['differences'][number], outcome: TrialOutcome): string {
  const { words } = OUTCOMES[outcome];
  const signed = (share: number): string => `${inHundred(share)} ${share < 0 ? 'fewer' : 'more'}`;
  return `Version ${of} gets between ${signed(low)} and ${signed(high)} ${words} in 100 than version ${to}.`;
}

/** Differences of each pair, the later version first. */
export const pairs = ({ differences }: Trial): Trial['differences'] => differences.filter(({ of, to }) => of > to);
