/** Two stretches of words beside each other: what both say, and what only one does. */
import { diffWordsWithSpace } from 'diff';

/** A run of words; `in` tells whether both sides have it. */
export interface Run {
  readonly text: string;
  readonly in: 'both' | 'left' | 'right';
}

/**
 * The runs of both sides in reading order: those of `both` and `left` together are the left side, letter by letter,
 * those of `both` and `right` the right one. Words, spaces and punctuation are compared (Myers 1986, by `diff`);
 * a language with no spaces between its words is compared by its sentences' words all the same.
 * @param locale the language whose words are meant, as a tag
 */
export function compareWords(left: string, right: string, locale = 'en-GB'): readonly Run[] {
  if (left === right) return left === '' ? [] : [{ text: left, in: 'both' }];
  const intlSegmenter = new Intl.Segmenter(locale, { granularity: 'word' });
  return diffWordsWithSpace(left, right, { intlSegmenter }).map(({ value, added, removed }) => ({
    text: value,
    in: added ? 'right' : removed ? 'left' : 'both',
  }));
}
