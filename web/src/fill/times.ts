/** Sensible times to send: told from somebody's working hours. */
import type { HandOverWays } from '@vocabula/contract';
import { readersLocale, showMoment } from '../ui/dates/reader';

export interface SensibleTime {
  readonly at: Date;
  readonly words: string;
}

type Hours = Pick<HandOverWays, 'from' | 'to' | 'days'>;
const weekday = (at: Date): number => ((at.getDay() + 6) % 7) + 1;
const minutesOf = (clock: string): number => Number(clock.slice(0, 2)) * 60 + Number(clock.slice(3, 5));

function on(day: Date, minutes: number): Date {
  const at = new Date(day);
  at.setHours(0, minutes, 0, 0);
  return at;
}
const later = (day: Date, days: number): Date => {
  const at = new Date(day);
  at.setDate(at.getDate() + days);
  return at;
};

/**
 * Up to three: later this working day, the beginning of the next one, and of the first one of next week. On the clock of
 * whoever looks at it.
 */
export function sensibleTimes(now: Date, { from, to, days }: Hours, locale = readersLocale): SensibleTime[] {
  const works = (day: Date): boolean => days.length === 0 || days.includes(weekday(day));
  const [begin, end] = [minutesOf(from), Math.max(minutesOf(to), minutesOf(from) + 60)];
  const found: Date[] = [];
  // A whole hour, with at least one to think it over.
  const soon = Math.ceil((now.getHours() * 60 + now.getMinutes() + 60) / 60) * 60;
  const today = Math.max(soon, begin);
  if (works(now) && today <= end - 30) found.push(on(now, today));
  const next = [1, 2, 3, 4, 5, 6, 7].map((each) => later(now, each));
  const morning = next.find(works);
  if (morning) found.push(on(morning, begin));
  const monday = next.find((day) => weekday(day) === 1) ?? later(now, 7);
  const week = [0, 1, 2, 3, 4, 5, 6].map((each) => later(monday, each)).find(works);
  if (week) found.push(on(week, begin));
  const distinct = found.filter((at, index) => found.findIndex((each) => each.getTime() === at.getTime()) === index);
  return distinct.map((at) => ({ at, words: inWords(at, now, locale) }));
}

function inWords(at: Date, now: Date, locale: string): string {
  const clock = showMoment(at, 'time', locale);
  if (at.toDateString() === now.toDateString()) return `today at ${clock}`;
  if (at.toDateString() === later(now, 1).toDateString()) return `tomorrow at ${clock}`;
  return `${showMoment(at, 'weekday', locale)} at ${clock}`;
}

/** A moment as a field for day and time has it, on the clock of whoever looks at it. */
export function fieldOf(at: Date): string {
  const pad = (value: number): string => String(value).padStart(2, '0');
  return `${at.getFullYear()}-${pad(at.getMonth() + 1)}-${pad(at.getDate())}T${pad(at.getHours())}:${pad(at.getMinutes())}`;
}
