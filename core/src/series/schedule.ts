/** When the steps of a series are due: on working days, within working hours, on the wall clock of who sends them. */
import { dayFromNumber, dayNumber, weekdayNumber } from '../values/date.js';
import { instantOf, wallAt } from '../values/zone.js';
import type { Step } from '../template/steps.js';

/** When somebody's messages may go. */
export interface Calendar {
  /** The sender's zone. */
  readonly zone: string;
  /** Working hours on the wall clock, `09:00`. */
  readonly from: string;
  readonly to: string;
  /** Working days, 1 for Monday; every day where there is none. */
  readonly days: readonly number[];
  /** ISO days. */
  readonly holidays: ReadonlySet<string>;
}

/** When a step is due (milliseconds since 1970), that the day for it has passed, or which value it cannot be told without. */
export type Due = { readonly at: number; readonly passed: boolean } | { readonly without: string };

/** The most days that are looked through for a working one. */
const MOST_LOOKED = 800;

/** True for a day on which messages may go. */
export function isWorkday(day: string, { days, holidays }: Pick<Calendar, 'days' | 'holidays'>): boolean {
  const weekday = ((weekdayNumber(day) + 6) % 7) + 1;
  return (days.length === 0 || days.includes(weekday)) && !holidays.has(day);
}

/**
 * When a step is due.
 * @param before the moment that the step before it went, or that the series began (milliseconds since 1970)
 * @param dayOf  the ISO day that a key says, where it is known
 */
export function dueOf(step: Step, before: number, dayOf: (key: string) => string | undefined, calendar: Calendar): Due {
  const { days = 0, working = false, at } = step;
  const wall = wallAt(before, calendar.zone);
  const [today, clock] = [wall.slice(0, 10), wall.slice(11, 16)];
  const anchor = step.before ?? step.after;
  if (anchor === undefined) {
    if (days === 0 && at === undefined) return { at: soonest(before, today, clock, calendar), passed: false };
    const wanted = within(at ?? clock, calendar);
    // An hour of the same day that is over is meant on the next.
    const first = days === 0 && wanted < clock ? shifted(today, 1) : moved(today, days, working, calendar);
    return { at: instantOf(`${workday(first, 1, calendar)}T${wanted}`, calendar.zone), passed: false };
  }
  const named = dayOf(anchor)?.slice(0, 10);
  if (named === undefined) return { without: anchor };
  const sign = step.before === undefined ? 1 : -1;
  const day = workday(moved(named, sign * days, working, calendar), sign === 1 ? 1 : -1, calendar);
  const due = instantOf(`${day}T${within(at ?? calendar.from, calendar)}`, calendar.zone);
  if (due >= before) return { at: due, passed: false };
  // Later on its own day it can go still.
  return day === today ? { at: soonest(before, today, clock, calendar), passed: false } : { at: due, passed: true };
}

/** This moment, or the next one within working hours. */
function soonest(moment: number, today: string, clock: string, calendar: Calendar): number {
  const { from, zone } = calendar;
  const wanted = within(clock, calendar);
  if (isWorkday(today, calendar) && wanted === clock) return moment;
  if (isWorkday(today, calendar) && clock < from) return instantOf(`${today}T${from}`, zone);
  return instantOf(`${workday(shifted(today, 1), 1, calendar)}T${from}`, zone);
}

/** A time of day within working hours: the nearest there is. */
const within = (clock: string, { from, to }: Calendar): string =>
  clock < from ? from : clock > to ? (from < to ? to : from) : clock;

const shifted = (day: string, days: number): string => dayFromNumber(dayNumber(day) + days) ?? day;

/** A number of days on, or back: of working days, only those are counted. */
function moved(day: string, days: number, working: boolean, calendar: Calendar): string {
  if (!working) return shifted(day, days);
  const sign = Math.sign(days);
  let at = day;
  for (let left = Math.abs(days); left > 0; left -= 1) at = workday(shifted(at, sign), sign < 0 ? -1 : 1, calendar);
  return at;
}

/** The day itself, or the nearest working day after it, or before. */
function workday(day: string, step: 1 | -1, calendar: Calendar): string {
  let at = day;
  for (let looked = 0; looked < MOST_LOOKED && !isWorkday(at, calendar); looked += 1) at = shifted(at, step);
  return at;
}
