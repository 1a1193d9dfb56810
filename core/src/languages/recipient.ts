/** In which language somebody is written to, where a field of theirs says so. */
import { languageOf } from '../values/intl.js';
import { fold } from '../words/fold.js';

/** Keys of fields that say a language, as tables in several languages head them. */
const FIELDS =
  /^(?:(?:preferred_)?(?:language|lang|locale)|sprache|langue|lingua|idioma|taal|teanga|jezyk|sprak|kieli)$/;

/** Whether a field of a recipient says a language. */
export const saysLanguage = (fields: Readonly<Record<string, string>>): boolean =>
  Object.entries(fields).some(([key, value]) => FIELDS.test(key) && value.trim() !== '');

/** Languages in whose own words, beside English and the language itself, a language may be named. */
const NAMED_IN = ['en', 'de', 'fr', 'es', 'it', 'nl', 'pl', 'ga'] as const;

/**
 * Which of some locales a recipient's fields ask for: by its tag (`de`, `de-AT`) or by its name (“German”, “Deutsch”).
 * @returns none where no field says a language, or one that is not among them
 */
export function localeAsked(fields: Readonly<Record<string, string>>, locales: readonly string[]): string | undefined {
  for (const [key, value] of Object.entries(fields)) {
    const said = fold(value.trim());
    if (!FIELDS.test(key) || said === '') continue;
    const tag = said.replaceAll('_', '-');
    const exact = locales.find((locale) => fold(locale) === tag);
    const near = locales.find((locale) => languageOf(locale) === tag.split('-')[0] && /^[a-z]{2,3}(?:-|$)/.test(tag));
    const found = exact ?? near ?? locales.find((locale) => namesOf(locale).includes(said));
    if (found !== undefined) return found;
  }
  return undefined;
}

/** The names of a locale's language, folded. */
function namesOf(locale: string): string[] {
  const language = languageOf(locale);
  return [...NAMED_IN, language].flatMap((inside) =>
    [locale, language].map((tag) => {
      try {
        return fold(new Intl.DisplayNames([inside], { type: 'language' }).of(tag) ?? '');
      } catch {
        return '';
      }
    }),
  );
}
