import { expect, it } from 'vitest';
import { understandTime } from './times';

it.each<[typed: string, time: string | undefined]>([
  ['9', '09:00'],
  ['9:30', '09:30'],
  ['9.30', '09:30'],
  ['14h30', '14:30'],
  ['14 h', '14:00'],
  ['14 Uhr', '14:00'],
  ['0930', '09:30'],
  ['930', '09:30'],
  ['2pm', '14:00'],
  ['2:30 p.m.', '14:30'],
  ['12 am', '00:00'],
  ['12pm', '12:00'],
  ['noon', '12:00'],
  ['14:30:20', '14:30:20'],
  ['14:30:00', '14:30'],
  ['25', undefined],
  ['9:75', undefined],
  ['14pm', undefined],
  ['soon', undefined],
  ['', undefined],
])('understands %j as %s', (typed, time) => {
  expect(understandTime(typed)).toBe(time);
});
