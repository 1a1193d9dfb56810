/** Our functions in expressions. All are total: what they cannot do throws, and the result is undecided. */
import { listFormat } from '../values/intl.js';
import type { Budget } from '../render/budget.js';
import type { Environment } from '@marcbachmann/cel-js';
import { dayFromNumber, dayNumber, isDay, weekdayNumber, WEEKDAYS } from '../values/date.js';
import { roundMoney, sumMoney } from '../values/money.js';
import { MAX_LENGTH } from '../values/type.js';

/** What an expression is evaluated for. */
export interface ExpressionRun {
  /** The day, ISO. */
  readonly today: string;
  /** The language in which words are joined and their case is changed. */
  readonly locale: string;
  /** The steps left for the message; what would exceed them is not evaluated. */
  readonly budget?: Budget;
}
/** What the functions may ask of the evaluation that calls them. */
export interface Evaluation extends ExpressionRun {
  readonly isFilled: (key: string) => boolean;
}

class Undecided extends Error {}

/** The day of a day or of a moment. */
function day(text: string): number {
  const iso = text.slice(0, 10);
  if (!isDay(iso) || (text.length > 10 && text[10] !== 'T')) throw new Undecided(`“${text}” is not a day`);
  return dayNumber(iso);
}

function back(days: number): string {
  const text = dayFromNumber(days);
  if (text === undefined) throw new Undecided('outside the calendar');
  return text;
}

function whole(value: number): number {
  if (!Number.isFinite(value) || Math.abs(value) > 4_000_000) throw new Undecided('too far');
  return Math.trunc(value);
}

/** Moves by working days: Saturdays, Sundays and holidays do not count. */
function addWorkingDays(from: string, count: number, holidays: ReadonlySet<string>): string {
  const steps = whole(count);
  if (Math.abs(steps) > 10_000) throw new Undecided('too far');
  let at = day(from);
  for (let left = Math.abs(steps); left > 0;) {
    at += Math.sign(steps);
    const text = back(at);
    const weekday = weekdayNumber(text);
    if (weekday !== 0 && weekday !== 6 && !holidays.has(text)) left -= 1;
  }
  return back(at) + from.slice(10);
}

function limited(text: string): string {
  if (text.length > MAX_LENGTH) throw new Undecided('too long');
  return text;
}

function extreme(numbers: readonly number[], pick: (...all: number[]) => number): number {
  if (numbers.length === 0) throw new Undecided('nothing to compare');
  return numbers.reduce((a, b) => pick(a, b));
}

/** Registers all functions. @param now the evaluation that goes on at the moment of a call */
export function registerFunctions(env: Environment, holidays: ReadonlySet<string>, now: () => Evaluation): void {
  const add = (signature: string, handler: (...args: never[]) => unknown): void =>
    void env.registerFunction(signature, handler as (...args: unknown[]) => unknown);
  add('today(): string', () => now().today);
  // A moment keeps its time of day.
  add(
    'addDays(string, double): string',
    (from: string, count: number) => back(day(from) + whole(count)) + from.slice(10),
  );
  add('addWorkingDays(string, double): string', (from: string, count: number) => addWorkingDays(from, count, holidays));
  add('daysBetween(string, string): double', (from: string, to: string) => day(to) - day(from));
  add('weekday(string): string', (text: string) => WEEKDAYS[(((day(text) + 4) % 7) + 7) % 7]);
  add('isFilled(string): bool', (key: string) => now().isFilled(key));
  add('sizeOf(list): double', (list: readonly unknown[]) => list.length);
  add('sizeOf(string): double', (text: string) => [...text].length);
  add('round(double): double', (value: number) => roundMoney(value, 0));
  add('round(double, double): double', (value: number, digits: number) =>
    roundMoney(value, Math.min(10, Math.max(0, whole(digits)))),
  );
  add('sum(list<double>): double', (list: readonly number[]) => list.reduce((a, b) => a + b, 0));
  add('sumMoney(list<double>, double): double', (list: readonly number[], digits: number) => sumMoney(list, digits));
  add('min(list<double>): double', (list: readonly number[]) => extreme(list, Math.min));
  add('max(list<double>): double', (list: readonly number[]) => extreme(list, Math.max));
  add('min(double, double): double', (a: number, b: number) => Math.min(a, b));
  add('max(double, double): double', (a: number, b: number) => Math.max(a, b));
  add('upper(string): string', (text: string) => limited(text.toLocaleUpperCase(now().locale)));
  add('lower(string): string', (text: string) => limited(text.toLocaleLowerCase(now().locale)));
  add('join(list<string>): string', (list: readonly string[]) => limited(listFormat(now().locale).format(list)));
  add('join(list<string>, string): string', (list: readonly string[], between: string) => limited(list.join(between)));
}
