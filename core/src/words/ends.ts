/**
 * What stands at the end of a text. Regular expressions that end in `+$` look from every place to the end and are
 * quadratic; these look once, from behind.
 */

/** How many of the last UTF-16 units of a text are among some characters. @param before where the text ends */
export function countAtEnd(text: string, characters: string, before = text.length): number {
  let at = before;
  while (at > 0 && characters.includes(text.charAt(at - 1))) at -= 1;
  return before - at;
}

/** A text without those of its last characters that are among some. */
export const withoutAtEnd = (text: string, characters: string): string =>
  text.slice(0, text.length - countAtEnd(text, characters));

/** The last units of a text, where only they are of interest. */
export const lastOf = (text: string, units: number): string => (text.length > units ? text.slice(-units) : text);
