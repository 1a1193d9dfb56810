import { describe, expect, it } from 'vitest';
import { rendered } from '../testing/build.js';
import { minutesOf } from './invitation.js';

const FRONT =
  'kind: message\npurpose: invitation\nsubject: Come\nstart: "{{at}}"\nlength: 2 hours\nplace: The glasshouse';
const invite = (variables: string, answers: Record<string, unknown>, front = FRONT) =>
  rendered({ body: 'Come.', front, variables }, answers);

describe('invitations', () => {
  it('say when on the clock of their zone, how long and where', () => {
    const { invitation, ready } = invite('at: { type: datetime, zone: Europe/Dublin, required: true }', {
      at: '2027-05-11T14:30',
    });
    expect(ready).toBe(true);
    expect(invitation).toEqual({
      start: '2027-05-11T14:30',
      zone: 'Europe/Dublin',
      minutes: 120,
      place: 'The glasshouse',
    });
  });
  it('take whole days', () => {
    const front = FRONT.replace('length: 2 hours\n', '');
    expect(invite('at: { type: date, required: true }', { at: '2027-05-11' }, front).invitation).toMatchObject({
      start: '2027-05-11',
      minutes: undefined,
    });
  });
  it('wait while something is blank, and are not ready when they cannot be told', () => {
    expect(invite('at: { type: datetime, required: true }', {})).toMatchObject({ ready: false, blanks: ['at'] });
    const wrong = invite('at: { type: text }', { at: 'some time in May' });
    expect([wrong.ready, wrong.findings.map(({ code, place }) => [code, place.attribute])]).toEqual([
      false,
      [['bad-value', 'start']],
    ]);
    const long = invite('at: { type: text }', { at: '2027-05-11T14:30' }, FRONT.replace('2 hours', 'a while'));
    expect(long.findings[0]?.place.attribute).toBe('length');
  });
  it('leave other messages alone', () => {
    expect(rendered({ body: 'x' }).invitation).toBeUndefined();
  });
});

it.each([
  ['90', 90],
  ['90 minutes', 90],
  ['1 h 30', 90],
  ['2 hours', 120],
  ['1.5 hours', 90],
  ['1:30', 90],
  ['PT1H30M', 90],
  ['1 hour and 15 minutes', 75],
  ['', undefined],
  ['a while', undefined],
  ['0', undefined],
])('%s', (text, minutes) => expect(minutesOf(text)).toBe(minutes));
