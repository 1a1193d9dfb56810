import { emptyDocument, type TextDocument, type Variable } from '@vocabula/core';
import { describe, expect, it, vi } from 'vitest';
import { oncePatternsAreReady } from './patternsReady';

const textWith = (...variables: Variable[]): TextDocument => {
  const empty = emptyDocument({ kind: 'message', title: 'T' });
  return { ...empty, attrs: { ...empty.attrs, variables } };
};
const PLAIN = textWith({ key: 'a', type: 'text' });
const PATTERN = textWith({ key: 'a', type: 'text', pattern: '[A-Z]{2}' });
const IN_COLUMN = textWith({ key: 'l', type: 'list', columns: [{ key: 'c', type: 'text', pattern: '\\d+' }] });

describe('requests of a worker', () => {
  it('are handled at once while no text has a pattern', () => {
    const handled: TextDocument[] = [];
    const handle = oncePatternsAreReady<TextDocument>(
      (text) => [text, undefined],
      (text) => handled.push(text),
    );
    handle(PLAIN);
    expect(handled).toEqual([PLAIN]);
  });
  it.each([PATTERN, IN_COLUMN])('wait from the first text with a pattern on, in their order', async (text) => {
    const handled: TextDocument[] = [];
    const handle = oncePatternsAreReady<TextDocument>(
      (each) => [each],
      (each) => handled.push(each),
    );
    handle(text);
    handle(PLAIN);
    expect(handled).toEqual([]);
    await vi.waitFor(() => expect(handled).toEqual([text, PLAIN]));
    handle(text);
    expect(handled).toHaveLength(3);
  });
});
