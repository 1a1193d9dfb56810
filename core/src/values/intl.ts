/** The runtime's formats, each made once: making one takes longer than a thousand uses of it. */

const made = new Map<string, unknown>();
/** A library with more formats than this starts over; nobody's has. */
const MOST = 2000;

function once<T>(kind: string, locale: string, options: object, make: () => T): T {
  const id = `${kind} ${locale} ${JSON.stringify(options)}`;
  let format = made.get(id) as T | undefined;
  if (format === undefined) {
    format = make();
    if (made.size >= MOST) made.clear();
    made.set(id, format);
  }
  return format;
}

/** Formats days, given as milliseconds of their midnight in UTC. */
export const dayFormat = (locale: string, options: Intl.DateTimeFormatOptions): Intl.DateTimeFormat =>
  once('date', locale, options, () => new Intl.DateTimeFormat(locale, { ...options, timeZone: 'UTC' }));

/** A formatter of numbers, made once for each language and options. */
export const numberFormat = (locale: string, options: Intl.NumberFormatOptions = {}): Intl.NumberFormat =>
  once('number', locale, options, () => new Intl.NumberFormat(locale, options));

/** Plural rules, made once for each language and options. */
export const pluralRules = (locale: string, options: Intl.PluralRulesOptions): Intl.PluralRules =>
  once('plural', locale, options, () => new Intl.PluralRules(locale, options));

/** Joins with the locale's “and”. */
export const listFormat = (locale: string): Intl.ListFormat =>
  once('list', locale, {}, () => new Intl.ListFormat(locale, { type: 'conjunction' }));

/** Finds the sentences of a text. */
export const sentenceSegmenter = (locale: string): Intl.Segmenter =>
  once('sentence', locale, {}, () => new Intl.Segmenter(locale, { granularity: 'sentence' }));

/** The language subtag of a locale: `en` of `en-IE`. */
export const languageOf = (locale: string): string =>
  once('language', locale, {}, () => new Intl.Locale(locale).language);

const RIGHT_TO_LEFT = new Set(['ar', 'he', 'fa', 'ur', 'yi', 'ps', 'sd', 'ug', 'dv']);

/** The direction a locale is written in. */
export function direction(locale: string): 'ltr' | 'rtl' {
  return RIGHT_TO_LEFT.has(languageOf(locale)) ? 'rtl' : 'ltr';
}

/** What a language is called in another: `Irish` for `ga` in English; its tag where that is not known. */
export function languageName(tag: string, locale: string): string {
  try {
    return new Intl.DisplayNames([locale], { type: 'language' }).of(tag) ?? tag;
  } catch {
    return tag;
  }
}
