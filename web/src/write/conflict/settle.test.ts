import { describe, expect, it } from 'vitest';
import { emptyDocument, type TextDocument } from '@vocabula/core';
import { ref } from 'vue';
import type { Clash } from '../useWorkingCopy';
import { useSettling, whereInWords } from './settle';

const text = (...lines: string[]): TextDocument => {
  const empty = emptyDocument({ kind: 'message', title: 'Visit' });
  const content = lines.map((words) => ({
    type: 'paragraph' as const,
    content: [{ type: 'text' as const, text: words }],
  }));
  return { ...empty, content: empty.content.map((part) => (part.type === 'body' ? { ...part, content } : part)) };
};
const clash = (yours: TextDocument, theirs: TextDocument, base: TextDocument): Clash => ({
  yours,
  base,
  theirs: { name: 'visit', revision: 9, updatedAt: '2026-11-24T10:00:00.000Z', document: theirs },
});

describe('a conflict being settled', () => {
  const given = () =>
    useSettling(ref(clash(text('One, mine.', 'Two, mine.'), text('One.', 'Two, theirs.'), text('One.', 'Two.'))));

  it('waits only for what both changed', () => {
    const { open, taken, choose, settled, differences } = given();
    expect([open.value, taken.value]).toEqual([1, ['yours', undefined]]);
    expect(differences.value.map(whereInWords)).toEqual(['Text', 'Text']);
    choose(1, 'both');
    expect([open.value, settled.value.losesMine, settled.value.losesTheirs]).toEqual([0, false, false]);
    expect(settled.value.document).toEqual(text('One, mine.', 'Two, mine.', 'Two, theirs.'));
  });

  it('tells whose words are not all in it', () => {
    const { choose, chooseAll, settled } = given();
    choose(1, 'yours');
    expect([settled.value.losesMine, settled.value.losesTheirs]).toEqual([false, true]);
    chooseAll('theirs');
    expect([settled.value.losesMine, settled.value.losesTheirs]).toEqual([true, false]);
    expect(settled.value.document).toEqual(text('One.', 'Two, theirs.'));
  });
});
