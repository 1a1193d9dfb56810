// @vitest-environment happy-dom
import { NodeSelection, TextSelection } from '@tiptap/pm/state';
import { describe, expect, it } from 'vitest';
import { bodyOf, open, press, type } from '../../testing/open';

/** An editor whose only placeholder was pressed. */
function pressed(body: string) {
  const editor = open(body, 'n: { type: text }');
  let at = -1;
  editor.state.doc.descendants((node, pos) => {
    if (node.type.name === 'placeholder') at = pos;
  });
  editor.view.dispatch(editor.state.tr.setSelection(NodeSelection.create(editor.state.doc, at)));
  return { editor, at };
}

describe('with a placeholder pressed', () => {
  it('End goes on from behind it, and Home from before it', () => {
    const { editor, at } = pressed('{{n}}');
    press(editor, 'End');
    expect([editor.state.selection.empty, editor.state.selection.from]).toEqual([true, at + 1]);
    const other = pressed('{{n}}');
    press(other.editor, 'Home');
    expect([other.editor.state.selection.empty, other.editor.state.selection.from]).toEqual([true, other.at]);
  });
  it('what is typed after End and Enter stands in a paragraph of its own', () => {
    const { editor } = pressed('{{n}}');
    press(editor, 'End');
    press(editor, 'Enter');
    type(editor, 'Bring two guides.');
    expect(bodyOf(editor)).toBe('{{n}}\n\nBring two guides.');
  });
});

describe('Enter over selected words', () => {
  const select = (editor: ReturnType<typeof open>, from: number, to: number): void =>
    editor.view.dispatch(editor.state.tr.setSelection(TextSelection.create(editor.state.doc, from, to)));
  it('from the start of one paragraph to the start of the next leaves an empty one in place of the first', () => {
    const editor = open('One.\n\nTwo.');
    let first = -1;
    editor.state.doc.descendants((node, pos) => {
      if (node.isText && node.text === 'One.') first = pos;
    });
    select(editor, first, first + 'One.'.length + 2);
    press(editor, 'Enter');
    type(editor, 'New ');
    expect(bodyOf(editor)).toBe('<p></p>\n\nNew Two.');
  });
  it('over everything leaves an empty text to write in', () => {
    const editor = open('One.\n\nTwo.');
    editor.commands.selectAll();
    editor.commands.setTextSelection({
      from: editor.state.doc.content.size - 11,
      to: editor.state.doc.content.size - 1,
    });
    expect(() => press(editor, 'Enter')).not.toThrow();
  });
});
