/** The wall clocks of zones, by ECMAScript's Temporal over the runtime's own data. */
import * as Instant from 'temporal-polyfill/fns/Instant';
import * as PlainDateTime from 'temporal-polyfill/fns/PlainDateTime';
import * as ZonedDateTime from 'temporal-polyfill/fns/ZonedDateTime';

const known = new Map<string, boolean>();

/** True for a zone that the runtime knows, such as `Europe/Dublin`. */
export function isZone(zone: string): boolean {
  let isKnown = known.get(zone);
  if (isKnown === undefined) {
    try {
      Intl.DateTimeFormat('en', { timeZone: zone });
      isKnown = true;
    } catch {
      isKnown = false;
    }
    // What files call a zone has no end.
    if (known.size > 1000) known.clear();
    known.set(zone, isKnown);
  }
  return isKnown;
}

/** Milliseconds that a zone's wall clock is ahead of UTC at an instant (milliseconds since 1970). */
export const offsetAt = (instant: number, zone: string): number =>
  ZonedDateTime.offsetNanoseconds(
    Instant.toZonedDateTimeISO(Instant.fromEpochMilliseconds(Math.floor(instant)), zone),
  ) / 1e6;

/** A wall clock's time as milliseconds, as if it stood in UTC. */
export const wallNumber = (wall: string): number => Date.parse(`${wall}${wall.length === 16 ? ':00' : ''}Z`);

/**
 * The instant of a wall clock's time, `2027-05-11T14:30`. A time that stands twice, when clocks go back, is the first;
 * one that is skipped, when they go forward, is as much later (“compatible”).
 */
export function instantOf(wall: string, zone: string): number {
  const asUtc = new Date(wallNumber(wall));
  const plain = PlainDateTime.create(
    asUtc.getUTCFullYear(),
    asUtc.getUTCMonth() + 1,
    asUtc.getUTCDate(),
    asUtc.getUTCHours(),
    asUtc.getUTCMinutes(),
    asUtc.getUTCSeconds(),
  );
  return PlainDateTime.toZonedDateTime(plain, zone).epochMilliseconds;
}

/** The wall clock's time at an instant, with seconds only where there are any. */
export const wallAt = (instant: number, zone: string): string =>
  new Date(instant + offsetAt(instant, zone)).toISOString().slice(0, 19).replace(/:00$/, '');

/** How far the wall clock is ahead, as ISO 8601 writes it: `+01:00`. */
export function offsetInWords(wall: string, zone: string): string {
  const minutes = Math.round(offsetAt(instantOf(wall, zone), zone) / 60_000);
  const pad = (value: number): string => String(value).padStart(2, '0');
  return `${minutes < 0 ? '-' : '+'}${pad(Math.floor(Math.abs(minutes) / 60))}:${pad(Math.abs(minutes) % 60)}`;
}
