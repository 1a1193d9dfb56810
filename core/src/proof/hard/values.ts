/** Values that break templates, by what they are there to provoke. */
import type { HardOffer } from '../../values/index.js';
import { roleOf, type Role } from '../samples/people.js';
import { dayFromNumber, dayNumber } from '../../values/date.js';

/** One kind of hard value, for every type that has it. */
export interface Series {
  readonly key: string;
  readonly label: string;
  readonly provokes: string;
  /** What a column is offered; each type makes of it what it can. */
  offer(column: string, today: string): HardOffer;
}

/** Words by the part of a name that is meant. */
const words =
  (first: string, last: string, other: string) =>
  (column: string): HardOffer => {
    if (/mail|phone/.test(column)) return {};
    const role: Role = roleOf(column);
    if (role === 'first') return { words: first };
    if (role === 'last') return { words: last };
    return { words: role === 'full' ? `${first} ${last}` : other };
  };
const longestWords = words(
  'Maximiliane-Theodora',
  'Featherstonehaugh-Cholmondeley von Rautenberg',
  'The Brackenholt and District Horticultural, Apicultural and Rambling Society (Evening Section)',
);
const dated =
  (day: (today: string) => string) =>
  (_column: string, today: string): HardOffer => ({ day: day(today) });
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
    offer: (column) => ({ ...longestWords(column), isLongest: true }),
  },
  {
    key: 'one-letter',
    label: 'One letter',
    provokes: 'words that lean on a longer neighbour',
    offer: words('O', 'E', 'U'),
  },
  {
    key: 'vowel',
    label: 'Names that begin with a vowel',
    provokes: 'a or an',
    offer: words('Una', 'Oakes', 'orchid evening'),
  },
  {
    key: 'apostrophes',
    label: 'Apostrophes and hyphens',
    provokes: 'signs taken for quotation marks, names cut at a hyphen, endings after an s',
    offer: words('Jean-Luc', "O'Neill-D’Arcy", 'St. James’s Gardeners’ Guild – North'),
  },
  {
    key: 'scripts',
    label: 'Other scripts',
    provokes: 'letters that a font lacks, capitals that do not exist',
    offer: words('Ελένη', '山本', 'Сад и парк «Ива»'),
  },
  {
    key: 'right-to-left',
    label: 'Right to left',
    provokes: 'the order of words and marks beside a name',
    offer: words('ليلى', 'منصور', 'שומרי הגן (צפון)'),
  },
  {
    key: 'markup',
    label: 'Signs of markup',
    provokes: 'values that become structure or a formula',
    offer: words('<b>Ann</b>', '*&amp;* {{x}}', '=1+1 </p><script>"x"</script> [a](b) #1'),
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
    offer: () => ({ number: value }),
  })),
  {
    key: 'number-large',
    label: 'Very large numbers',
    provokes: 'grouping, and columns pushed wide',
    offer: () => ({ isLarge: true }),
  },
  {
    key: 'number-negative',
    label: 'Negative numbers',
    provokes: 'a minus nobody thought of',
    offer: () => ({ number: -3 }),
  },
  { key: 'today', label: 'Dates: today', provokes: 'notice that cannot be kept', offer: dated((today) => today) },
  {
    key: 'past',
    label: 'Dates: a week ago',
    provokes: 'a message about what is over',
    offer: dated((today) => shift(today, -7)),
  },
  {
    key: 'year-end',
    label: 'Dates: the last day of the year',
    provokes: 'a date beside it in another year',
    offer: dated((today) => `${today.slice(0, 4)}-12-31`),
  },
  {
    key: 'new-year',
    label: 'Dates: New Year’s Day',
    provokes: 'a year left out, working days that are none',
    offer: dated((today) => `${Number(today.slice(0, 4)) + 1}-01-01`),
  },
  {
    key: 'leap-day',
    label: 'Dates: 29 February',
    provokes: 'a day that the year after does not have',
    offer: dated(nextLeapDay),
  },
];
