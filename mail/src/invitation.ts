/** Invitations as iCalendar (RFC 5545), with the rules of their zone, so that they stand at the right hour anywhere. */
import { createHash } from 'node:crypto';
import ICAL from 'ical.js';
import { instantOf, offsetAt, type Invitation, type Mailbox, type Message } from '@vocabula/core';

/** What of a message goes into a calendar file. */
export type InvitationMessage = Pick<Message, 'subject' | 'to' | 'cc' | 'text' | 'invitation'>;

/** Who invites, and the moment the invitation is dated. */
export interface IcsOptions {
  /** Who invites. */
  readonly from?: Mailbox;
  readonly date: Date;
}

const DAY = 86_400_000;

/**
 * The calendar file of an invitation.
 * @param id what the invitation is known by; the same one replaces itself in a calendar
 * @throws Error for a message without an invitation
 */
export function toIcs(message: InvitationMessage, { from, date }: IcsOptions, id?: string): string {
  const { invitation } = message;
  if (!invitation) throw new Error('This message is no invitation.');
  const calendar = new ICAL.Component(['vcalendar', [], []]);
  calendar.updatePropertyWithValue('version', '2.0');
  calendar.updatePropertyWithValue('prodid', '-//Vocabula//Invitations//EN');
  calendar.updatePropertyWithValue('method', 'REQUEST');
  const event = new ICAL.Component('vevent');
  event.updatePropertyWithValue('uid', uidOf(message, id));
  event.updatePropertyWithValue('dtstamp', ICAL.Time.fromJSDate(date, true));
  event.updatePropertyWithValue('summary', message.subject);
  event.updatePropertyWithValue('description', message.text.trim());
  if (invitation.place !== '') event.updatePropertyWithValue('location', invitation.place);
  for (const [name, time] of timesOf(invitation)) {
    const property = event.updatePropertyWithValue(name, time);
    if (!time.isDate && invitation.zone !== 'UTC') property.setParameter('tzid', invitation.zone);
  }
  if (from) event.addProperty(personOf('organizer', from));
  for (const address of [...message.to, ...message.cc]) event.addProperty(personOf('attendee', address));
  if (invitation.minutes !== undefined && invitation.zone !== 'UTC') calendar.addSubcomponent(zoneOf(invitation));
  calendar.addSubcomponent(event);
  return `${calendar.toString()}\r\n`;
}

function timesOf({ start, minutes, zone }: Invitation): [string, ICAL.Time][] {
  const at = timeOf(start.length === 16 ? `${start}:00` : start);
  const end = at.clone();
  if (minutes === undefined) end.addDuration(ICAL.Duration.fromSeconds(DAY / 1000));
  else end.addDuration(ICAL.Duration.fromSeconds(minutes * 60));
  if (zone === 'UTC') for (const time of [at, end]) time.zone = ICAL.Timezone.utcTimezone;
  return [
    ['dtstart', at],
    ['dtend', end],
  ];
}

/** A zone with its changes of the clock around a moment, found from the runtime's own data. */
function zoneOf({ start, zone }: Invitation): ICAL.Component {
  const component = new ICAL.Component('vtimezone');
  component.updatePropertyWithValue('tzid', zone);
  const moment = instantOf(start, zone);
  const changes = changesOf(zone, moment - 400 * DAY, moment + 400 * DAY);
  const first = offsetAt(moment - 400 * DAY, zone);
  const observances = changes.length > 0 ? changes : [{ at: moment - 400 * DAY, before: first, after: first }];
  for (const { at, before, after } of observances) {
    const part = new ICAL.Component(after > before ? 'daylight' : 'standard');
    part.updatePropertyWithValue('dtstart', timeOf(new Date(at + before).toISOString().slice(0, 19)));
    part.updatePropertyWithValue('tzoffsetfrom', offsetValue(before));
    part.updatePropertyWithValue('tzoffsetto', offsetValue(after));
    component.addSubcomponent(part);
  }
  return component;
}

/** A day, or a moment on whatever clock is meant. */
const timeOf = (iso: string): ICAL.Time =>
  iso.length === 10 ? ICAL.Time.fromDateString(iso) : ICAL.Time.fromDateTimeString(iso, new ICAL.Property('dtstart'));

const offsetValue = (offset: number): ICAL.UtcOffset => ICAL.UtcOffset.fromSeconds(Math.round(offset / 1000));

/** The moments at which a zone's clock changes, by halving days in which it does. */
function changesOf(zone: string, from: number, to: number): { at: number; before: number; after: number }[] {
  const found: { at: number; before: number; after: number }[] = [];
  for (let day = from; day < to; day += DAY) {
    const [before, after] = [offsetAt(day, zone), offsetAt(day + DAY, zone)];
    if (before === after) continue;
    let [low, high] = [day, day + DAY];
    while (high - low > 1000) {
      const middle = Math.floor((low + high) / 2);
      if (offsetAt(middle, zone) === before) low = middle;
      else high = middle;
    }
    found.push({ at: Math.round(high / 1000) * 1000, before, after });
  }
  return found;
}

function personOf(name: 'organizer' | 'attendee', { name: called, address }: Mailbox): ICAL.Property {
  const property = new ICAL.Property(name);
  property.setValue(`mailto:${address.trim()}`);
  if (called !== '') property.setParameter('cn', called.replace(/["\r\n]/g, ''));
  if (name === 'attendee') {
    property.setParameter('partstat', 'NEEDS-ACTION');
    property.setParameter('rsvp', 'TRUE');
  }
  return property;
}

function uidOf({ subject, to, invitation }: InvitationMessage, id = ''): string {
  const known = id.replace(/^<|>$/g, '');
  if (known !== '') return known;
  return `${createHash('sha256')
    .update(JSON.stringify([subject, to, invitation]))
    .digest('hex')
    .slice(0, 32)}@vocabula.example`;
}
