/** The user's day and zone. */
import { dayIn } from '@vocabula/core';
import { showMoment } from './dates/reader';

export const zone = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone;
export const today = (): string => dayIn(new Date(), zone());

/** `10:42` today, `3 March` before, in the reader's language. */
export function whenInWords(iso: string | undefined): string {
  if (!iso) return '';
  const at = new Date(iso);
  const sameDay = at.toDateString() === new Date().toDateString();
  return showMoment(at, sameDay ? 'time' : 'day');
}
