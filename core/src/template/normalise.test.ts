import { expect, it } from 'vitest';
import { normaliseInline, normaliseLine } from './normalise.js';

it('a line feed in words is a break in a paragraph, a space in a line', () => {
  const words = [{ type: 'text' as const, text: 'one\ntwo', marks: [{ type: 'bold' as const }] }];
  expect(normaliseInline(words)).toEqual([
    { type: 'text', text: 'one', marks: [{ type: 'bold' }] },
    { type: 'hardBreak', marks: [{ type: 'bold' }] },
    { type: 'text', text: 'two', marks: [{ type: 'bold' }] },
  ]);
  expect(normaliseLine(words)).toEqual([{ type: 'text', text: 'one two' }]);
});
