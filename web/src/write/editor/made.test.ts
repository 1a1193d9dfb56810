// @vitest-environment happy-dom
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { Editor } from '@tiptap/core';
import { TextSelection } from '@tiptap/pm/state';
import { compile, normalise, render, type TextDocument } from '@vocabula/core';
import { readText, writeText } from '@vocabula/core/markdown';
import { documents } from '@vocabula/core/testing';
import { press } from '../testing/open';
import { extensions } from './extensions';

type Act = (editor: Editor) => void;
const ACTS: readonly Act[] = [
  (editor) => editor.commands.insertContent('words '),
  (editor) => editor.commands.insertContent({ type: 'placeholder', attrs: { name: 'name', view: '' } }),
  (editor) => editor.commands.toggleBold(),
  (editor) => editor.commands.toggleBulletList(),
  (editor) => editor.commands.toggleBlockquote(),
  (editor) => editor.commands.setHeading({ level: 2 }),
  (editor) => press(editor, 'Enter'),
  (editor) => editor.commands.joinBackward(),
  (editor) => editor.commands.deleteSelection(),
  (editor) => editor.commands.setHorizontalRule(),
  (editor) => editor.commands.insertTable({ rows: 2, cols: 2, withHeaderRow: true }),
  (editor) => editor.commands.undo(),
  (editor) => editor.commands.setHardBreak(),
];
const acts = fc.array(fc.tuple(fc.nat(ACTS.length - 1), fc.nat(), fc.nat(6)), { maxLength: 8 });

/** What an editor made of its document by some acts. It is taken down whatever happens: a failure tries many. */
function edited(editor: Editor, done: readonly (readonly [number, number, number])[]): TextDocument {
  try {
    for (const [act, where, length] of done) {
      const { size } = editor.state.doc.content;
      const from = 1 + (where % (size - 1));
      const { doc, tr } = editor.state;
      const to = Math.min(size, from + length);
      // Where a press or a drag would put it: into text.
      editor.view.dispatch(tr.setSelection(TextSelection.between(doc.resolve(from), doc.resolve(to))));
      ACTS[act]?.(editor);
    }
    return normalise(JSON.parse(JSON.stringify(editor.getJSON())) as TextDocument);
  } finally {
    editor.destroy();
  }
}

it('whatever the editor makes of a document compiles, renders, exports and reads back equal', () => {
  fc.assert(
    fc.property(documents, acts, (document, done) => {
      const editor = new Editor({
        element: window.document.createElement('div'),
        extensions: extensions(),
        content: document as never,
      });
      editor.setOptions({ editorProps: { handleScrollToSelection: () => true } });
      const made = edited(editor, done);
      const program = compile({ name: 'made', document: made }, { library: { get: () => undefined } });
      const message = render(program, { recipient: {}, sender: {}, answers: {}, today: '2026-11-24', zone: 'UTC' });
      expect([typeof message.html, typeof message.text]).toEqual(['string', 'string']);
      const read = readText(writeText(made));
      expect(read.document).toEqual(made);
    }),
    { numRuns: 60 },
  );
});
