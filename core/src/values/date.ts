/** Days. A value is an ISO 8601 day, `2027-05-11`. */
import { wallAt } from './zone.js';
import { dayFormat } from './intl.js';
import type { Variable } from '../template/variable.js';
import type { DeclarationProblem, Formatter, TryContext, ValueContext, ValueType } from './type.js';

const DAY = /^(\d{4})-(\d{2})-(\d{2})$/;
const DAY_MS = 86_400_000;
/** Weekdays as the attribute `weekdays` names them, from Sunday. */
export const WEEKDAYS = ['sun', 'mon', 'tue', 'wed', 'thu', 'fri', 'sat'] as const;

/** True for a day of the calendar; 31 February is none. */
export function isDay(text: string): boolean {
  const match = DAY.exec(text);
  if (!match) return false;
  const date = new Date(`${text}T00:00:00Z`);
  return !Number.isNaN(date.getTime()) && date.toISOString().startsWith(text) && Number(match[1]) > 0;
}

/** Days since 1 January 1970. */
export const dayNumber = (day: string): number => Math.round(Date.parse(`${day}T00:00:00Z`) / DAY_MS);

/** The ISO day of a day number, or undefined outside the years 1 to 9999. */
export function dayFromNumber(days: number): string | undefined {
  const date = new Date(days * DAY_MS);
  const year = date.getUTCFullYear();
  return Number.isFinite(date.getTime()) && year >= 1 && year <= 9999 ? date.toISOString().slice(0, 10) : undefined;
}

/** 0 for Sunday to 6 for Saturday. */
export const weekdayNumber = (day: string): number => (((dayNumber(day) + 4) % 7) + 7) % 7;

/** `2027-05-11`, `today`, `today+14`, `today-30` as a day; undefined if it is none of these. */
export function boundary(source: string, today: string): string | undefined {
  if (isDay(source)) return source;
  const match = /^today(?:([+-])(\d{1,5}))?$/.exec(source);
  if (!match) return undefined;
  return dayFromNumber(dayNumber(today) + Number(`${match[1] ?? '+'}${match[2] ?? 0}`));
}

/** The user's day at an instant in a zone. */
export const dayIn = (instant: Date, zone: string): string => wallAt(instant.getTime(), zone).slice(0, 10);

const VIEWS: Record<string, Intl.DateTimeFormatOptions> = {
  '': { dateStyle: 'long' },
  short: { dateStyle: 'short' },
  medium: { dateStyle: 'medium' },
  long: { dateStyle: 'long' },
  full: { dateStyle: 'full' },
  weekday: { weekday: 'long' },
  day: { day: 'numeric' },
  month: { month: 'long' },
  year: { year: 'numeric' },
};

/** Formats a day in one view. */
export function dayFormatter(view: string, locale: string): Formatter | undefined {
  if (view === 'iso') return String;
  const options = Object.hasOwn(VIEWS, view) ? VIEWS[view] : undefined;
  if (!options) return undefined;
  const format = dayFormat(locale, options);
  return (value) => format.format(Date.parse(`${String(value)}T00:00:00Z`));
}

/** Words against weekdays that are none. */
export function weekdaysProblem({ weekdays }: Variable): DeclarationProblem[] {
  const odd = weekdays?.find((day) => !(WEEKDAYS as readonly string[]).includes(day));
  return odd === undefined
    ? []
    : [{ attribute: 'weekdays', message: `“${odd}” is not a weekday: mon, tue, wed, thu, fri, sat, sun.` }];
}

const WRITTEN_DAY = /\b\d{4}-\d{2}-\d{2}\b/g;
/** Days from today, for conditions on notice, weeks and years. */
const NEAR = [-400, -30, -7, -1, 0, 1, 2, 3, 4, 5, 6, 7, 30, 400];

/** The usual day; if a calculated value compares it, also the days around today and around what it is compared with. */
export function triedDays(
  variable: Variable,
  { specimen, none, constants, isCompared, accepted, today }: TryContext,
  asValue: (day: string) => string = (day) => day,
): unknown[] {
  if (!isCompared) return accepted([specimen, ...none]);
  const shift = (day: string, by: number): string =>
    new Date(Date.parse(`${day}T00:00:00Z`) + by * 86_400_000).toISOString().slice(0, 10);
  const numbers = constants.map(Number).filter(Number.isFinite);
  const days = [variable.value ?? '', ...constants].flatMap((each) => each.match(WRITTEN_DAY) ?? []);
  const around = days.flatMap((day) => [shift(day, -1), day, shift(day, 1)]);
  const relative = [...NEAR, ...numbers.flatMap((each) => [each - 1, each, each + 1])].map((by) => shift(today, by));
  return accepted([specimen, ...[...around, ...relative].map(asValue), ...none]);
}

/** A day. */
export const date: ValueType = {
  name: 'date',
  attributes: ['earliest', 'latest', 'weekdays', 'zone'],
  parse(input, variable, context: ValueContext) {
    const day = typeof input === 'string' ? input.trim() : '';
    if (!DAY.test(day)) return { problem: 'This must be a date, written year-month-day, such as 2027-05-11.' };
    if (!isDay(day)) return { problem: 'There is no such day in the calendar.' };
    const show = dayFormatter('long', context.locale) ?? String;
    const earliest = variable.earliest && boundary(variable.earliest, context.today);
    const latest = variable.latest && boundary(variable.latest, context.today);
    if (earliest && day < earliest) return { problem: `This must be ${show(earliest)} or later.` };
    if (latest && day > latest) return { problem: `This must be ${show(latest)} or earlier.` };
    if (variable.weekdays && !variable.weekdays.includes(WEEKDAYS[weekdayNumber(day)] as string))
      return { problem: `This must be one of these weekdays: ${variable.weekdays.join(', ')}.` };
    return { value: day };
  },
  views: () => ['short', 'medium', 'long', 'full', 'weekday', 'day', 'month', 'year', 'iso'],
  formatter: (_variable, view, locale) => dayFormatter(view, locale),
  declared(variable) {
    const problems = (['earliest', 'latest'] as const)
      .filter(
        (attribute) =>
          variable[attribute] !== undefined && boundary(variable[attribute] as string, '2000-01-01') === undefined,
      )
      .map((attribute) => ({
        attribute,
        message: 'This must be a day (2027-05-11) or relative to today (today, today+14, today-30).',
      }));
    return [...problems, ...weekdaysProblem(variable)];
  },
  specimen: (_variable, { today }) => today,
  expressionType: 'string',
  family: 'date',
  control: 'day',
  isPersonal: true,
  column: 'date',
  tried: triedDays,
  hard: ({ day }) => day,
  madeUp: ({ at, today }) => dayFromNumber(dayNumber(today) + 3 + ((at * 11) % 90)) ?? today,
};
