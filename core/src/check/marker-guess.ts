/** What a hand-made marker most likely stands for. */
import type { TypeName } from '../template/variable.js';
import { lastOf } from '../words/ends.js';
import type { Marker } from './markers.js';

const GUESSES: readonly (readonly [RegExp, TypeName])[] = [
  [/^(number|no\.?|nr\.?|#|count|quantity|anzahl|zahl|nombre|número|numero)$/i, 'number'],
  [/\b(e-?mail|mail address)\b/i, 'email'],
  [/\b(phone|telephone|mobile|tel)\b/i, 'phone'],
  [/\b(link|url|website|web page)\b/i, 'link'],
  [/\b(amount|price|fee|cost|total|betrag|montant|importe|deposit)\b/i, 'money'],
  [/\b(date|day|deadline|datum|fecha|when|until|from)\b/i, 'date'],
  [/\b(number of|how many|count|party|quantity|people|tickets|seats)\b/i, 'number'],
];

/**
 * What a marker most likely stands for: type, label, and options for `[he/she]`.
 * @param before the words of its line before it
 * @param inner  the words that are there sometimes, where it is about such
 */
export function guessVariable(
  marker: Marker,
  before: string,
  inner = '',
): { readonly type: TypeName; readonly label: string; readonly options?: readonly string[] } {
  const words = marker.words.replace(/[_]+/g, ' ').replace(/\s+/g, ' ').trim();
  if (marker.kind === 'optional') return { type: 'yes-no', label: sentence(words || firstOf(inner, 3)) };
  const options = words.split('/').map((option) => option.trim());
  if (
    options.length >= 2 &&
    options.length <= 8 &&
    options.every((option) => /^\p{L}[\p{L}\p{N} '’-]{0,40}$/u.test(option))
  )
    return { type: 'choice', label: sentence(options.join(' or ')), options };
  if (words === '') {
    // A rule says nothing itself; the word before it often does.
    const hint = /([\p{L}][\p{L}’'-]*)[\s:,]*$/u.exec(lastOf(before, 80))?.[1] ?? '';
    const type = GUESSES.find(([pattern]) => pattern.test(hint))?.[1] ?? 'text';
    return { type, label: hint ? sentence(hint) : 'Value' };
  }
  const type = GUESSES.find(([pattern]) => pattern.test(words))?.[1] ?? 'text';
  return { type, label: sentence(words) };
}

/** The first words of some. */
export const firstOf = (words: string, count: number): string =>
  (words.match(/[\p{L}\p{N}’'-]+/gu) ?? []).slice(0, count).join(' ') || 'Optional';

const sentence = (words: string): string => {
  const lower = /\p{Ll}/u.test(words) ? words : words.toLowerCase();
  return lower.charAt(0).toUpperCase() + lower.slice(1);
};
