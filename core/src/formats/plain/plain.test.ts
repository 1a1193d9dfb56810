import { describe, expect, it } from 'vitest';
import { findSignOff, isGreeting } from '../../words/closing.js';
import { writeBody } from '../markdown/index.js';
import { looksLikeMarkdown, readMarkdown, readPlain } from './index.js';

describe('plain text', () => {
  it('has paragraphs between empty lines, and lines in them', () => {
    expect(writeBody(readPlain('Dear Ann,\r\n\r\none *two*\nthree  \n\n\n\n- four\n'))).toBe(
      'Dear Ann,\n\none \\*two\\*\\\nthree\n\n\\- four',
    );
    expect(readPlain(' \n ')).toEqual([{ type: 'paragraph' }]);
  });

  it.each([
    ['# Title', true],
    ['some **bold** words', true],
    ['- one\n- two', true],
    ['see [this](https://x.example)', true],
    ['a # b', false],
    ['2 * 3 * 4', false],
    ['- one dash', false],
    ['[Name], come', false],
    ['Dear Ann,\n\nfine.', false],
  ])('%j is Markdown: %s', (text, expected) => expect(looksLikeMarkdown(text)).toBe(expected));

  it('with cells parted by tabs is a table', () => {
    const [table, after] = readPlain('Gate\tOpens\nRiver\t10:00\nNorth\t\n\nand\tone line');
    expect(table).toMatchObject({
      type: 'table',
      content: [{}, {}, { content: [{}, { content: [{ type: 'paragraph' }] }] }],
    });
    expect(after).toMatchObject({ type: 'paragraph' });
  });
  it('is read as Markdown with the tags that are known, and no others', () => {
    const blocks = readMarkdown('**{{name}}** and {{other}} {{#x}}y{{/x}}', (name) => name === 'name');
    expect(writeBody(blocks)).toBe('**{{name}}** and \\{{other}} \\{{#x}}y\\{{/x}}');
  });
});

describe('letters', () => {
  it.each([
    ['Hello.\n\nKind regards,\nAnn', { block: 1, line: 0 }],
    ['Hello.\n\nBest wishes\n\nAnn\nVisits', { block: 1, line: 0 }],
    ['Hello.\nMit freundlichen Grüßen\nAnn', { block: 0, line: 1 }],
    ['Hello.\n\n-- \nAnn', { block: 1, line: 0 }],
    ['Kind regards are sent.', undefined],
    ['Hello.\n\nThank you for your regards.', undefined],
    ['Hello.\n\nKind regards', undefined],
  ])('%j', (text, expected) => expect(findSignOff(readPlain(text))).toEqual(expected));

  it('begin with a greeting', () => {
    expect(
      ['Dear Ann,', 'Hello', 'Sehr geehrte Frau Lee,', 'Dear me. That is bad.', 'The deer'].map(isGreeting),
    ).toEqual([true, true, true, false, false]);
  });
});
