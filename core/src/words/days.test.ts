import { expect, it } from 'vitest';
import { showDay, understandDay } from './days.js';

it.each<[typed: string, locale: string, day: string | undefined]>([
  ['2027-05-11', 'en-IE', '2027-05-11'],
  ['11/5/27', 'en-IE', '2027-05-11'],
  ['5/11/27', 'en-US', '2027-05-11'],
  ['11.5.2027', 'de', '2027-05-11'],
  ['11 May', 'en-IE', '2027-05-11'],
  ['11th may 2028', 'en-IE', '2028-05-11'],
  ['May 11, 2027', 'en-US', '2027-05-11'],
  ['Tue 11 May 2027', 'en-IE', '2027-05-11'],
  ['Dienstag, 11. Mai 2027', 'de', '2027-05-11'],
  ['11 févr. 2027', 'fr', '2027-02-11'],
  ['11 de mayo de 2027', 'es', '2027-05-11'],
  ['30 Nov', 'en-IE', '2026-11-30'],
  ['tomorrow', 'en-IE', '2026-11-25'],
  ['+14', 'en-IE', '2026-12-08'],
  ['31 Feb 2027', 'en-IE', undefined],
  ['ju 4', 'en-IE', undefined],
  ['some day', 'en-IE', undefined],
  ['', 'en-IE', undefined],
])('understands %j in %s as %s', (typed, locale, day) => {
  expect(understandDay(typed, '2026-11-24', locale)).toBe(day);
});

it('shows a day with its weekday, and understands what it shows', () => {
  for (const locale of ['en-IE', 'de', 'fr']) {
    const shown = showDay('2027-06-14', locale);
    expect(shown).toMatch(/^\p{L}{2,4}\.? /u);
    expect(understandDay(shown, '2026-11-24', locale)).toBe('2027-06-14');
  }
});
