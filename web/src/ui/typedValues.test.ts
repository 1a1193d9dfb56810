import { expect, it } from 'vitest';
import type { TypeName } from '@vocabula/core';
import { showSource, understand } from './typedValues';

it.each<[type: TypeName, typed: string, source: string]>([
  ['number', '4,5', '4.5'],
  ['number', '1,200', '1200'],
  ['money', '1.200,50', '1200.50'],
  ['money', '1 200.50', '1200.50'],
  ['number', 'a few', 'a few'],
  ['money', '€ 1.200,00', '1200.00'],
  ['money', '4,50 EUR', '4.50'],
  ['money', 'EUR', 'EUR'],
  ['date', '2027-05-11', '2027-05-11'],
  ['date', 'some day', 'some day'],
  ['time', '2pm', '14:00'],
  ['text', '  Ann ', 'Ann'],
  ['paragraphs', 'Ann \n', 'Ann \n'],
])('%s: %j is %j', (type, typed, source) => {
  expect(understand(type, typed, 'en-IE')).toBe(source);
});

it('takes a comma as the language does', () => {
  expect([understand('number', '1,200', 'de'), understand('number', '1,200', 'en')]).toEqual(['1.200', '1200']);
});

it('shows days and times in the words of the language', () => {
  expect(showSource('date', '2027-05-11', 'en-IE')).toBe('Tue 11 May 2027');
  expect(showSource('time', '14:30', 'en-US')).toMatch(/2:30\sPM/);
  expect(showSource('time', 'soon', 'en-US')).toBe('soon');
});
