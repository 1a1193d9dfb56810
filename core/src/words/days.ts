/** Understands dates as people type them, in the reader's order of day and month. */
import { dayFormatter, dayFromNumber, dayNumber, isDay } from '../values/date.js';
import { dayFormat } from '../values/intl.js';
import { weekdaysOf } from '../values/weekdays.js';
import { fold } from './fold.js';

/** What a language calls things, as it is compared with what is typed. */
interface Names {
  readonly months: readonly string[];
  readonly weekdays: readonly string[];
  readonly monthFirst: boolean;
}
const known = new Map<string, Names>();

/** Made once for each language: dates are looked for in whole mails. */
function namesOf(locale: string): Names {
  const before = known.get(locale);
  if (before) return before;
  const month = dayFormat(locale, { month: 'long' });
  const names: Names = {
    months: Array.from({ length: 12 }, (_, at) => fold(month.format(Date.UTC(2027, at, 15)))),
    weekdays: weekdaysOf(locale).map(fold),
    monthFirst: dayFormat(locale, {}).formatToParts(0)[0]?.type === 'month',
  };
  known.set(locale, names);
  return names;
}

/** The number of the month, from 1, that some letters begin, in the reader's language or in English; 0 if none. */
function monthOf(letters: string, locale: string): number {
  for (const language of [locale, 'en']) {
    const { months } = namesOf(language);
    const found = months.filter((name) => name.startsWith(letters));
    if (found.length === 1) return months.indexOf(found[0] as string) + 1;
  }
  return 0;
}

/** Takes a weekday off the front; the date says it again. */
function withoutWeekday(text: string, locale: string): string {
  const [first = '', ...rest] = text.split(/,?\s+/);
  const isWeekday = [locale, 'en'].some((language) =>
    namesOf(language).weekdays.some((name) => first.length > 1 && name.startsWith(first.replace(/\.$/, ''))),
  );
  return isWeekday && rest.length > 0 ? rest.join(' ') : text;
}

/** The ISO day that a text means, or undefined. `11/5/27`, `11 May`, `tomorrow`, `+14`, `2027-05-11`. */
export function understandDay(text: string, today: string, locale: string): string | undefined {
  const typed = withoutWeekday(fold(text.trim()), locale);
  if (isDay(typed)) return typed;
  const relative =
    { today: 0, tomorrow: 1, yesterday: -1 }[typed] ?? (/^[+-]\d{1,4}$/.test(typed) ? Number(typed) : undefined);
  if (relative !== undefined) return dayFromNumber(dayNumber(today) + relative);
  const { monthFirst } = namesOf(locale);
  const numbers = /^(\d{1,2})[./\s-](\d{1,2})(?:[./\s-](\d{2,4}))?$/.exec(typed);
  if (numbers) {
    const [first = '', second = ''] = [numbers[1], numbers[2]];
    return build(monthFirst ? second : first, Number(monthFirst ? first : second), numbers[3], today);
  }
  const words =
    /^(\d{1,2})(?:st|nd|rd|th|\.)?\s+(?:de\s+)?(\p{L}{3,})\.?,?(?:\s+(?:de\s+)?(\d{2,4}))?$/u.exec(typed) ??
    /^(\p{L}{3,})\.?\s+(\d{1,2})(?:st|nd|rd|th)?,?(?:\s+(\d{2,4}))?$/u.exec(typed);
  if (!words) return undefined;
  const dayGroup = /^\d/.test(words[1] ?? '') ? words[1] : words[2];
  const month = monthOf((dayGroup === words[1] ? words[2] : words[1]) ?? '', locale);
  return build(dayGroup ?? '', month, words[3], today);
}

/** A day without a year is the next one to come. */
function build(day: string, month: number, year: string | undefined, today: string): string | undefined {
  const pad = (value: number | string): string => String(value).padStart(2, '0');
  const whole = (y: number): string => `${String(y).padStart(4, '0')}-${pad(month)}-${pad(day)}`;
  const thisYear = Number(today.slice(0, 4));
  const candidate = whole(year === undefined ? thisYear : Number(year) < 100 ? 2000 + Number(year) : Number(year));
  const chosen = year === undefined && candidate < today ? whole(thisYear + 1) : candidate;
  return isDay(chosen) ? chosen : undefined;
}

/** A day as the form shows it: `Mon 14 June 2027`. */
export function showDay(day: string, locale: string): string {
  if (!isDay(day)) return day;
  const weekday = dayFormat(locale, { weekday: 'short' }).format(dayNumber(day) * 86_400_000);
  return `${weekday} ${dayFormatter('long', locale)?.(day) ?? day}`;
}
