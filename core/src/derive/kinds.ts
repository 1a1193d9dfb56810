/** Types the values of a place. A type fits only if it formats every value exactly as it was written. */
import type { TypeName, Variable } from '../template/variable.js';
import { dayFormatter } from '../values/date.js';
import { valueType } from '../values/index.js';
import type { Value } from '../values/type.js';
import { understandDay } from '../words/days.js';

/** A type that fits, how it is written, and the value of each mail. */
export interface Kind {
  readonly type: TypeName;
  readonly attributes: Partial<Variable>;
  /** Views of the value, and the words between them. */
  readonly written: readonly ({ readonly view: string } | { readonly words: string })[];
  readonly values: ReadonlyMap<number, string | number>;
}

/** How dates are written: one view of the type, or several with words between them. */
const DAYS: readonly string[] = [
  '{long}',
  '{full}',
  '{medium}',
  '{short}',
  '{iso}',
  '{day} {month}',
  '{weekday} {day} {month}',
  '{weekday}, {day} {month}',
  '{day} {month} {year}',
  '{weekday} {long}',
  '{weekday}, {long}',
  '{month} {day}',
  '{month} {day}, {year}',
  '{weekday}, {month} {day}',
  '{day}. {month}',
  '{weekday}, {day}. {month}',
  '{weekday}, {day}. {month} {year}',
  '{weekday}, den {day}. {month}',
];
const CURRENCIES: Readonly<Record<string, string>> = { '€': 'EUR', '£': 'GBP', $: 'USD' };

const partsOf = (pattern: string): Kind['written'] =>
  pattern
    .split(/(\{[a-z]+\})/)
    .filter((part) => part !== '')
    .map((part) => (part.startsWith('{') ? { view: part.slice(1, -1) } : { words: part }));

/**
 * The type of the values at one place; undefined if no type fits all of them.
 * @param words the text of each mail, by its index
 * @param days the ISO day on which a mail was written
 */
export function kindOf(
  words: ReadonlyMap<number, string>,
  days: (mail: number) => string,
  locale: string,
): Kind | undefined {
  return dayKind(words, days, locale) ?? KINDS.map((find) => find(words, locale)).find((found) => found !== undefined);
}

function dayKind(words: ReadonlyMap<number, string>, days: (mail: number) => string, locale: string): Kind | undefined {
  const values = new Map<number, string>();
  for (const [mail, text] of words) {
    if (!/\d/.test(text)) return undefined;
    const day = understandDay(text.replace(/\bden\s+/i, ''), days(mail), locale);
    if (day === undefined) return undefined;
    values.set(mail, day);
  }
  for (const pattern of DAYS) {
    const written = partsOf(pattern);
    const writes = [...values].every(
      ([mail, day]) =>
        written
          .map((part) => ('words' in part ? part.words : (dayFormatter(part.view, locale)?.(day) ?? '')))
          .join('') === words.get(mail),
    );
    if (writes)
      return {
        ...{ type: 'date', attributes: {}, values, written },
      };
  }
  return undefined;
}

/** True for a date that is written without a year, so that the year is only a guess. */
export const lacksYear = ({ type, written }: Kind): boolean =>
  type === 'date' && written.every((part) => 'words' in part || ['day', 'month', 'weekday'].includes(part.view));

type Find = (words: ReadonlyMap<number, string>, locale: string) => Kind | undefined;
/** Makes a finder for a type from a function that reads one value. */
const simple =
  (
    type: TypeName,
    read: (text: string, locale: string) => string | number | undefined,
    variants: (texts: readonly string[]) => readonly Partial<Variable>[] = () => [{}],
    views: readonly string[] = [''],
  ): Find =>
  (words, locale) => {
    const values = new Map<number, string | number>();
    for (const [mail, text] of words) {
      const value = read(text, locale);
      if (value === undefined) return undefined;
      values.set(mail, value);
    }
    for (const attributes of variants([...words.values()]))
      for (const view of views) {
        const format = valueType(type).formatter({ key: 'x', type, ...attributes }, view, locale);
        const writes = [...values].every(([mail, value]) => format?.(value as Value) === words.get(mail));
        if (writes) return { type, attributes, written: [{ view }], values };
      }
    return undefined;
  };

/** Reads a number in the format of a locale. */
function numberIn(text: string, locale: string): number | undefined {
  const decimal = new Intl.NumberFormat(locale).formatToParts(1.5).find(({ type }) => type === 'decimal')?.value ?? '.';
  if (!/^-?\d[\d.,\s\u00a0\u202f’']*$/.test(text)) return undefined;
  const plain = [...text]
    .filter((sign) => /[\d-]/.test(sign) || sign === decimal)
    .join('')
    .replace(decimal, '.');
  const value = Number(plain);
  return Number.isFinite(value) ? value : undefined;
}

const KINDS: readonly Find[] = [
  simple('time', (text) => (/^([01]\d|2[0-3]):[0-5]\d$/.test(text) ? text : undefined), undefined, [
    '',
    'short',
    'long',
  ]),
  simple(
    'money',
    (text, locale) =>
      /[€£$]|EUR|GBP|USD/.test(text) ? numberIn(text.replace(/[€£$]|EUR|GBP|USD/g, '').trim(), locale) : undefined,
    (texts) => [
      {
        currency:
          CURRENCIES[/[€£$]/.exec(texts[0] ?? '')?.[0] ?? ''] ?? /EUR|GBP|USD/.exec(texts[0] ?? '')?.[0] ?? 'EUR',
      },
    ],
  ),
  simple('number', numberIn, (texts) => {
    const decimals = Math.max(0, ...texts.map((text) => /[.,](\d{1,2})$/.exec(text)?.[1]?.length ?? 0));
    return [{}, { grouping: false }, { decimals }, { decimals, grouping: false }];
  }),
  simple('email', (text) => (/^[^\s@<>]+@[^\s@<>]+\.[^\s@<>]+$/.test(text) ? text : undefined)),
  simple('link', (text) => (/^https?:\/\/\S+$/.test(text) ? text : undefined)),
];
