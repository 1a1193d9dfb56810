/** Comparing words as people type them. */

/** Letters that no decomposition takes apart, as they are typed where a keyboard lacks them. */
const PLAIN: Readonly<Record<string, string>> = {
  ß: 'ss',
  æ: 'ae',
  œ: 'oe',
  ø: 'o',
  đ: 'd',
  ð: 'd',
  ł: 'l',
  þ: 'th',
  ı: 'i',
};

/** Lower case without marks: `Größe`, `GROSSE` and `grösse` are the same words. */
export const fold = (text: string): string =>
  text
    .normalize('NFKD')
    .replace(/\p{M}+/gu, '')
    .toLowerCase()
    .replace(/[ßæœøđðłþı]/g, (letter) => PLAIN[letter] as string);

/** True if a text holds every word of a query, in any order; an empty query is in every text. */
export function holdsWords(text: string, query: string): boolean {
  const folded = fold(text);
  return fold(query)
    .split(/\s+/)
    .every((word) => folded.includes(word));
}
