/** Times of day. A value is ISO 8601, `14:30`, with seconds only where there are any. */
import { dayFormat } from './intl.js';
import type { DeclarationProblem, Formatter, ValueType } from './type.js';
import type { Variable } from '../template/variable.js';

const TIME = /^([01]\d|2[0-3]):([0-5]\d)(?::([0-5]\d))?$/;

/** The canonical form of a time of day; undefined if it is none. */
export function timeOf(text: string): string | undefined {
  return TIME.test(text) ? text.replace(/^(.{5}):00$/, '$1') : undefined;
}

/** Times have no zone of their own, so that `long` shows seconds and names none. */
const VIEWS: Readonly<Record<string, Intl.DateTimeFormatOptions>> = {
  '': { timeStyle: 'short' },
  short: { timeStyle: 'short' },
  long: { timeStyle: 'medium' },
};

/** Formats a time of day in one view. */
export function timeFormatter(view: string, locale: string): Formatter | undefined {
  if (view === 'iso') return String;
  const options = Object.hasOwn(VIEWS, view) ? VIEWS[view] : undefined;
  const format = options && dayFormat(locale, options);
  return format && ((value) => format.format(Date.parse(`1970-01-01T${String(value)}Z`)));
}

const declared = (variable: Variable): DeclarationProblem[] =>
  (['earliest', 'latest'] as const).flatMap((attribute) => {
    const limit = variable[attribute];
    return limit === undefined || timeOf(limit) !== undefined
      ? []
      : [{ attribute, message: 'This must be a time of day, such as 09:00.' }];
  });

/** A time of day. */
export const time: ValueType = {
  name: 'time',
  attributes: ['earliest', 'latest', 'weekdays', 'zone'],
  parse(input, variable, context) {
    const value = typeof input === 'string' ? timeOf(input.trim()) : undefined;
    if (value === undefined) return { problem: 'This must be a time of day, such as 14:30.' };
    const show = timeFormatter('', context.locale) ?? String;
    if (variable.earliest !== undefined && value < variable.earliest)
      return { problem: `This must be ${show(variable.earliest)} or later.` };
    if (variable.latest !== undefined && value > variable.latest)
      return { problem: `This must be ${show(variable.latest)} or earlier.` };
    return { value };
  },
  views: () => ['short', 'long', 'iso'],
  formatter: (_variable, view, locale) => timeFormatter(view, locale),
  declared,
  specimen: () => '14:30',
  expressionType: 'string',
  family: 'time',
  control: 'time',
  column: 'text',
};
