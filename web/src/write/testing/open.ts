/** Editors over files, for tests. */
import { Editor } from '@tiptap/core';
import { onTestFinished } from 'vitest';
import { normalise, type TextDocument } from '@vocabula/core';
import { readText, writeText } from '@vocabula/core/markdown';
import { bracketsOf, flatten, type Bracket } from '../editor/brackets';
import { extensions } from '../editor/extensions';
import { findWords, type Range } from '../editor/operations/places';

/** An editor on a file's body, with its variables as lines of YAML, and its subject. */
export function open(body: string, variables = '', subject = 'S'): Editor {
  const declared = variables === '' ? '' : `variables:\n${variables.replace(/^/gm, '  ')}\n`;
  const source = `---\nvocabula: 1\nkind: message\ntitle: T\nsubject: ${JSON.stringify(subject)}\n${declared}---\n${body}\n`;
  const editor = new Editor({
    element: document.createElement('div'),
    extensions: extensions(),
    content: readText(source).document as never,
  });
  // There is no layout here to scroll in.
  editor.setOptions({ editorProps: { handleScrollToSelection: () => true } });
  // Files share their modules: a hook of this one would be that of the first file alone, and editors of others live on.
  onTestFinished(() => editor.destroy());
  return editor;
}

const written = (of: Editor): string => writeText(normalise(of.getJSON() as unknown as TextDocument));
export const bodyOf = (of: Editor): string => (written(of).split('---\n')[2] ?? '').trimEnd();
export const subjectOf = (of: Editor): string => /^subject: "(.*)"$/m.exec(written(of))?.[1] ?? '';

/** Selects words where they first stand. */
export function select(of: Editor, words: string): Range {
  const [place] = findWords(of.state.doc, words);
  if (!place) throw new Error(words);
  of.commands.setTextSelection(place);
  return place;
}

/** Puts the caret behind words, or before them. */
export function caretAt(of: Editor, words: string, side: 'before' | 'behind' = 'behind'): void {
  const { from, to } = select(of, words);
  of.commands.setTextSelection(side === 'before' ? from : to);
}

/** Presses a key in the editor; true if it was handled. */
export const press = (of: Editor, key: string, more: KeyboardEventInit = {}): boolean =>
  of.view.someProp('handleKeyDown', (handle) => handle(of.view, new KeyboardEvent('keydown', { key, ...more }))) ??
  false;

/** Types text at the selection, as a keyboard does. */
export function type(of: Editor, text: string): void {
  for (const letter of text) {
    const { from, to } = of.state.selection;
    const handled = of.view.someProp('handleTextInput', (handle) =>
      handle(of.view, from, to, letter, () => of.state.tr),
    );
    if (!handled) of.view.dispatch(of.state.tr.insertText(letter));
  }
}

/** The bracket that a key, with or without an option, governs: `gate.a`. */
export function bracket(of: Editor, name: string, nth = 0): Bracket {
  const all = flatten(bracketsOf(of.state.doc)).filter(({ condition, name: block }) =>
    condition ? [condition.of, ...condition.is].join('.') === name : block === name,
  );
  const found = all[nth];
  if (!found) throw new Error(`no bracket ${name}`);
  return found;
}
