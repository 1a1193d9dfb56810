/** Weekdays as they are written in a language. */
import { lastOf, withoutAtEnd } from '../words/ends.js';
import { dayFormat } from './intl.js';

const weekdayNames = new Map<string, readonly string[]>();

/** The weekday names of a locale, from Sunday. */
export function weekdaysOf(locale: string): readonly string[] {
  let names = weekdayNames.get(locale);
  if (!names) {
    const format = dayFormat(locale, { weekday: 'long' });
    // 4 January 1970 was a Sunday.
    names = Array.from({ length: 7 }, (_, day) => format.format((day + 3) * 86_400_000).toLocaleLowerCase(locale));
    weekdayNames.set(locale, names);
  }
  return names;
}

/** The weekday that a text ends with, right before a date: 0 is Sunday; undefined if it ends with none. */
export function weekdayBefore(text: string, locale: string): number | undefined {
  const words = withoutAtEnd(lastOf(text, 60).toLocaleLowerCase(locale), ' \t\n\u00A0\u202F,');
  if (words.length === Math.min(text.length, 60)) return undefined;
  const day = weekdaysOf(locale).findIndex(
    (name) => words.endsWith(name) && !/\p{L}$/u.test(words.slice(0, -name.length)),
  );
  return day < 0 ? undefined : day;
}
