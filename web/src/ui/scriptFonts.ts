/**
 * Fonts for scripts that the interface's font lacks. Each is a style sheet of many small files, of which the browser
 * fetches those with letters that are shown; the sheet itself is loaded when its script is first met.
 */
const FONTS: readonly { readonly letters: RegExp; readonly load: () => Promise<unknown> }[] = [
  // Japanese before Chinese, with which it shares its ideographs: what only names tell apart is shown in one hand.
  { letters: /[\u3040-\u30FF]/, load: () => import('@fontsource-variable/noto-sans-jp') },
  { letters: /[\u1100-\u11FF\uAC00-\uD7AF]/, load: () => import('@fontsource-variable/noto-sans-kr') },
  { letters: /[\u4E00-\u9FFF]/, load: () => import('@fontsource-variable/noto-sans-sc') },
  { letters: /[\u0600-\u06FF\u0750-\u077F]/, load: () => import('@fontsource-variable/noto-sans-arabic') },
  { letters: /[\u0590-\u05FF]/, load: () => import('@fontsource-variable/noto-sans-hebrew') },
  { letters: /[\u0900-\u097F]/, load: () => import('@fontsource-variable/noto-sans-devanagari') },
];
const loaded = new Set<number>();
/** Anything that is neither Latin, Greek nor Cyrillic, nor a sign: most text is settled by this alone. */
const OTHER = /[\u0590-\u07FF\u0900-\u1FFF\u2E80-\uD7FF]/;

/** The numbers of the fonts that a text needs. */
export const fontsFor = (text: string): number[] =>
  OTHER.test(text) ? FONTS.flatMap(({ letters }, at) => (letters.test(text) ? [at] : [])) : [];

/** Loads the fonts of all scripts in a text that is going to be shown. A font that cannot be had is tried again. */
export function showScriptsOf(text: string): void {
  for (const at of fontsFor(text)) {
    if (loaded.has(at)) continue;
    loaded.add(at);
    FONTS[at]?.load().catch(() => loaded.delete(at));
  }
}
