import { advice } from '../findings/finding.js';
import { placeIn, type Check } from './check.js';

const FEWEST_LETTERS = 4;

/** The name or address of a sample recipient stands as fixed text: the last message's customer in the next one's. */
export const strayValue: Check = {
  run({ lines, people }) {
    if (people.length === 0) return [];
    const values = new Map<string, string>();
    for (const fields of people)
      for (const [key, value] of Object.entries(fields)) {
        if (!/name|mail|organi[sz]ation|company|phone/i.test(key) || typeof value !== 'string') continue;
        const words = value.trim();
        // A given name alone may be a month, a flower or somebody of the house.
        const telling = words.length >= FEWEST_LETTERS && (/[\s@\d]/.test(words) || /last|family|sur/.test(key));
        if (telling) values.set(words.toLowerCase(), words);
      }
    return lines.flatMap((line) => {
      const text = line.text.toLowerCase();
      return [...values].flatMap(([folded, words]) => {
        const at = text.indexOf(folded);
        if (at < 0) return [];
        const around = `${text[at - 1] ?? ''}${text[at + folded.length] ?? ''}`;
        // A name has its capitals; “young” is no stray Young.
        if (/[\p{L}\p{N}]/u.test(around) || line.text.slice(at, at + words.length) !== words) return [];
        return [advice({ code: 'stray-value', text: words }, placeIn(line, at, words.length))];
      });
    });
  },
};
