import { advice } from '../findings/finding.js';
import { placeIn, type Check } from './check.js';

const PAIRS: Readonly<Record<string, string>> = { '(': ')', '[': ']', '“': '”', '«': '»' };
/** German opens with „ and closes with “; Swedish and others close with what opens elsewhere. */
const GERMAN: Readonly<Record<string, string>> = { '(': ')', '[': ']', '„': '“', '»': '«' };
/** A list's “a)” or “1)”, and faces. */
const ENUMERATED = /(?:^|\s)(?:\p{L}|\d{1,2})\)|[:;]-?[()]/gu;

/** A bracket or quotation mark that is opened and not closed in its line, or closed and not opened. */
export const unbalancedPunctuation: Check = {
  languages: ['en', 'de', 'es', 'it', 'nl', 'fr', 'ga'],
  run: ({ lines, language }) => {
    const pairs = language === 'de' ? GERMAN : PAIRS;
    const closing = new Map(Object.entries(pairs).map(([open, close]) => [close, open]));
    return lines.flatMap((line) => {
      const text = line.text.replace(ENUMERATED, (match) => ' '.repeat(match.length));
      const open: { readonly sign: string; readonly at: number }[] = [];
      for (let at = 0; at < text.length; at += 1) {
        const sign = text[at] ?? '';
        if (Object.hasOwn(pairs, sign)) open.push({ sign, at });
        else if (closing.has(sign)) {
          if (open.at(-1)?.sign === closing.get(sign)) open.pop();
          else return [advice({ code: 'unbalanced-punctuation', sign, opens: false }, placeIn(line, at, 1))];
        }
      }
      const [left] = open;
      return left
        ? [advice({ code: 'unbalanced-punctuation', sign: left.sign, opens: true }, placeIn(line, left.at, 1))]
        : [];
    });
  },
};
