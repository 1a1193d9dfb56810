import { describe, expect, it } from 'vitest';
import { beyondBounds, MOST_OF_TEXT } from './bounds.js';

const paragraph = (...content: unknown[]) => ({ type: 'paragraph', content });
const text = (words: string) => ({ type: 'text', text: words });
const table = (rows: number, columns: number, span = 1) => ({
  type: 'table',
  content: Array.from({ length: rows }, () => ({
    type: 'tableRow',
    content: Array.from({ length: columns }, () => ({
      type: 'tableCell',
      attrs: { colspan: span, rowspan: span },
      content: [paragraph(text('x'))],
    })),
  })),
});
const doc = (...content: unknown[]) => ({ type: 'doc', content: [{ type: 'body', content }] });

describe('the bounds of a text', () => {
  it('let a long text with a large table be', () => {
    const words = Array.from({ length: 600 }, () => paragraph(text('word '.repeat(12)), text('b')));
    expect(beyondBounds(doc(...words, table(60, 12), table(20, 5, 2)))).toBeUndefined();
  });
  it.each([
    ['runs', doc(paragraph(...Array.from({ length: MOST_OF_TEXT.runs + 1 }, () => text('a'))))],
    ['paragraphs', doc(...Array.from({ length: MOST_OF_TEXT.blocks + 1 }, () => paragraph()))],
    ['cells', doc(...Array.from({ length: 5 }, () => table(90, 10)))],
    ['places', doc(table(6, 10, 200))],
    ['characters', doc(paragraph(text('a'.repeat(MOST_OF_TEXT.characters + 1))))],
  ])('say what is too much: %s', (what, document) => {
    expect(beyondBounds(document)).toContain(what);
  });
  it('take any JSON', () => {
    for (const any of [null, 1, 'x', [], { content: [null, 3, { content: 'x' }] }, { type: 'table', content: [null] }])
      expect(beyondBounds(any)).toBeUndefined();
  });
});
