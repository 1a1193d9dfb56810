/** Days written in words, by language. */
import { dayFormat } from '../values/intl.js';
import { isDay } from '../values/date.js';

/** Languages, by two letters, whose written dates are recognised. */
export const DATE_LANGUAGES = ['en', 'de', 'fr', 'es', 'it', 'nl'];
const LITTLE = '(?:den|der|le|el|il|de|of|the)';

/** A text as a regular expression that matches exactly that text. */
export const escapePattern = (text: string): string => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');

/** A day as it is written out in a text, with its place in it. */
export interface WrittenDay {
  /** ISO, or undefined for one that is in no calendar. */
  readonly day: string | undefined;
  readonly index: number;
  readonly text: string;
}

/** The names of the months, January first, in small letters. */
export function monthsOf(language: string): readonly string[] {
  const format = dayFormat(language, { month: 'long' });
  return Array.from({ length: 12 }, (_, month) => format.format(Date.UTC(2001, month, 15)).toLocaleLowerCase(language));
}

/** The source of a pattern with five groups: day, month and year, or month, day and year. */
export function dayPattern(language: string): string {
  const month = `(${monthsOf(language).map(escapePattern).join('|')})`;
  const day = '(\\d{1,2})(?:st|nd|rd|th|er|\\.)?';
  const year = '(\\d{4})';
  return `(?:${day}\\s+(?:${LITTLE}\\s+)?${month},?\\s+(?:${LITTLE}\\s+)?${year}|${month}\\s+(\\d{1,2})(?:st|nd|rd|th)?,?\\s+${year})(?!\\d)`;
}

/** The day that the six groups of `dayPattern` say. */
export function dayOfGroups(
  groups: readonly (string | undefined)[],
  months: readonly string[],
  language: string,
): string | undefined {
  const [d1, m1, y1, m2, d2, y2] = groups;
  const month = months.indexOf((m1 ?? m2 ?? '').toLocaleLowerCase(language)) + 1;
  const day = `${y1 ?? y2}-${String(month).padStart(2, '0')}-${(d1 ?? d2 ?? '').padStart(2, '0')}`;
  return isDay(day) ? day : undefined;
}

const patterns = new Map<string, { readonly pattern: RegExp; readonly months: readonly string[] }>();

/** All days with a year that a line writes out. */
export function writtenDays(text: string, language: string): WrittenDay[] {
  let made = patterns.get(language);
  if (!made) {
    made = { pattern: new RegExp(`(?<![\\p{L}\\d])${dayPattern(language)}`, 'giu'), months: monthsOf(language) };
    patterns.set(language, made);
  }
  const { pattern, months } = made;
  return [...text.matchAll(pattern)].map((match) => ({
    day: dayOfGroups(match.slice(1, 7), months, language),
    index: match.index,
    text: match[0],
  }));
}

/** Words that say of a day that it lies behind us, and so is meant to, by language. */
const PAST_WORDS: Readonly<Record<string, RegExp>> = {
  en: /\b(?:since|was|were|had|dated|born|received|sent|paid|visited|joined|began|founded|opened|your (?:letter|message|mail|e-mail|order|visit) (?:of|from|on)|thank you for|ago|last|history|established|©|copyright)\b/iu,
  de: /(?<!\p{L})(?:seit|war|waren|hatte|hatten|geboren|erhalten|gegründet|vom|letzten?|danke)(?!\p{L})/iu,
  fr: /(?<!\p{L})(?:depuis|était|étaient|avait|né|née|reçu|daté|dernier|dernière|merci)(?!\p{L})/iu,
  es: /(?<!\p{L})(?:desde|fue|era|nacid[oa]|recibid[oa]|pasad[oa]|gracias)(?!\p{L})/iu,
  it: /(?<!\p{L})(?:dal|era|nat[oa]|ricevut[oa]|scors[oa]|grazie)(?!\p{L})/iu,
  nl: /(?<!\p{L})(?:sinds|was|waren|geboren|ontvangen|afgelopen|dank)(?!\p{L})/iu,
};

/** True if the sentence around an offset speaks of what is past. */
export function speaksOfThePast(text: string, at: number, language: string): boolean {
  const start = Math.max(text.lastIndexOf('. ', at), text.lastIndexOf('\n', at), 0);
  const end = text.indexOf('. ', at);
  return PAST_WORDS[language]?.test(text.slice(start, end < 0 ? undefined : end)) ?? true;
}
