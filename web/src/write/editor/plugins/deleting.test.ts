// @vitest-environment happy-dom
import fc from 'fast-check';
import { NodeSelection, TextSelection } from '@tiptap/pm/state';
import type { Editor } from '@tiptap/core';
import { describe, expect, it } from 'vitest';
import { bodyOf, bracket, caretAt, open, press, select, type } from '../../testing/open';
import { bracketsOf, flatten } from '../brackets';

const X = 'x: { type: yes-no }\ny: { type: yes-no }';
function from(of: Editor, first: string, last: string): void {
  const start = select(of, first).from;
  of.commands.setTextSelection({ from: start, to: select(of, last).to });
}

describe('deleting', () => {
  it('empties a passage that is selected whole, and leaves its bracket', () => {
    const of = open('a\n\n{{#x}}\nb\n\nc\n{{/x}}', X);
    of.view.dispatch(of.state.tr.setSelection(NodeSelection.create(of.state.doc, bracket(of, 'x').from)));
    press(of, 'Delete');
    type(of, 'new');
    expect(bodyOf(of)).toBe('a\n\n{{#x}}\nnew\n{{/x}}');
  });
  it('over an edge takes no word with it, on either side', () => {
    const of = open('before\n\n{{#x}}\nfirst\n\nsecond\n{{/x}}\n\nbehind', X);
    from(of, 'second', 'behind');
    press(of, 'Backspace');
    expect(bodyOf(of)).toBe('before\n\n{{#x}}\nfirst\n\n<p></p>\n{{/x}}');
    const all = open('before\n\n{{#x}}\nin {{#y}}it{{/y}}\n\n{{#y}}\ndeep\n{{/y}}\n{{/x}}\n\nbehind', X);
    from(all, 'before', 'behind');
    press(all, 'Delete');
    expect(flatten(bracketsOf(all.state.doc)).map(({ form }) => form)).toEqual(['passage', 'phrase', 'passage']);
    expect(all.state.doc.textContent.replace('S', '')).toBe('');
  });
  it('of the last letters of a phrase leaves an empty place in it, which typing takes', () => {
    const of = open('a {{#x}}b{{/x}} c', X);
    select(of, 'b');
    press(of, 'Backspace') || of.commands.deleteSelection();
    expect(bodyOf(of)).toBe('a {{#x}}{{! }}{{/x}} c');
    type(of, 'new');
    expect(bodyOf(of)).toBe('a {{#x}}new{{/x}} c');
  });
  it('keeps phrases in phrases', () => {
    const of = open('a {{#x}}b {{#y}}c{{/y}}{{/x}} d', X);
    from(of, 'a', 'd');
    of.commands.deleteSelection();
    expect(
      flatten(bracketsOf(of.state.doc))
        .map(({ condition }) => condition?.of)
        .sort(),
    ).toEqual(['x', 'y']);
  });
  it('at the edge of a bracket does nothing', () => {
    const of = open('a\n\n{{#x}}\nb\n{{/x}}\n\nc', X);
    const before = bodyOf(of);
    for (const [words, side, key] of [
      ['b', 'before', 'Backspace'],
      ['b', 'behind', 'Delete'],
      ['a', 'behind', 'Delete'],
      ['c', 'before', 'Backspace'],
    ] as const) {
      caretAt(of, words, side);
      expect([words, key, press(of, key)]).toEqual([words, key, true]);
    }
    expect(bodyOf(of)).toBe(before);
    const items = open('- a\n{{#x}}\n- b\n- c\n{{/x}}', X);
    caretAt(items, 'b', 'before');
    expect(press(items, 'Backspace')).toBe(true);
    expect(bodyOf(items)).toBe('- a\n{{#x}}\n- b\n- c\n{{/x}}');
  });
  it('typing over a bracket leaves it too', () => {
    const of = open('a\n\n{{#x}}\nb\n{{/x}}\n\nc', X);
    from(of, 'a', 'c');
    type(of, 'new');
    expect(bodyOf(of)).toBe('new\n\n{{#x}}\n<p></p>\n{{/x}}');
  });
  it('never removes a bracket, wherever it begins and ends', () => {
    const bodies = [
      'a b\n\n{{#x}}\nc {{#y}}d{{/y}} e\n\n{{#y}}\nf\n{{/y}}\n{{/x}}\n\ng',
      '- a\n{{#x}}\n- b\n{{#y}}\n- c\n{{/y}}\n{{/x}}\n- d',
      '| A | B |\n| - | - |\n{{#x}}\n| c | d |\n{{/x}}\n| e | f |',
      '> {{#x}}\n> a {{#y}}b{{/y}}\n> {{/x}}\n\nc',
    ];
    fc.assert(
      fc.property(fc.constantFrom(...bodies), fc.nat(), fc.nat(), fc.boolean(), (body, a, b, forwards) => {
        const of = open(body, X);
        const { doc, tr } = of.state;
        const count = flatten(bracketsOf(doc)).length;
        const inBody = (at: number): number =>
          doc.content.size - (doc.lastChild?.nodeSize ?? 0) + 1 + (at % (doc.lastChild?.content.size ?? 1));
        const selection = TextSelection.between(doc.resolve(inBody(a)), doc.resolve(inBody(b)));
        of.view.dispatch(tr.setSelection(selection));
        if (!press(of, forwards ? 'Delete' : 'Backspace') && !of.state.selection.empty) of.commands.deleteSelection();
        of.state.doc.check();
        expect(flatten(bracketsOf(of.state.doc)).length).toBeGreaterThanOrEqual(count);
      }),
      { numRuns: 200 },
    );
  });
});
