// @vitest-environment happy-dom
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { getSchema } from '@tiptap/core';
import { EditorState } from '@tiptap/pm/state';
import { normalise, renameVariable, removeVariable } from '@vocabula/core';
import { documents } from '@vocabula/core/testing';
import { bodyOf, caretAt, open, subjectOf } from '../../testing/open';
import { schema } from '../schema';
import { applyDocument, changeTo, documentOf } from './apply';

describe('a changed document', () => {
  it('is what the editor has afterwards, whatever it was', () => {
    const pm = getSchema(schema);
    fc.assert(
      fc.property(documents, documents, (before, after) => {
        const state = EditorState.create({ schema: pm, doc: pm.nodeFromJSON(before) });
        const next = pm.nodeFromJSON(after);
        const { tr } = state;
        changeTo(tr, next);
        expect(tr.doc.toJSON()).toEqual(next.toJSON());
        expect(tr.doc.eq(next)).toBe(true);
        tr.doc.check();
      }),
    );
  });
  it('comes in one step of undo, and leaves the caret where nothing moved', () => {
    const of = open(
      'Dear {{a}}, come.\n\n{{#b}}\nBring {{a}}.\n{{/b}}',
      'a: { type: text }\nb: { type: yes-no }',
      'To {{a}}',
    );
    caretAt(of, 'Bring');
    const { anchor } = of.state.selection;
    applyDocument(of, renameVariable(documentOf(of), 'a', 'name'));
    expect([bodyOf(of), subjectOf(of)]).toEqual([
      'Dear {{name}}, come.\n\n{{#b}}\nBring {{name}}.\n{{/b}}',
      'To {{name}}',
    ]);
    expect(of.state.selection.anchor).toBe(anchor);
    of.commands.undo();
    expect([bodyOf(of), subjectOf(of)]).toEqual(['Dear {{a}}, come.\n\n{{#b}}\nBring {{a}}.\n{{/b}}', 'To {{a}}']);
    expect(of.can().undo()).toBe(false);
  });
  it('that is the same changes nothing', () => {
    const of = open('{{a}}', 'a: { type: text }');
    expect(applyDocument(of, documentOf(of))).toBe(false);
    expect(applyDocument(of, normalise(documentOf(of)))).toBe(false);
    expect(applyDocument(of, removeVariable(documentOf(of), 'a', { words: 'A', passages: 'out' }))).toBe(true);
    expect(bodyOf(of)).toBe('A');
  });
});
