import { describe, expect, it } from 'vitest';
import { GROWTH_LIMIT, growthOf, STUMBLING } from '../testing/growth.js';
import { isValue, roughKey, textOf, tokensOfLine, tokensOfText, trimmed } from './tokens.js';

const split = (text: string, locale = 'en-IE'): string[] =>
  tokensOfText(text, [], locale).flatMap(({ text: each, kind }) => (kind === 'space' ? [] : [`${kind}:${each}`]));

describe('values in text are one token each', () => {
  it.each([
    ['on Thursday 1 April 2027, please', ['word:on', 'date:Thursday 1 April 2027', 'sign:,', 'word:please']],
    ['3rd of May', ['date:3rd of May']],
    ['April 3, 2027', ['date:April 3, 2027']],
    ['2027-04-03 or 3/4/2027', ['date:2027-04-03', 'word:or', 'date:3/4/2027']],
    ['at 14:30', ['word:at', 'time:14:30']],
    ['€1,250.00 or 12 EUR.', ['money:€1,250.00', 'word:or', 'money:12 EUR', 'sign:.']],
    ['12 tickets, 1,250 seats', ['number:12', 'word:tickets', 'sign:,', 'number:1,250', 'word:seats']],
    [
      'ann.lee@x.example, https://x.example/a?b=1.',
      ['email:ann.lee@x.example', 'sign:,', 'link:https://x.example/a?b=1', 'sign:.'],
    ],
    ['well-known O’Toole B12', ['word:well-known', 'word:O’Toole', 'word:B12']],
  ])('%s', (text, tokens) => {
    expect(split(text)).toEqual(tokens);
  });
  it('in the language of the mail', () => {
    expect(split('am Donnerstag, 1. April 2027', 'de-DE')).toEqual(['word:am', 'date:Donnerstag, 1. April 2027']);
    expect(split('el 3 de mayo de 2027', 'es-ES')).toEqual(['word:el', 'date:3 de mayo de 2027']);
    // A month of another language is a word.
    expect(split('3 mai', 'en-IE')).toEqual(['number:3', 'word:mai']);
  });
});

describe('a line', () => {
  it('is folded and trimmed, and keeps its marks and breaks', () => {
    const tokens = tokensOfLine(
      [
        { type: 'text', text: ' Two  words ' },
        { type: 'hardBreak' },
        { type: 'text', text: ' and bold', marks: [{ type: 'bold' }] },
      ],
      'en-IE',
    );
    expect(textOf(tokens)).toBe('Two words\nand bold');
    expect(tokens.at(-1)?.marks).toEqual([{ type: 'bold' }]);
    expect(tokens.at(-1)?.key).not.toBe(tokensOfText('bold', [], 'en-IE')[0]?.key);
  });
  it('has no control characters, which separate cells and keys', () => {
    expect(textOf(tokensOfText('a\u001fb\u0000c\td', [], 'en-IE'))).toBe('abc d');
  });
  it('of blanks is empty', () => {
    expect(trimmed(tokensOfText(' \n ', [], 'en-IE'))).toEqual([]);
  });
  it('counts for likeness by folded words and by the kinds of values', () => {
    expect(tokensOfText('Café, 3 April 2027!', [], 'en-IE').map(roughKey).filter(Boolean)).toEqual(['cafe', '<date>']);
    expect(tokensOfText('12 a', [], 'en-IE').map(isValue)).toEqual([true, false, false]);
  });
});

it.each([...STUMBLING, '1.', '€1', 'a.', '1 ', 'a@b.', '1 April '])('work grows with the length of %j', (unit) => {
  expect(growthOf((text) => tokensOfText(text, [], 'en-IE'), unit) ?? 0).toBeLessThan(GROWTH_LIMIT);
});
