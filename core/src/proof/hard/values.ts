/** Values that break templates, by what they are there to provoke. */
import type { TypeName, Variable } from '../../template/variable.js';
import { roleOf, type Role } from '../samples/people.js';
import { dayFromNumber, dayNumber } from '../../values/date.js';

/** One kind of hard value, for every type that has it. */
export interface Series {
  readonly key: string;
  readonly label: string;
  readonly provokes: string;
  /** What a thing of that type and column is given; undefined leaves it as usual. */
  value(type: TypeName, column: string, variable: Variable | undefined, today: string): unknown;
}

const TEXTS = new Set<TypeName>(['text', 'paragraphs']);
/** Words by the part of a name that is meant. */
const words =
  (first: string, last: string, other: string) =>
  (type: TypeName, column: string): unknown => {
    if (!TEXTS.has(type) || /mail|phone/.test(column)) return undefined;
    const role: Role = roleOf(column);
    if (role === 'first') return first;
    if (role === 'last') return last;
    return role === 'full' ? `${first} ${last}` : other;
  };

function longest(type: TypeName, column: string, variable: Variable | undefined): unknown {
  if (type === 'email') return 'maximiliane.featherstonehaugh-cholmondeley@brackenholt-horticultural-society.example';
  if (type === 'link') return `https://larkmoor.example/${'gardens-and-glasshouses/'.repeat(4)}?group=42`;
  if (type === 'choice' || type === 'choices') return longestOption(type, variable);
  const made = words(
    'Maximiliane-Theodora',
    'Featherstonehaugh-Cholmondeley von Rautenberg',
    'The Brackenholt and District Horticultural, Apicultural and Rambling Society (Evening Section)',
  )(type, column);
  if (typeof made !== 'string') return made;
  const text = type === 'paragraphs' ? `${made}\n\n${'Quite a lot to say about geese. '.repeat(20).trim()}` : made;
  return variable?.max_length === undefined ? text : text.slice(0, variable.max_length).trim();
}

function longestOption(type: TypeName, variable: Variable | undefined): unknown {
  const size = ({ wording, label = '', key }: NonNullable<Variable['options']>[number]): number =>
    wording ? JSON.stringify(wording).length : (label || key).length;
  const [first] = [...(variable?.options ?? [])].sort((a, b) => size(b) - size(a));
  return first && (type === 'choices' ? variable?.options?.map(({ key }) => key) : first.key);
}

const numeric =
  (value: number) =>
  (type: TypeName): unknown =>
    type === 'number' || type === 'money' ? value : undefined;
const dated =
  (day: (today: string) => string) =>
  (type: TypeName, _column: string, _variable: Variable | undefined, today: string): unknown =>
    type === 'date' ? day(today) : type === 'datetime' ? `${day(today)}T09:30` : undefined;
const shift = (day: string, by: number): string => dayFromNumber(dayNumber(day) + by) ?? day;

function nextLeapDay(today: string): string {
  for (let year = Number(today.slice(0, 4)); ; year += 1) {
    const leap = year % 4 === 0 && (year % 100 !== 0 || year % 400 === 0);
    if (leap && `${year}-02-29` > today) return `${year}-02-29`;
  }
}

/** All kinds of hard values, in the order their cases are shown. */
export const SERIES: readonly Series[] = [
  {
    key: 'longest',
    label: 'Longest names and words',
    provokes: 'lines that wrap badly, a subject that is cut off',
    value: longest,
  },
  {
    key: 'one-letter',
    label: 'One letter',
    provokes: 'words that lean on a longer neighbour',
    value: words('O', 'E', 'U'),
  },
  {
    key: 'vowel',
    label: 'Names that begin with a vowel',
    provokes: 'a or an',
    value: words('Una', 'Oakes', 'orchid evening'),
  },
  {
    key: 'apostrophes',
    label: 'Apostrophes and hyphens',
    provokes: 'signs taken for quotation marks, names cut at a hyphen, endings after an s',
    value: words('Jean-Luc', "O'Neill-D’Arcy", 'St. James’s Gardeners’ Guild – North'),
  },
  {
    key: 'scripts',
    label: 'Other scripts',
    provokes: 'letters that a font lacks, capitals that do not exist',
    value: words('Ελένη', '山本', 'Сад и парк «Ива»'),
  },
  {
    key: 'right-to-left',
    label: 'Right to left',
    provokes: 'the order of words and marks beside a name',
    value: words('ليلى', 'منصور', 'שומרי הגן (צפון)'),
  },
  {
    key: 'markup',
    label: 'Signs of markup',
    provokes: 'values that become structure or a formula',
    value: words('<b>Ann</b>', '*&amp;* {{x}}', '=1+1 </p><script>"x"</script> [a](b) #1'),
  },
  ...[0, 1, 2, 21].map((value) => ({
    key: `number-${value}`,
    label: `Numbers: ${value}`,
    provokes:
      value === 0
        ? 'nothing to count, nothing to pay'
        : value === 1
          ? 'one of what is written as several'
          : 'the right plural',
    value: numeric(value),
  })),
  {
    key: 'number-large',
    label: 'Very large numbers',
    provokes: 'grouping, and columns pushed wide',
    value: (type, _column, variable) =>
      numeric(1)(type) === undefined ? undefined : (variable?.max ?? (variable?.step ? 1_000_000 : 1_234_567)),
  },
  {
    key: 'number-negative',
    label: 'Negative numbers',
    provokes: 'a minus nobody thought of',
    value: (type, _column, variable) =>
      numeric(1)(type) === undefined ? undefined : Math.min(-3, variable?.min ?? -3),
  },
  { key: 'today', label: 'Dates: today', provokes: 'notice that cannot be kept', value: dated((today) => today) },
  {
    key: 'past',
    label: 'Dates: a week ago',
    provokes: 'a message about what is over',
    value: dated((today) => shift(today, -7)),
  },
  {
    key: 'year-end',
    label: 'Dates: the last day of the year',
    provokes: 'a date beside it in another year',
    value: dated((today) => `${today.slice(0, 4)}-12-31`),
  },
  {
    key: 'new-year',
    label: 'Dates: New Year’s Day',
    provokes: 'a year left out, working days that are none',
    value: dated((today) => `${Number(today.slice(0, 4)) + 1}-01-01`),
  },
  {
    key: 'leap-day',
    label: 'Dates: 29 February',
    provokes: 'a day that the year after does not have',
    value: dated(nextLeapDay),
  },
];
