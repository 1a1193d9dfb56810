/** The rules by which values are typed, calculated and labelled. */
import { describe, expect, it } from 'vitest';
import { dateFormula, productFormula, thresholdFormula } from './formulas.js';
import { kindOf, lacksYear } from './kinds.js';
import { labelOfChoice, labelOfPlace, labelOfText, optionsFor, titleFrom } from './labels.js';

const numbered = <V>(...values: readonly V[]): Map<number, V> => new Map(values.map((value, at) => [at, value]));
const kind = (locale: string, ...texts: readonly string[]) => kindOf(numbered(...texts), () => '2026-11-27', locale);

describe('a type fits only if it writes every value as it was written', () => {
  it.each([
    ['en-IE', ['3 April 2027', '14 May 2027'], 'date', [{ view: 'long' }]],
    ['en-IE', ['3 April', '14 May'], 'date', [{ view: 'day' }, { words: ' ' }, { view: 'month' }]],
    ['de-DE', ['3. April', '14. Mai'], 'date', [{ view: 'day' }, { words: '. ' }, { view: 'month' }]],
    ['en-IE', ['2027-04-03', '2027-05-14'], 'date', [{ view: 'iso' }]],
    ['en-IE', ['14:30', '09:05'], 'time', [{ view: '' }]],
    ['en-IE', ['€12.50', '€1,250.00'], 'money', [{ view: '' }]],
    ['de-DE', ['12,50\u00a0€', '1.250,00\u00a0€'], 'money', [{ view: '' }]],
    ['en-IE', ['1,250', '12'], 'number', [{ view: '' }]],
    ['en-IE', ['ann@x.example', 'bo@x.example'], 'email', [{ view: '' }]],
    ['en-IE', ['https://x.example/a', 'https://x.example/b'], 'link', [{ view: '' }]],
  ])('%s %j', (locale, texts, type, written) => {
    expect(kind(locale, ...texts)).toMatchObject({ type, written });
  });
  it('with attributes where the format needs them', () => {
    expect(kind('en-IE', '1250', '12')).toMatchObject({ type: 'number', attributes: { grouping: false } });
    expect(kind('en-IE', '12.50', '9.00')).toMatchObject({ type: 'number', attributes: { decimals: 2 } });
    expect(kind('en-IE', '£12.50', '£9.00')).toMatchObject({ type: 'money', attributes: { currency: 'GBP' } });
  });
  it('and no type fits a mixture, or another way of writing', () => {
    expect(kind('en-IE', '3 April 2027', 'soon')).toBeUndefined();
    expect(kind('en-IE', '3rd April 2027', '14th May 2027')).toBeUndefined();
    expect(kind('en-IE', '12', 'a dozen')).toBeUndefined();
    expect(kind('en-IE', '€12.50', '£9.00')).toBeUndefined();
  });
  it('and tells whether the year of a date is known', () => {
    expect(['3 April', '3 April 2027'].map((text) => lacksYear(kind('en-IE', text)!))).toEqual([true, false]);
  });
});

describe('a formula', () => {
  const party = { key: 'party', values: numbered(2, 10, 15, 30) };
  const price = { key: 'price', values: numbered(3, 4, 5, 6) };
  it('is a multiple of a number, or the product of two', () => {
    expect(productFormula(numbered(9, 45, 67.5, 135), [price, party])).toBe('party * 4.5');
    expect(productFormula(numbered(6, 40, 75, 180), [price, party])).toBe('price * party');
    expect(productFormula(numbered(9, 45, 67.5, 136), [party])).toBeUndefined();
  });
  it('is a date some days from another', () => {
    const visit = { key: 'visit', values: numbered('2027-03-03', '2027-04-04', '2027-05-05', '2027-06-06') };
    expect(dateFormula(numbered('2027-02-24', '2027-03-28', '2027-04-28', '2027-05-30'), [visit])).toBe(
      'addDays(visit, -7)',
    );
    expect(dateFormula(numbered('2027-02-24', '2027-03-28', '2027-04-28', '2027-05-31'), [visit])).toBeUndefined();
  });
  it('is a threshold that separates all mails, with enough on both sides', () => {
    const values = { key: 'party', values: numbered(2, 5, 9, 12, 15, 20, 30, 40) };
    const split = (yes: readonly number[], no: readonly number[]) => ({ yes: new Set(yes), no: new Set(no) });
    expect(thresholdFormula(split([4, 5, 6, 7], [0, 1, 2, 3]), [values])).toBe('party >= 15');
    expect(thresholdFormula(split([0, 1, 2, 3], [4, 5, 6, 7]), [values])).toBe('party < 15');
    expect(thresholdFormula(split([3, 5, 6, 7], [0, 1, 2, 4]), [values])).toBeUndefined();
    expect(thresholdFormula(split([5, 6, 7], [0, 1, 2, 3, 4]), [values])).toBeUndefined();
  });
  it('is not made of few values, of values that are all the same, or of unknown ones', () => {
    expect(productFormula(numbered(9, 45, 67.5), [party])).toBeUndefined();
    expect(productFormula(numbered(9, 9, 9, 9), [{ key: 'two', values: numbered(2, 2, 2, 2) }])).toBeUndefined();
    expect(productFormula(numbered(9, 45, 67.5, 135, 9), [party])).toBeUndefined();
  });
});

describe('labels', () => {
  it('are the nearest content word, before a place or after it', () => {
    expect(labelOfPlace('We expect your group of ', ' on Monday', 'Number')).toBe('Group');
    expect(labelOfPlace('The entrance fee comes to ', '.', 'Money')).toBe('Fee');
    expect(labelOfPlace('Please come to ', ' gate.', 'Words')).toBe('Gate');
    expect(labelOfPlace('on the ', '.', 'Date')).toBe('Date');
    expect(labelOfPlace('Dear ', ',', 'Words')).toBe('Name');
    expect(labelOfPlace('We wait. Until ', '', 'Time')).toBe('Time');
  });
  it('of text are its first content words', () => {
    expect(labelOfText('The picnic lawn is yours from noon.')).toBe('Picnic lawn yours');
    expect(labelOfText(' , ')).toBe(',');
  });
  it('of options are the words that only they have, with different keys', () => {
    expect(optionsFor(['to the north gate', 'to the river gate'])).toEqual([
      { key: 'north', label: 'North' },
      { key: 'river', label: 'River' },
    ]);
    expect(new Set(optionsFor(['the same', 'the same', '!']).map(({ key }) => key)).size).toBe(3);
  });
  it('of a choice are its options, if that is not too long', () => {
    expect(labelOfChoice(optionsFor(['north', 'river']))).toBe('North or River');
    expect(labelOfChoice(optionsFor(['numbers until Friday please', 'others want the date soon']))).toBe('Which words');
  });
  it('of a template are the words that all subjects share', () => {
    expect(titleFrom(['Your visit on 3 April', 'Your visit on 14 May'])).toBe('Your visit');
    expect(titleFrom(['Your visit on 3 May', 'Your visit on Monday 14 May'])).toBe('Your visit');
    expect(titleFrom(['Ihr Besuch am 3. Mai', 'Ihr Besuch am 14. Mai'], 'de-DE')).toBe('Ihr Besuch');
    expect(titleFrom(['Hello Ann', 'Greetings'])).toBe('Hello Ann');
    expect(titleFrom(['', ''])).toBe('From past mails');
  });
});
