import { expect, it } from 'vitest';
import { fieldOf, sensibleTimes } from './times';

const hours = { from: '09:00', to: '17:00', days: [1, 2, 3, 4, 5] };
const times = (now: string, more: Partial<typeof hours> = {}) =>
  sensibleTimes(new Date(now), { ...hours, ...more }).map(({ at }) => fieldOf(at));

it.each<[now: string, expected: string[]]>([
  // A Wednesday.
  ['2026-11-25T10:12:00', ['2026-11-25T12:00', '2026-11-26T09:00', '2026-11-30T09:00']],
  ['2026-11-25T06:00:00', ['2026-11-25T09:00', '2026-11-26T09:00', '2026-11-30T09:00']],
  ['2026-11-25T16:40:00', ['2026-11-26T09:00', '2026-11-30T09:00']],
  // A Friday evening, a Sunday, a Monday.
  ['2026-11-27T18:00:00', ['2026-11-30T09:00']],
  ['2026-11-29T11:00:00', ['2026-11-30T09:00']],
  ['2026-11-30T08:00:00', ['2026-11-30T09:00', '2026-12-01T09:00', '2026-12-07T09:00']],
])('from %s', (now, expected) => expect(times(now)).toEqual(expected));

it('keep to the hours and days that somebody works', () => {
  expect(times('2026-11-25T10:12:00', { from: '22:00', to: '23:30', days: [3, 6] })).toEqual([
    '2026-11-25T22:00',
    '2026-11-28T22:00',
    '2026-12-02T22:00',
  ]);
  expect(times('2026-11-25T10:12:00', { days: [] })).toHaveLength(3);
});

it('are said in words', () => {
  const said = sensibleTimes(new Date('2026-11-25T10:12:00'), hours).map(({ words }) => words);
  expect(said).toEqual(['today at 12:00', 'tomorrow at 09:00', 'Monday 30 November at 09:00']);
});
