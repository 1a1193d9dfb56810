/** Going on below the last block of a text, when that is none to type in. */
import type { Editor } from '@tiptap/core';
import { Selection, TextSelection } from '@tiptap/pm/state';

/** Puts the caret into the text's last line: a new paragraph, where it ends in a table, a rule, a block or an image. */
export function writeBelow(editor: Editor): void {
  const { doc, schema, tr } = editor.state;
  const last = doc.lastChild?.lastChild;
  const paragraph = schema.nodes.paragraph;
  const end = doc.content.size - 1;
  if (last && paragraph && !last.isTextblock) {
    tr.insert(end, paragraph.create());
    tr.setSelection(TextSelection.create(tr.doc, end + 1));
  } else tr.setSelection(Selection.near(doc.resolve(end), -1));
  editor.view.dispatch(tr.scrollIntoView());
  editor.view.focus();
}

/** True for a press beside the text, below its last block. */
export function isBelow(editor: Editor, event: MouseEvent): boolean {
  const blocks = editor.view.dom.querySelector('.body')?.children;
  const last = blocks?.[blocks.length - 1]?.getBoundingClientRect();
  const target = event.target as HTMLElement;
  const beside = target.contains(editor.view.dom) || target === editor.view.dom || target.matches('.body');
  return event.button === 0 && beside && last !== undefined && event.clientY > last.bottom;
}
