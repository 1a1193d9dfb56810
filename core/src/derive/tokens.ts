/** Splits a line into tokens: words, spaces, punctuation, and values such as dates and sums as one token each. */
import type { Inline, Mark } from '../template/document.js';
import { fold } from '../words/fold.js';

/** The kinds of values that are recognised in text. */
export type ValueKind = 'date' | 'time' | 'money' | 'number' | 'email' | 'link';
/** What a token is. `cell` separates the cells of a table row. */
export type TokenKind = 'word' | 'space' | 'sign' | 'break' | 'cell' | ValueKind;

/** A token with the marks it has. */
export interface Token {
  readonly text: string;
  readonly kind: TokenKind;
  readonly marks: readonly Mark[];
  /** Equal for tokens with the same text and the same marks. */
  readonly key: string;
}

/** Separates the parts of a key; it cannot occur in text, since control characters are removed. */
const SEPARATOR = '\u0000';
const KINDS_WITHOUT_WORDS: ReadonlySet<TokenKind> = new Set(['sign', 'space', 'break', 'cell']);

/** Makes a token. */
export function token(text: string, kind: TokenKind, marks: readonly Mark[] = []): Token {
  const form = marks.length > 0 ? JSON.stringify(marks) : '';
  return { text, kind, marks, key: `${kind === 'cell' ? kind : ''}${text}${SEPARATOR}${form}` };
}
/** Equal for token sequences with the same text and marks. */
export const sequenceKey = (tokens: readonly Token[]): string => tokens.map(({ key }) => key).join(SEPARATOR);
/** True for a token that is a value rather than a word, a space or punctuation. */
export const isValue = ({ kind }: Token): boolean => kind !== 'word' && !KINDS_WITHOUT_WORDS.has(kind);

const DAY = 86_400_000;
/** The names of months or weekdays in a locale, as alternatives of a pattern; longer names come first. */
function names(locale: string, part: 'month' | 'weekday'): string {
  const [count, step] = part === 'month' ? [12, 31 * DAY] : [7, DAY];
  const found = (['long', 'short'] as const).flatMap((style) => {
    // With the day, since some languages inflect a month that follows a day.
    const format = new Intl.DateTimeFormat(locale, { [part]: style, day: 'numeric', timeZone: 'UTC' });
    return Array.from({ length: count }, (_, at) =>
      format.formatToParts(Date.UTC(2024, 0, 1) + at * step).find(({ type }) => type === part),
    ).map((each) => (each?.value ?? '').replace(/[.\\]/g, ''));
  });
  return [...new Set(found)].sort((a, b) => b.length - a.length).join('|');
}

const PATTERNS = new Map<string, RegExp>();
/** The pattern of one token in a locale. Repetitions are bounded, so that work grows with the length of the text. */
function tokenPattern(locale: string): RegExp {
  const known = PATTERNS.get(locale);
  if (known) return known;
  const [weekday, month] = [`(?:${names(locale, 'weekday')})`, `(?:${names(locale, 'month')})`];
  const date = [
    `(?:${weekday}\\.?,?\\s{1,2})?\\d{1,2}(?:st|nd|rd|th|\\.|º|er)?\\s{1,2}(?:of\\s|de\\s)?${month}\\b\\.?(?:,?\\s{1,2}(?:de\\s)?\\d{4}\\b)?`,
    `(?:${weekday},?\\s{1,2})?${month}\\s{1,2}\\d{1,2}(?:st|nd|rd|th)?\\b(?:,?\\s{1,2}\\d{4}\\b)?`,
    '\\d{4}-\\d{2}-\\d{2}',
    '\\d{1,2}[./]\\d{1,2}[./]\\d{2,4}(?![\\d/])',
  ].join('|');
  const figures = '\\d[\\d.,\\u00a0]{0,20}';
  const kinds: readonly (readonly [TokenKind, string])[] = [
    ['link', 'https?:\\/\\/[^\\s<>"\')\\]]{0,2000}[^\\s<>"\')\\].,;:!?]'],
    [
      'email',
      '(?<![\\p{L}\\p{N}._%+-])[\\p{L}\\p{N}._%+-]{1,64}@[\\p{L}\\p{N}-]{1,63}(?:\\.[\\p{L}\\p{N}-]{1,63}){1,8}',
    ],
    ['date', `(?<![\\p{L}\\d])(?:${date})`],
    ['time', '(?<![\\d:.])(?:[01]?\\d|2[0-3]):[0-5]\\d(?![\\d:])(?:\\s?[ap]\\.?m\\b\\.?)?'],
    ['money', `[€£$]\\s?${figures}(?<=\\d)|(?<![\\d.,])${figures}(?<=\\d)[\\s\\u00a0]?(?:€|EUR\\b|GBP\\b|USD\\b)`],
    ['number', '(?<![\\p{L}\\d.,])(?:\\d{1,3}(?:,\\d{3}){1,5}(?!\\d)|\\d{1,15}(?:[.,]\\d{1,10})?(?![\\p{L}\\d]))'],
    ['word', "[\\p{L}\\p{N}\\p{M}]+(?:[’'-][\\p{L}\\p{N}\\p{M}]+)*"],
    ['space', '[^\\S\\n]+'],
    ['sign', '[\\s\\S]'],
  ];
  const pattern = new RegExp(kinds.map(([kind, source]) => `(?<${kind}>${source})`).join('|'), 'giu');
  PATTERNS.set(locale, pattern);
  return pattern;
}

/** The tokens of a text with the given marks. Control characters other than line breaks are removed. */
export function tokensOfText(text: string, marks: readonly Mark[], locale: string): Token[] {
  const clean = text.replace(/[\u0000-\u0008\u000B-\u001F\u007F]/g, '');
  return [...clean.matchAll(tokenPattern(locale))].map(({ 0: whole, groups = {} }) => {
    if (whole === '\n') return token('\n', 'break');
    const kind = Object.keys(groups).find((name) => groups[name] !== undefined) as TokenKind;
    return kind === 'space' ? token(' ', 'space', marks) : token(whole, kind, marks);
  });
}

/** The tokens of a line. Images, comments and language marks are ignored; white space is folded and trimmed. */
export function tokensOfLine(line: readonly Inline[], locale: string): Token[] {
  const tokens: Token[] = [];
  for (const node of line) {
    if (node.type === 'hardBreak') tokens.push(token('\n', 'break'));
    else if (node.type === 'text') {
      const marks = (node.marks ?? []).filter(({ type }) => type !== 'language');
      tokens.push(...tokensOfText(node.text, marks, locale));
    }
  }
  return trimmed(folded(tokens));
}
const isBlank = ({ kind }: Token): boolean => kind === 'space' || kind === 'break';
/** Replaces runs of spaces by one space, and removes spaces next to line breaks. */
function folded(tokens: readonly Token[]): Token[] {
  const out: Token[] = [];
  for (const each of tokens) {
    const last = out.at(-1);
    if (each.kind === 'space' && last && isBlank(last)) continue;
    if (each.kind === 'break' && last?.kind === 'space') out.pop();
    out.push(each);
  }
  return out;
}
/** Removes spaces and breaks at both ends. */
export function trimmed(tokens: readonly Token[]): Token[] {
  let [from, to] = [0, tokens.length];
  while (from < to && isBlank(tokens[from] as Token)) from += 1;
  while (to > from && isBlank(tokens[to - 1] as Token)) to -= 1;
  return tokens.slice(from, to);
}

/** The tokens as text. */
export const textOf = (tokens: readonly Token[]): string =>
  tokens.map(({ text, kind }) => (kind === 'cell' ? ' | ' : text)).join('');

/** A token as it counts for likeness: a word in folded form, a value as its kind, anything else as ''. */
export const roughKey = (each: Token): string =>
  each.kind === 'word' ? fold(each.text) : isValue(each) ? `<${each.kind}>` : '';
