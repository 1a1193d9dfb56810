/** Dates as the reader writes them: the language, and moments in words or in figures. */

/** A locale for an interface in English: the browser's own English, or British English for other languages. */
export const englishOf = (language: string): string => (/^en\b/i.test(language) ? language : 'en-GB');
const { language: BROWSER = 'en-GB' } = globalThis.navigator ?? {};
/** The reader's locale, for what they read and type on screen. A message has its own. */
export const readersLocale = englishOf(BROWSER);

type WeekLocale = Intl.Locale & { getWeekInfo?: () => { firstDay: number }; weekInfo?: { firstDay: number } };
/** The first day of the week, 0 for Sunday to 6, where `language` is read; Monday where that is not known. */
export function firstWeekday(language = BROWSER): number {
  const locale: WeekLocale = new Intl.Locale(language);
  return ((locale.getWeekInfo?.() ?? locale.weekInfo)?.firstDay ?? 1) % 7;
}

const STYLES = {
  /** `Tuesday, 3 March 2026 at 09:30` */
  words: { dateStyle: 'full', timeStyle: 'short' },
  /** `3 March 2026 at 09:30` */
  long: { dateStyle: 'long', timeStyle: 'short' },
  /** `3 Mar 2026, 09:30` */
  figures: { dateStyle: 'medium', timeStyle: 'short' },
  /** `Tue 3 Mar, 09:30` */
  clock: { weekday: 'short', day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' },
  /** `09:30` */
  time: { hour: '2-digit', minute: '2-digit' },
  /** `09:30:05` */
  seconds: { timeStyle: 'medium' },
  /** `3 March` */
  day: { day: 'numeric', month: 'long' },
  /** `Tuesday 3 March` */
  weekday: { weekday: 'long', day: 'numeric', month: 'long' },
} as const satisfies Record<string, Intl.DateTimeFormatOptions>;

/** A moment (ISO 8601, or a `Date`) in the reader's zone and locale. */
export function showMoment(at: string | Date, style: keyof typeof STYLES, locale = readersLocale): string {
  return new Intl.DateTimeFormat(locale, STYLES[style]).format(new Date(at));
}
