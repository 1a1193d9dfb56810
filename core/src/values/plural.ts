/** CLDR plural categories, from the runtime, and the suffixes of ordinal numbers. */
import { languageOf, pluralRules } from './intl.js';

function rulesFor(locale: string, type: 'cardinal' | 'ordinal', decimals: number | undefined): Intl.PluralRules {
  // "1.0 tickets": the category depends on the digits that are shown.
  const digits =
    decimals === undefined
      ? { maximumFractionDigits: 10 }
      : { minimumFractionDigits: decimals, maximumFractionDigits: decimals };
  return pluralRules(locale, { type, ...digits });
}

/** The category (`one`, `few`, `other` …) of a number shown with so many decimals. */
export function categoryOf(locale: string, value: number, decimals?: number): Intl.LDMLPluralRule {
  return rulesFor(locale, 'cardinal', decimals).select(value);
}

/** Suffixes by language and ordinal category. A language that is not here has no view `ordinal`. */
const ORDINALS: Record<string, Partial<Record<Intl.LDMLPluralRule, string>>> = {
  en: { one: 'st', two: 'nd', few: 'rd', other: 'th' },
  fr: { one: 'er', other: 'e' },
  de: { other: '.' },
  nl: { other: 'e' },
  es: { other: '.º' },
  pt: { other: '.º' },
  it: { many: 'º', other: 'º' },
  da: { other: '.' },
  nb: { other: '.' },
  fi: { other: '.' },
  sv: { one: ':a', other: ':e' },
  pl: { other: '.' },
  cs: { other: '.' },
};

/** What is written behind a number to make it an ordinal, or undefined for languages without a table. */
export function ordinalSuffix(locale: string): ((value: number) => string) | undefined {
  const table = ORDINALS[languageOf(locale)];
  return table && ((value) => table[rulesFor(locale, 'ordinal', undefined).select(value)] ?? table.other ?? '');
}
