/** The wall clocks of zones, from the runtime's own data. */

const clocks = new Map<string, Intl.DateTimeFormat>();

function clockOf(zone: string): Intl.DateTimeFormat {
  let clock = clocks.get(zone);
  if (!clock) {
    clock = new Intl.DateTimeFormat('en-US', {
      timeZone: zone,
      hourCycle: 'h23',
      year: 'numeric',
      month: 'numeric',
      day: 'numeric',
      hour: 'numeric',
      minute: 'numeric',
      second: 'numeric',
    });
    clocks.set(zone, clock);
  }
  return clock;
}

/** True for a zone that the runtime knows, such as `Europe/Dublin`. */
export function isZone(zone: string): boolean {
  try {
    clockOf(zone);
    return true;
  } catch {
    return false;
  }
}

/** Milliseconds that a zone's wall clock is ahead of UTC at an instant (milliseconds since 1970). */
export function offsetAt(instant: number, zone: string): number {
  const parts = new Map(
    clockOf(zone)
      .formatToParts(instant)
      .map(({ type, value }): [string, number] => [type, Number(value)]),
  );
  const of = (type: string): number => parts.get(type) ?? 0;
  const wall = Date.UTC(of('year'), of('month') - 1, of('day'), of('hour'), of('minute'), of('second'));
  return wall - Math.floor(instant / 1000) * 1000;
}

const DAY_MS = 86_400_000;
/** A wall clock's time as milliseconds, as if it stood in UTC. */
export const wallNumber = (wall: string): number => Date.parse(`${wall}${wall.length === 16 ? ':00' : ''}Z`);

/**
 * The instant of a wall clock's time, `2027-05-11T14:30`. A time that stands twice, when clocks go back, is the first;
 * one that is skipped, when they go forward, is as much later: as ECMAScript's Temporal has it (“compatible”).
 */
export function instantOf(wall: string, zone: string): number {
  const asUtc = wallNumber(wall);
  const before = offsetAt(asUtc - DAY_MS, zone);
  for (const offset of [before, offsetAt(asUtc + DAY_MS, zone)])
    if (offsetAt(asUtc - offset, zone) === offset) return asUtc - offset;
  return asUtc - before;
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
