import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { textOf, tokensOfText } from './tokens.js';
import { compareWordings, splitOptionalEnding, type Wordings } from './wordings.js';

const wordings = (...texts: readonly string[]): Wordings =>
  new Map(texts.map((text, at) => [at, tokensOfText(text, [], 'en-IE')]));
/** Shared text as it is, a gap as the list of what stands in it. */
const compared = (...texts: readonly string[]): (string | string[])[] =>
  compareWordings(wordings(...texts)).map((piece) =>
    piece.kind === 'shared' ? textOf(piece.tokens) : texts.map((_, at) => textOf(piece.wordings.get(at) ?? [])),
  );

describe('wordings are compared word by word', () => {
  it('into what all share and what varies', () => {
    expect(compared('Come on 3 April 2027.', 'Come on 14 May 2027.')).toEqual([
      'Come on ',
      ['3 April 2027', '14 May 2027'],
      '.',
    ]);
    expect(compared('The same.', 'The same.')).toEqual(['The same.']);
  });
  it('with gaps that are empty for some', () => {
    expect(compared('Please come.', 'Please come early.', 'Please come.')).toEqual([
      'Please come',
      ['', ' early', ''],
      '.',
    ]);
  });
  it('without spaces that are shared by coincidence within names', () => {
    const names = ['Ann Marie', 'Bo Li', 'Una Oakes', 'Kofi Mensah', 'Inês Duarte'];
    expect(compared(...names.map((name) => `Dear ${name},`))).toEqual(['Dear ', names, ',']);
  });
  it('but with separate gaps for a number and the words that agree with it', () => {
    expect(compared('Your 1 ticket is here.', 'Your 4 tickets are here.', 'Your 9 tickets are here.')).toEqual([
      'Your ',
      ['1', '4', '9'],
      ' ',
      ['ticket', 'tickets', 'tickets'],
      ' ',
      ['is', 'are', 'are'],
      ' here.',
    ]);
  });
  it('so that the pieces of each wording put together are the wording', () => {
    const word = fc.constantFrom('a', 'b', 'gate', 'river', '3 April 2027', '12', ',', '.');
    const text = fc.array(word, { minLength: 1, maxLength: 8 }).map((words) => words.join(' '));
    fc.assert(
      fc.property(fc.array(text, { minLength: 1, maxLength: 6 }), (texts) => {
        const pieces = compareWordings(wordings(...texts));
        for (const [at, whole] of texts.entries())
          expect(
            pieces
              .map((piece) => textOf(piece.kind === 'shared' ? piece.tokens : (piece.wordings.get(at) ?? [])))
              .join(''),
          ).toBe(whole);
      }),
    );
  });
});

describe('an optional ending', () => {
  const split = (...texts: readonly string[]) =>
    splitOptionalEnding(wordings(...texts), 1)?.map((part) => texts.map((_, at) => textOf(part.get(at) ?? [])));
  it('is split from what varies before it', () => {
    expect(split('north', 'river', 'north, with a guide', 'river, with a guide')).toEqual([
      ['north', 'river', 'north', 'river'],
      ['', '', ', with a guide', ', with a guide'],
    ]);
  });
  it('may stand alone', () => {
    expect(split('', ' on Quarry Lane', ' on Quarry Lane, with a guide', ', with a guide')?.[1]).toEqual([
      ...['', '', ', with a guide', ', with a guide'],
    ]);
  });
  it('is not split where that would not leave fewer wordings', () => {
    expect(split('north', 'river')).toBeUndefined();
    expect(split('by the north gate', 'at the river gate', 'in the yard')).toBeUndefined();
  });
});
