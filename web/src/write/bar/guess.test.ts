import { expect, it } from 'vitest';
import { guessFromWords } from './guess';

const guess = (words: string, locale = 'en-GB') => guessFromWords(words, { today: '2026-11-24', locale });

it.each([
  ['ann@quillmere.example', 'email', 'Email'],
  ['https://larkmoor.example/visit', 'link', 'Link'],
  ['€ 12.50', 'money', 'Amount'],
  ['1.234,50 EUR', 'money', 'Amount'],
  ['14:30', 'time', 'Time'],
  ['2.30 pm', 'time', 'Time'],
  ['1,200', 'number', 'Number'],
  ['Tuesday 11 May 2027', 'date', 'Date'],
  ['11/5/27', 'date', 'Date'],
  ['+353 20 910 0123', 'phone', 'Telephone'],
  ['the river gate', 'text', 'The river gate'],
  ['[FIRST NAME]', 'text', 'First name'],
  ['May', 'text', 'May'],
])('%s is %s', (words, type, label) => {
  expect(guess(words)).toMatchObject({ type, label });
});

it('keeps the currency', () => {
  expect(guess('£5').currency).toBe('GBP');
  expect(guess('20 ABC')).toMatchObject({ type: 'text' });
});
