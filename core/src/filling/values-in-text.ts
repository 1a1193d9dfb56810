/** Values that stand in somebody else's words: days, moments, numbers, sums, addresses in a mail or on the clipboard. */
import { withoutAtEnd } from '../words/ends.js';
import { understandDay } from '../words/days.js';
import { addressesIn } from '../values/mailbox.js';
import type { TypeName } from '../template/variable.js';

/** A value recognised in pasted text, with its place. */
export interface FoundValue {
  readonly type: Extract<TypeName, 'date' | 'time' | 'number' | 'money' | 'email' | 'phone' | 'link'>;
  /** In the form of an answer. */
  readonly value: string;
  /** As it is written there. */
  readonly words: string;
  /** The words around it, for showing where it was found. */
  readonly around: string;
}

/** More than this of one text is not looked at. */
const LONGEST = 60_000;
/** More than this of one kind says nothing any more. */
const MOST = 12;
/** Characters shown on either side. */
const AROUND = 24;

// A day may go over the end of a line, not over an empty one.
const DAY =
  /(?<![\p{L}\d/.:-])(?:\d{4}-\d{2}-\d{2}|\d{1,2}[./]\d{1,2}(?:[./](?:\d{4}|\d{2}))?(?![\d/.])|(?:\p{L}{2,9}\.?,?(?!\s*\n\s*\n)\s+)?\d{1,2}(?:st|nd|rd|th|\.)?(?!\s*\n\s*\n)\s+(?:of(?!\s*\n\s*\n)\s+|de(?!\s*\n\s*\n)\s+)?\p{L}{3,9}\.?(?:,?(?!\s*\n\s*\n)\s+(?:de(?!\s*\n\s*\n)\s+)?\d{4})?|\p{L}{3,9}\.?(?!\s*\n\s*\n)\s+\d{1,2}(?:st|nd|rd|th)?(?:,?(?!\s*\n\s*\n)\s+\d{4})?|today|tomorrow)(?![\p{L}\d])/giu;
const CLOCK = /(?<![\d:.])(?:([01]?\d|2[0-3])[:.]([0-5]\d)\s*([ap]\.?m\.?)?|(\d{1,2})\s*([ap]\.?m\.?))(?![\d:])/giu;
// A sum has no more figures than that: longer runs of them are looked at once, not from each of their places.
const SUM =
  /(?:([€£$])\s?(\d[\d.,\s\u00a0]{0,24}\d|\d)|(?<![\d.,])(\d[\d.,\u00a0]{0,24}\d|\d)\s?(€|EUR|GBP|USD|CHF|SEK|PLN))/gu;
const NUMBER = /(?<![\p{L}\d.,:/+-])\d{1,6}(?:[.,]\d{1,3})?(?![\p{L}\d:/-]|[.,]\d)/gu;
const PHONE = /(?<![\p{L}\d])\+\d[\d\s().-]{6,18}\d/gu;
const LINK = /https?:\/\/[^\s<>"')]+/gu;

/**
 * The values in a text, by where they stand. What belongs to a longer value (the year of a date, the figures of a
 * telephone number) is not found again.
 * @param today ISO day, for dates without a year
 */
export function foundValues(text: string, today: string, locale: string): FoundValue[] {
  const words = text.slice(0, LONGEST);
  const taken: [number, number][] = [];
  const found: (FoundValue & { readonly at: number })[] = [];
  const look = (
    matches: Iterable<RegExpExecArray>,
    type: FoundValue['type'],
    read: (match: RegExpExecArray) => string | undefined,
  ): void => {
    let count = 0;
    for (const match of matches) {
      const [whole] = match;
      const [from, to] = [match.index, match.index + whole.length];
      if (count >= MOST || taken.some(([start, end]) => from < end && to > start)) continue;
      const value = read(match);
      if (value === undefined) continue;
      count += 1;
      taken.push([from, to]);
      found.push({ type, value, words: whole.trim(), around: aroundOf(words, from, to), at: from });
    }
  };
  look(words.matchAll(LINK), 'link', ([link]) => withoutAtEnd(link, '.,;:!?'));
  look(addressMatches(words), 'email', ([address]) => address);
  look(words.matchAll(PHONE), 'phone', ([number]) => `+${number.replace(/\D/g, '')}`);
  look(words.matchAll(DAY), 'date', ([day]) => dayOf(day, today, locale));
  look(words.matchAll(CLOCK), 'time', (match) => clockOf(match));
  look(words.matchAll(SUM), 'money', ([, , before, after]) => decimalOf(before ?? after ?? ''));
  look(words.matchAll(NUMBER), 'number', ([number]) => decimalOf(number));
  return distinct(found.sort((a, b) => a.at - b.at)).map(({ at: _at, ...value }) => value);
}

/** Addresses as a pattern would find them, which it cannot without looking from every place. */
const addressMatches = (words: string): RegExpExecArray[] =>
  [...addressesIn(words)].map(({ address, at }) => Object.assign([address] as [string], { index: at, input: words }));

/** Those of the found values that fit a question of a type; a sum of money fits a number and the other way round. */
export function fitting(found: readonly FoundValue[], type: TypeName): FoundValue[] {
  const also: Partial<Record<TypeName, readonly string[]>> = { money: ['money', 'number'], number: ['number'] };
  const types = also[type] ?? [type];
  return found
    .filter((each) => types.includes(each.type))
    .sort((a, b) => types.indexOf(a.type) - types.indexOf(b.type));
}

function dayOf(words: string, today: string, locale: string): string | undefined {
  const plain = words.replace(/\bof\s+/i, '');
  return (
    understandDay(plain, today, locale) ?? understandDay(plain.replace(/^\p{L}+\.?,?\s+(?=\d)/u, ''), today, locale)
  );
}

function clockOf([, hour, minute, half, bare, half12]: RegExpExecArray): string | undefined {
  const given = Number(hour ?? bare);
  const part = (half ?? half12 ?? '').toLowerCase().charAt(0);
  if (part !== '' && (given < 1 || given > 12)) return undefined;
  const hours = part === '' ? given : (given % 12) + (part === 'p' ? 12 : 0);
  return `${String(hours).padStart(2, '0')}:${minute ?? '00'}`;
}

/** A number in figures with a decimal point; three figures behind one separator are thousands. */
function decimalOf(figures: string): string | undefined {
  const bare = figures.replace(/[\s\u00a0]/g, '');
  const plain = /^\d{1,3}([.,]\d{3})+$/.test(bare)
    ? bare.replace(/[.,]/g, '')
    : bare.replace(/[.,](?=.*[.,])/g, '').replace(',', '.');
  return Number.isFinite(Number(plain)) && plain !== '' ? plain : undefined;
}

function aroundOf(text: string, from: number, to: number): string {
  const start = Math.max(0, from - AROUND);
  const end = Math.min(text.length, to + AROUND);
  return `${start > 0 ? '…' : ''}${text.slice(start, end).replace(/\s+/g, ' ').trim()}${end < text.length ? '…' : ''}`;
}

const distinct = <V extends FoundValue>(values: readonly V[]): V[] =>
  values.filter(
    (value, at) => values.findIndex((each) => each.type === value.type && each.value === value.value) === at,
  );
