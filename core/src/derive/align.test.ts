import { describe, expect, it } from 'vitest';
import { align } from './align.js';
import { Comparison, guideOf } from './likeness.js';
import { withLists } from './repeats.js';
import type { Unit } from './mail.js';
import { tokensOfText } from './tokens.js';

const words = {
  compare: (a: string, b: string) => (a[0] === b[0] ? (a === b ? 1 : 0.6) : 0),
  key: (item: string) => item,
};
const aligned = (...sequences: readonly (readonly string[])[]): string[] =>
  align(sequences, [...sequences.keys()], words).map((column) =>
    sequences.map((_, at) => column.get(at) ?? '-').join(' '),
  );

describe('sequences are aligned', () => {
  it('so that alike items stand at one place, and others at their own', () => {
    expect(aligned(['a', 'b', 'c'], ['a', 'c'], ['a', 'b2', 'x', 'c'])).toEqual(['a a a', 'b - b2', '- - x', 'c c c']);
  });
  it('in their order, whatever is missing', () => {
    expect(aligned([], ['a'], [])).toEqual(['- a -']);
    expect(aligned()).toEqual([]);
  });
  it('with a step for each, twice', () => {
    let steps = 0;
    align([['a'], ['b'], ['c']], [0, 1, 2], words, () => (steps += 1));
    expect(steps).toBe(6);
    expect(() => align([['a']], [0], words, () => { throw new Error('stop'); })).toThrow('stop'); // prettier-ignore
  });
});

const tokens = (text: string) => tokensOfText(text, [], 'en-IE');
const unit = (text: string, shape = 'paragraph{}'): Unit => ({
  shape,
  tokens: tokens(text),
  sentences: [tokens(text)],
});

describe('likeness', () => {
  const { compare, units } = new Comparison();
  it('is the share of words, with values of one kind being the same', () => {
    expect(compare(tokens('Come on 3 April 2027'), tokens('Come on 14 May 2027'))).toBe(1);
    expect(compare(tokens('one two'), tokens('two three'))).toBe(0.5);
    expect(compare(tokens(''), tokens('!'))).toBe(1);
  });
  it('is none between different forms', () => {
    expect(units.compare(unit('one'), unit('one', 'heading 2'))).toBe(-1);
    const rule = (block: Unit['block']): Unit => ({ ...unit('', 'button'), ...(block ? { block } : {}) });
    const button = (href: string) => rule({ type: 'button', attrs: { href } });
    expect(units.compare(button('a'), button('b'))).toBeGreaterThan(0);
  });
  it('guides the alignment from the most typical mail, and tells kinds apart', () => {
    const mails = ['we are closed on Monday', 'we are open on Monday', 'we are open on Monday', 'seeds for a loan'].map(
      tokens,
    );
    expect(guideOf(mails, new Comparison())).toEqual({ order: [1, 2, 0, 3], groups: [[0, 1, 2], [3]] });
  });
});

describe('lists', () => {
  const items = (...texts: readonly string[]): Unit[] => texts.map((text) => unit(text, 'bullet'));
  it('are items that are different in every mail and vary in number', () => {
    const [first, second] = withLists([
      [unit('Dear'), ...items('ferns', 'moss'), unit('Bye')],
      [unit('Dear'), ...items('seeds'), unit('Bye')],
    ]);
    expect(first?.map(({ shape, sentences }) => `${shape} ${sentences.length}`)).toEqual([
      ...['paragraph{} 1', 'list of bullet 2', 'paragraph{} 1'],
    ]);
    expect(second).toHaveLength(3);
  });
  it('are not items that most mails have', () => {
    const mails = [items('boots', 'water'), items('boots', 'water', 'hat')];
    expect(withLists(mails)).toEqual(mails);
  });
});
