/** Series in words: waits, moments, and what becomes of steps. */
import type { RunStep, RunSummary } from '@vocabula/contract';
import { labelFromKey, type OutcomeFlag, type Step } from '@vocabula/core';
import type { Foreseen, Path } from '@vocabula/core/series';
import { showMoment } from '../ui/dates/reader';

/** When a step goes, as a sentence's end: `3 working days after the step before, at 09:30`. */
export function waitWords({ days = 0, working, before, after, at }: Step, isFirst: boolean): string {
  const anchor = before ?? after;
  const count = `${days} ${working ? 'working ' : ''}${days === 1 ? 'day' : 'days'}`;
  const named = anchor === undefined ? '' : labelFromKey(anchor);
  const when =
    anchor === undefined
      ? days === 0
        ? isFirst
          ? 'at once'
          : 'right after the step before'
        : `${count} after ${isFirst ? 'the start' : 'the step before'}`
      : days === 0
        ? `on the day of “${named}”`
        : `${count} ${before === undefined ? 'after' : 'before'} “${named}”`;
  return at === undefined ? when : `${when}, at ${at}`;
}

/** `Mon 30 Nov, 09:00`, in the reader's own words for days. */
export const momentWords = (at: string | number): string => showMoment(new Date(at), 'clock');

const CAME: Readonly<Record<OutcomeFlag, string>> = {
  answered: 'answered',
  followed: 'a link followed',
  opened: 'opened',
};
/** What came of a message on a path. */
export const cameWords = (then: readonly OutcomeFlag[]): string => then.map((flag) => CAME[flag]).join(', ');

/** How a path ends. */
export const endWords = ({ steps, ends }: Path): string =>
  ends === 'answered' ? 'stops at the answer' : steps.length === 0 ? 'no message goes' : 'ends with its last step';

/** What will become of a step, before a series begins. */
export function foreseenWords({ what, at, without }: Foreseen, labelOf: (key: string) => string): string {
  switch (what) {
    case 'goes':
      return at === undefined ? '' : momentWords(at);
    case 'perhaps':
      return `${at === undefined ? '' : momentWords(at)}, depending on what comes back`;
    case 'left out':
      return 'left out: its condition does not hold';
    case 'passed':
      return `left out: its day has passed${at === undefined ? '' : ` (${momentWords(at)})`}`;
    case 'unknown':
      return without === undefined
        ? 'not known yet: its condition lacks a value'
        : `not known yet: “${labelOf(without)}” is missing`;
  }
}

const STATES: Readonly<Record<RunStep['state'], string>> = {
  waiting: 'waits for its moment',
  look: 'waits for you',
  gone: 'gone',
  'left out': 'left out',
  passed: 'left out',
  skipped: 'left out',
};
/** Where a step of a series under way stands. */
export function stepWords({ state, why, moment, perhaps, moved }: RunStep): string {
  const when = moment === undefined ? '' : momentWords(moment);
  const parts = [
    state === 'waiting' ? when || STATES.waiting : STATES[state],
    state === 'gone' ? when : '',
    state === 'waiting' && perhaps ? 'depending on what comes back' : '',
    state === 'waiting' && moved ? 'moved by hand' : '',
    why,
  ];
  return parts.filter(Boolean).join(' · ');
}

/** Where a series under way stands, in a line. */
export function runWords({ state, why, gone, steps, next, endedAt }: RunSummary): string {
  if (state === 'stopped') return `stopped: ${why}`;
  if (state === 'done') return `done${endedAt ? ` ${showMoment(endedAt, 'day')}` : ''}, ${gone} of ${steps} sent`;
  if (next?.look) return `“${next.title}” waits for you: ${next.why}`;
  return next
    ? `${gone} of ${steps} sent · next “${next.title}”${next.due ? `, ${momentWords(next.due)}` : ''}`
    : `${gone} of ${steps} sent`;
}
