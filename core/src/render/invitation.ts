/** When and where an invitation is for, as calendars are told: a moment on a zone's clock and a length. */
import type { Line, Program, ValueLeaf } from '../compile/program.js';
import { error } from '../findings/finding.js';
import { isDay } from '../values/date.js';
import { isZone } from '../values/zone.js';
import { valueType } from '../values/index.js';
import type { Frame } from './frame.js';
import { plainLine, type Collected } from './writer.js';

/** When and where the event of an invitation is. */
export interface Invitation {
  /** A moment on the zone's wall clock, `2027-05-11T14:30`, or a day for what takes all of it. */
  readonly start: string;
  /** An IANA zone. */
  readonly zone: string;
  /** Undefined for a whole day. */
  readonly minutes: number | undefined;
  readonly place: string;
}

/** Where nothing says how long it takes. */
const USUAL_MINUTES = 60;

/** Undefined for what is no invitation, and while something is blank or wrong; what is wrong is among the findings. */
export function invitationOf(program: Program, frame: Frame, collected: Collected): Invitation | undefined {
  const words = (line: Line): string => plainLine(line, frame, collected).trim();
  const place = words(program.place);
  const length = words(program.length);
  const written = words(program.start);
  if (program.purpose !== 'invitation' || collected.blanks.size > 0) return undefined;
  const wrong = (attribute: 'start' | 'length', text: string): undefined => {
    collected.findings.push(error({ code: 'bad-value', why: `invitation-${attribute}`, text }, { attribute }));
    return undefined;
  };
  const only = onlyValue(program.start);
  const zone = only?.zone ?? frame.input.zone ?? 'UTC';
  const given = only ? frame.read(only.leaf.read) : written;
  const context = { today: frame.input.today, locale: program.locale, zone };
  const parsed = valueType('datetime').parse(given, { key: 'start', type: 'datetime', zone }, context);
  const day = typeof given === 'string' && isDay(given) ? given : undefined;
  if (day !== undefined && length === '')
    return { start: day, zone: isZone(zone) ? zone : 'UTC', minutes: undefined, place };
  if (!('value' in parsed)) return wrong('start', written);
  const minutes = length === '' ? USUAL_MINUTES : minutesOf(length);
  if (minutes === undefined) return wrong('length', length);
  return { start: String(parsed.value), zone: isZone(zone) ? zone : 'UTC', minutes, place };
}

/** The value that a line is, if it is nothing else, with the zone of its variable. */
function onlyValue({ leaves }: Line): { readonly leaf: ValueLeaf; readonly zone: string | undefined } | undefined {
  const values = leaves.filter((leaf) => leaf.kind !== 'text' || leaf.core !== '');
  const [leaf] = values;
  if (values.length !== 1 || leaf?.kind !== 'value' || leaf.read.from !== 'slot') return undefined;
  const { variable } = leaf.read.slot;
  return variable.type === 'datetime' || variable.type === 'date' ? { leaf, zone: variable.zone } : undefined;
}

/** Minutes of `90`, `90 minutes`, `1 h 30`, `2 hours`, `1:30` and `PT1H30M`; undefined for anything else. */
export function minutesOf(text: string): number | undefined {
  const words = text.trim().toLowerCase();
  const clock = /^(\d{1,2}):([0-5]\d)$/.exec(words);
  const parts =
    /^(?:pt)?\s*(?:(\d+(?:[.,]\d+)?)\s*(?:hours?|hrs?|h|stunden?|heures?))?\s*(?:and\s+)?(?:(\d+)\s*(?:minutes?|mins?|min|m|minuten)?)?$/.exec(
      words,
    );
  const minutes = clock
    ? Number(clock[1]) * 60 + Number(clock[2])
    : parts && (parts[1] ?? parts[2]) !== undefined
      ? Number((parts[1] ?? '0').replace(',', '.')) * 60 + Number(parts[2] ?? 0)
      : NaN;
  return Number.isFinite(minutes) && minutes > 0 && minutes <= 60 * 24 * 60 ? Math.round(minutes) : undefined;
}
