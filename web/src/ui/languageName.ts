/** The name of a language by its tag: `German (Austria)`; the tag itself where it is none. */
export function languageName(locale: string): string {
  try {
    return new Intl.DisplayNames(['en-GB'], { type: 'language', languageDisplay: 'standard' }).of(locale) ?? locale;
  } catch {
    return locale;
  }
}
