/** Labels for derived questions, from the words around them. */
import { keyFromLabel } from '../template/keys.js';
import type { Option } from '../template/variable.js';
import { fold } from '../words/fold.js';
import { isValue, tokensOfText } from './tokens.js';

/** Words that describe nothing by themselves. */
const FUNCTION_WORDS = new Set(
  (
    'a an the of to on at for in is are be by and or your our we you until from with as it its this that will us i my me so if no not all any has have had was were please do ' +
    'der die das den dem ein eine einen und oder ihr ihre ihren wir sie uns am im um zu zum zur von vom bis mit für auf ist sind wird bitte ' +
    'le la les un une des du de et ou votre vos notre nous vous à au aux en par pour est sont'
  ).split(' '),
);
/** The start of a greeting, directly before a name. */
const GREETING =
  /(?:^|\n)(?:dear|hello|hi|good (?:morning|day)|hallo|liebe[rs]?|guten tag|sehr geehrte[rs]?|bonjour|chère?|estimad[oa]|hola)(?:\s+(?:mr|mrs|ms|frau|herr|madame|monsieur)\.?)?$/iu;
const NO_LETTERS = /[^\p{L}\p{M}\p{N}'’-]+/u;
/** The longest label that is made of the labels of options, in characters. */
const LONGEST = 32;

const contentWords = (text: string): string[] =>
  text.split(NO_LETTERS).filter((word) => word.length > 2 && !/^\d/.test(word) && !FUNCTION_WORDS.has(fold(word)));
/** With a capital letter. */
export const capitalised = (word: string): string => word.charAt(0).toUpperCase() + word.slice(1);

/** A label for a place: the last content word before it in the same sentence, or the first after it. */
export function labelOfPlace(before: string, after: string, fallback: string): string {
  if (GREETING.test(before.trim())) return 'Name';
  // The word before “to” is a verb: “The fee comes to …”.
  const nouns = (text: string): string[] => contentWords(text.replace(/[\p{L}\p{M}'’-]+\s+(?=to\b)/giu, ''));
  const near = nouns(before.split(/[.!?:]\s/).at(-1) ?? '').at(-1) ?? nouns(after.split(/[.!?]\s/)[0] ?? '')[0];
  return near ? capitalised(near) : fallback;
}
/** A label for whether some text is there: its first content words. */
export function labelOfText(text: string): string {
  const words = contentWords(text);
  const label = (words.length > 0 ? words : text.trim().split(/\s+/)).slice(0, 3).join(' ').slice(0, 40);
  return capitalised(label || 'Passage');
}
/** A label for a choice that nothing else describes. */
export function labelOfChoice(options: readonly Option[]): string {
  const label = options.map((option) => option.label).join(' or ');
  return label.length > LONGEST ? 'Which words' : label;
}
/** Options for texts, in their order, labelled by the words that only they have. */
export function optionsFor(texts: readonly string[]): { readonly key: string; readonly label: string }[] {
  const taken = new Set(['empty', 'count']);
  const words = texts.map((text) => new Set(fold(text).split(NO_LETTERS)));
  return texts.map((text, at) => {
    const own = text
      .split(NO_LETTERS)
      .filter((word) => word !== '' && !words.some((others, other) => other !== at && others.has(fold(word))));
    const label = labelOfText(own.length > 0 ? own.join(' ') : text);
    const key = keyFromLabel(label, taken);
    taken.add(key);
    return { key, label };
  });
}
/**
 * A title from the words that all subjects share, in the order of the first; values and trailing function words are left
 * out.
 * @param locale of the subjects, which says how days are written
 */
export function titleFrom(subjects: readonly string[], locale = 'en-IE'): string {
  const words = (subject: string): string[] =>
    tokensOfText(subject, [], locale)
      .map((each) => (isValue(each) ? ' ' : each.text))
      .join('')
      .split(/\s+/)
      .filter((word) => word !== '');
  const [first = [], ...rest] = subjects.map(words);
  const shared = first.filter((word) => !/\d/.test(word) && rest.every((other) => other.includes(word)));
  while (FUNCTION_WORDS.has(fold((shared.at(-1) ?? '').replace(/[^\p{L}]/gu, '')))) shared.pop();
  const title = shared
    .join(' ')
    .replace(/[^\p{L}\p{N})]+$/u, '')
    .slice(0, 100);
  return title.length > 3 ? title : subjects[0]?.trim() ? labelOfText(subjects[0]) : 'From past mails';
}
