/** What a rendering is given at the command line. */
import { existsSync, readFileSync } from 'node:fs';
import { dayIn, isDay, type Fields } from '@vocabula/core';
import { readTable, TableProblem } from '@vocabula/core/tables';
import { UsageError, type Call } from './arguments.js';

/** A JSON object from a file; empty if none is named. */
export function readObject(path: string | undefined, what: string): Record<string, unknown> {
  if (path === undefined) return {};
  if (!existsSync(path)) throw new UsageError(`there is no ${path}`);
  let data: unknown;
  try {
    data = JSON.parse(readFileSync(path, 'utf8'));
  } catch {
    throw new UsageError(`${path} is not JSON`);
  }
  if (typeof data !== 'object' || data === null || Array.isArray(data))
    throw new UsageError(`${what} in ${path} must be a JSON object`);
  return data as Record<string, unknown>;
}

/** The rows of a table of recipients; one nobody if none is named. */
export function readRecipients(path: string | undefined): Fields[] {
  if (path === undefined) return [{}];
  if (!existsSync(path)) throw new UsageError(`there is no ${path}`);
  try {
    return [...readTable(readFileSync(path)).rows];
  } catch (problem) {
    if (problem instanceof TableProblem)
      throw new UsageError(`${path}${problem.line === undefined ? '' : `: line ${problem.line}`}: ${problem.message}`);
    throw problem;
  }
}

/** The user's day: as given, or today in the zone. */
export function readToday(call: Call, zone: string | undefined): string {
  const { today, timezone } = call.options;
  if (today !== undefined) {
    if (typeof today !== 'string' || !isDay(today)) throw new UsageError('--today takes a day, such as 2027-05-11');
    return today;
  }
  try {
    return dayIn(
      new Date(),
      typeof timezone === 'string' ? timezone : (zone ?? Intl.DateTimeFormat().resolvedOptions().timeZone),
    );
  } catch {
    throw new UsageError('--timezone takes a zone, such as Europe/Dublin');
  }
}
