/** What an answer adds to a message and takes away, in a few words. */
import { compareWords } from '../words/compare.js';

/** What a rewording adds and takes away, as plain words. */
export interface Difference {
  readonly adds: string;
  readonly takes: string;
}

/** @param before the plain text as it was @param after as it is */
export function difference(before: string, after: string, locale?: string): Difference {
  // Only the neighbourhood of the change is compared: comparing words is dear for a long text.
  let start = 0;
  const shorter = Math.min(before.length, after.length);
  while (start < shorter && before[start] === after[start]) start += 1;
  let end = 0;
  while (end < shorter - start && before.at(-1 - end) === after.at(-1 - end)) end += 1;
  const from = Math.max(0, before.lastIndexOf(' ', start), before.lastIndexOf('\n', start));
  const cut = (text: string): string => {
    const to = text.slice(text.length - end).search(/\s/);
    return text.slice(from, text.length - end + (to < 0 ? end : to));
  };
  const runs = compareWords(cut(before), cut(after), locale);
  const side = (which: 'left' | 'right'): string =>
    runs
      .filter((run) => run.in === which)
      .map((run) => run.text)
      .join(' … ')
      .replace(/\s+/g, ' ')
      .trim();
  return { adds: side('right'), takes: side('left') };
}
