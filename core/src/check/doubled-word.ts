import { advice } from '../findings/finding.js';
import { placeIn, replacing, type Check } from './check.js';

/** Words that may rightly stand twice, by language. */
const LEGITIMATE: Readonly<Record<string, readonly string[]>> = {
  en: [
    'had',
    'that',
    'bye',
    'very',
    'so',
    'no',
    'now',
    'there',
    'knock',
    'hear',
    'half',
    'well',
    'is',
    'do',
    'her',
    'in',
    'on',
    'can',
    'long',
    'many',
    'never',
  ],
  de: ['die', 'der', 'das', 'den', 'sie', 'sehr', 'so', 'nach', 'dem', 'ihr'],
  fr: ['nous', 'vous', 'très', 'bla', 'si', 'que'],
  es: ['muy', 'no', 'que'],
  it: ['molto', 'piano', 'così', 'via', 'non', 'che'],
  nl: ['heel', 'die', 'zo', 'dat'],
};
const TWICE = /(?<![\p{L}\p{N}'’-])(\p{L}+)([ \u00A0]+)\1(?![\p{L}\p{N}'’-])/giu;

/** The same word twice in a row. */
export const doubledWord: Check = {
  languages: Object.keys(LEGITIMATE),
  run: ({ lines, language }) =>
    lines.flatMap((line) =>
      [...line.text.matchAll(TWICE)].flatMap((match) => {
        const [whole, word = ''] = match;
        if (LEGITIMATE[language]?.includes(word.toLowerCase())) return [];
        // Two names with capitals (“Duran Duran”) are meant, unless they begin the line.
        if (/^\p{Lu}/u.test(word) && whole.endsWith(word) && match.index > 0) return [];
        const place = placeIn(line, match.index, whole.length);
        const repair = replacing(`Leave one “${word}”`, place, word);
        return [advice({ code: 'doubled-word', word }, place, 'warning', repair)];
      }),
    ),
};
