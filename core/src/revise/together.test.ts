import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readText, writeText } from '../formats/markdown/index.js';
import type { TextDocument } from '../template/document.js';
import { documents } from '../testing/arbitrary.js';
import { bringTogether, type Taken } from './together.js';

const text = (body: string, front = 'kind: message\ntitle: Visit'): TextDocument =>
  readText(`---\n${front}\n---\n${body}\n`).document;
const bodyOf = (document: TextDocument): string => writeText(document).split('---\n')[2]?.trim() ?? '';

describe('two texts brought together', () => {
  const base = text('One.\n\nTwo.\n\nThree.');

  it('take what only one side changed, and ask about what both did', () => {
    const { differences, merge } = bringTogether(
      text('One, mine.\n\nTwo, mine.\n\nThree.'),
      text('One.\n\nTwo, theirs.\n\nThree, theirs.'),
      base,
    );
    expect(differences.map(({ yours, theirs, decided }) => [yours, theirs, decided])).toEqual([
      [['One, mine.'], ['One.'], 'yours'],
      [['Two, mine.'], ['Two, theirs.'], undefined],
      [['Three.'], ['Three, theirs.'], 'theirs'],
    ]);
    expect(bodyOf(merge([]))).toBe('One, mine.\n\nTwo, mine.\n\nThree, theirs.');
    expect(bodyOf(merge([undefined, 'theirs']))).toBe('One, mine.\n\nTwo, theirs.\n\nThree, theirs.');
    expect(bodyOf(merge(['theirs', 'both']))).toBe('One.\n\nTwo, mine.\n\nTwo, theirs.\n\nThree, theirs.');
  });

  it('with nothing known of where they came from decide nothing', () => {
    const { differences } = bringTogether(text('One.'), text('Two.'));
    expect(differences.map(({ decided }) => decided)).toEqual([undefined]);
  });

  it('keep what either side added or took out', () => {
    const { merge } = bringTogether(text('One.\n\nNew.\n\nTwo.\n\nThree.'), text('One.\n\nTwo.'), base);
    expect(bodyOf(merge([]))).toBe('One.\n\nNew.\n\nTwo.');
  });

  it('are compared inside a passage that both have', () => {
    const front = 'kind: message\ntitle: Visit\nvariables:\n  guide:\n    type: yes-no';
    const passage = (a: string, b: string): TextDocument => text(`{{#guide}}\n\n${a}\n\n${b}\n\n{{/guide}}`, front);
    const { differences, merge } = bringTogether(
      passage('One, mine.', 'Two.'),
      passage('One.', 'Two, theirs.'),
      passage('One.', 'Two.'),
    );
    expect(differences.map(({ decided }) => decided)).toEqual(['yours', 'theirs']);
    expect(merge([])).toEqual(passage('One, mine.', 'Two, theirs.'));
  });

  it('show the written form where the words are the same', () => {
    const front = 'kind: message\ntitle: Visit\nvariables:\n  guide:\n    type: yes-no';
    const { differences } = bringTogether(
      text('{{#guide}}\n\nOne.\n\n{{/guide}}', front),
      text('{{^guide}}\n\nOne.\n\n{{/guide}}', front),
    );
    expect(differences[0]?.yours.join(' ')).toContain('{{#guide}}');
    expect(differences[0]?.theirs.join(' ')).toContain('{{^guide}}');
  });

  it('name an attribute, a line and a variable that differ', () => {
    const front = (subject: string, title: string, label: string): string =>
      `kind: message\ntitle: ${title}\nsubject: ${subject}\nvariables:\n  fee:\n    type: money\n    label: ${label}\n    currency: EUR`;
    const { differences } = bringTogether(
      text('{{fee}}', front('Your visit', 'Visit', 'Fee')),
      text('{{fee}}', front('Your fee', 'Visit and fee', 'What it costs')),
    );
    expect(differences.map((each) => [each.in, each.name, each.yours, each.theirs])).toEqual([
      ['front', 'title', ['Visit'], ['Visit and fee']],
      ['part', 'subject', ['Your visit'], ['Your fee']],
      ['variable', 'fee', ['Fee · money'], ['What it costs · money']],
    ]);
  });

  it('show what each option of a choice says', () => {
    const front = (wording: string): string =>
      `kind: message\ntitle: Visit\nvariables:\n  gate: { type: choice, options: { north: { label: North, wording: ${wording} } } }`;
    const { differences } = bringTogether(
      text('{{gate}}', front('the gate')),
      text('{{gate}}', front('the north gate')),
    );
    expect(differences.map(({ yours, theirs }) => [yours, theirs])).toEqual([
      [
        ['gate · choice', 'North · the gate'],
        ['gate · choice', 'North · the north gate'],
      ],
    ]);
  });

  it('never lose the variable of a placeholder that is taken', () => {
    const fee =
      'kind: message\ntitle: Visit\nvariables:\n  net:\n    type: number\n  fee:\n    type: number\n    value: net * 2';
    const { differences, merge } = bringTogether(text('{{fee}} please.', fee), text('Nothing.'));
    const taken = differences.map((each): Taken => (each.in === 'body' ? 'yours' : 'theirs'));
    expect(merge(taken).attrs.variables.map(({ key }) => key)).toEqual(['fee', 'net']);
  });

  it('give either side whole, whatever they are', () => {
    const all = (side: 'yours' | 'theirs', length: number): Taken[] => Array.from({ length }, () => side);
    fc.assert(
      fc.property(documents, documents, fc.option(documents, { nil: undefined }), (yours, theirs, from) => {
        const { differences, merge } = bringTogether(yours, theirs, from);
        const count = differences.length;
        const content = ({ content: parts }: TextDocument) => parts;
        expect(content(merge(all('yours', count)))).toEqual(yours.content);
        expect(content(merge(all('theirs', count)))).toEqual(theirs.content);
      }),
      { numRuns: 60 },
    );
  });

  it('that are the same have no differences', () => {
    fc.assert(
      fc.property(documents, (document) => {
        expect(bringTogether(document, document, document).differences).toEqual([]);
      }),
      { numRuns: 30 },
    );
  });
});
