/**
 * Moments: a day and a time of day on the wall clock of a zone. A value is that clock's ISO 8601 time,
 * `2027-05-11T14:30`, so that values of one zone compare as text; an input with an offset is brought to the zone.
 */
import { dayFormat } from './intl.js';
import { boundary, dayFormatter, isDay, triedDays, weekdayNumber, weekdaysProblem, WEEKDAYS } from './date.js';
import { timeFormatter, timeOf } from './time.js';
import type { Formatter, ValueContext, ValueType } from './type.js';
import type { Variable } from '../template/variable.js';
import { isZone, offsetInWords, wallAt, wallNumber } from './zone.js';

const MOMENT = /^(\d{4}-\d{2}-\d{2})[T ](\d{2}:\d{2}(?::\d{2})?)(?:\.\d+)?(Z|[+-]\d{2}:?\d{2})?$/;
/** Where neither the variable, its file nor the user names a zone. */
const NO_ZONE = 'UTC';

/** The zone a variable's moments are in; of zones that are none, the declaration has been told. */
function zoneOf(variable: Variable, context: ValueContext): string {
  const zone = variable.zone ?? context.zone ?? NO_ZONE;
  return isZone(zone) ? zone : NO_ZONE;
}

/** A moment on the zone's wall clock; undefined if the text is none. */
function momentOf(text: string, zone: string): string | undefined {
  const [, day = '', clock = '', offset] = MOMENT.exec(text) ?? [];
  const time = timeOf(clock);
  if (!isDay(day) || time === undefined) return undefined;
  if (offset === undefined) return `${day}T${time}`;
  const instant = Date.parse(`${day}T${clock}${offset.replace(/^([+-]\d{2})(\d{2})$/, '$1:$2')}`);
  return Number.isNaN(instant) ? undefined : wallAt(instant, zone);
}

/** A limit as a wall clock's time: a moment, or the beginning or end of a day. */
function limit(source: string, edge: '00:00' | '23:59:59', today: string): string | undefined {
  const day = boundary(source, today);
  return day === undefined ? momentOf(source, NO_ZONE) : `${day}T${edge}`;
}

/** The words of a moment: the date in its style, and the time without seconds, which messages do not speak of. */
const VIEWS: Readonly<Record<string, Intl.DateTimeFormatOptions>> = {
  '': { dateStyle: 'long', timeStyle: 'short' },
  short: { dateStyle: 'short', timeStyle: 'short' },
  long: { dateStyle: 'long', timeStyle: 'short' },
};

function formatter(variable: Variable, view: string, locale: string): Formatter | undefined {
  switch (view) {
    case 'iso': {
      const { zone } = variable;
      const offset = (wall: string): string => (zone !== undefined && isZone(zone) ? offsetInWords(wall, zone) : '');
      return (value) => `${String(value)}${offset(String(value))}`;
    }
    case 'date': {
      const show = dayFormatter('long', locale);
      return show && ((value) => show(String(value).slice(0, 10)));
    }
    case 'time': {
      const show = timeFormatter('', locale);
      return show && ((value) => show(String(value).slice(11)));
    }
    default: {
      const options = Object.hasOwn(VIEWS, view) ? VIEWS[view] : undefined;
      const format = options && dayFormat(locale, options);
      return format && ((value) => format.format(wallNumber(String(value))));
    }
  }
}

/** A moment on the wall clock of a zone. */
export const datetime: ValueType = {
  name: 'datetime',
  attributes: ['earliest', 'latest', 'weekdays', 'zone'],
  parse(input, variable, context) {
    const value = typeof input === 'string' ? momentOf(input.trim(), zoneOf(variable, context)) : undefined;
    if (value === undefined) return { problem: 'This must be a date and a time, such as 2027-05-11T14:30.' };
    const show = formatter(variable, '', context.locale) ?? String;
    const earliest = variable.earliest && limit(variable.earliest, '00:00', context.today);
    const latest = variable.latest && limit(variable.latest, '23:59:59', context.today);
    if (earliest && value < earliest) return { problem: `This must be ${show(earliest)} or later.` };
    if (latest && value > latest) return { problem: `This must be ${show(latest)} or earlier.` };
    if (variable.weekdays && !variable.weekdays.includes(WEEKDAYS[weekdayNumber(value.slice(0, 10))] as string))
      return { problem: `This must be one of these weekdays: ${variable.weekdays.join(', ')}.` };
    return { value };
  },
  views: () => ['short', 'long', 'iso', 'date', 'time'],
  formatter,
  declared: (variable) => [
    ...(['earliest', 'latest'] as const).flatMap((attribute) => {
      const source = variable[attribute];
      return source === undefined || limit(source, '00:00', '2000-01-01') !== undefined
        ? []
        : [{ attribute, message: 'This must be a moment (2027-05-11T14:30), a day, or relative to today (today+14).' }];
    }),
    ...weekdaysProblem(variable),
    ...(variable.zone === undefined || isZone(variable.zone)
      ? []
      : [{ attribute: 'zone', message: `“${variable.zone}” is not a zone, such as Europe/Dublin.` }]),
  ],
  specimen: (_variable, { today }) => `${today}T14:30`,
  expressionType: 'string',
  family: 'time',
  control: 'moment',
  isPersonal: true,
  column: 'text',
  tried: (variable, context) => triedDays(variable, context, (day) => `${day}T10:00`),
  hard: ({ day }) => day && `${day}T09:30`,
};
