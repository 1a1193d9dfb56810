/** The editor over one document, and everything that is derived from its state. */
import { Editor } from '@tiptap/core';
import { NodeSelection } from '@tiptap/pm/state';
import { normalise, type TextDocument, type Variable } from '@vocabula/core';
import { computed, onBeforeUnmount, ref, shallowRef } from 'vue';
import { caretPath, caretPlace, passageAt, pathInWords, wordCount } from './caret';
import { findMarkerGroups, findWords, removeBefore, variablesOf } from './editor/operations';
import { extensions } from './editor/schema';
import { countPlaces } from './useWriting';

/** What happens in the manuscript that others act on. */
export interface ManuscriptEvents {
  changed(document: TextDocument, pasted: boolean): void;
  /** `{{` was typed, and is taken out again. */
  braces(): void;
  /** The selection, or what stands around it, may have moved. */
  moved(): void;
}

export function useManuscript(document: TextDocument, events: ManuscriptEvents) {
  const current = shallowRef<TextDocument>(document);
  /** Counts transactions: what reads it is derived anew after each. */
  const beat = ref(0);
  const after = <T>(derive: () => T) =>
    computed(() => {
      void beat.value;
      return derive();
    });

  const editor = new Editor({
    extensions,
    content: document as never,
    editorProps: {
      attributes: { 'aria-label': 'Manuscript', role: 'textbox', 'aria-multiline': 'true' },
      // An address pasted over selected words makes a link of them.
      handlePaste(view, event) {
        const text = event.clipboardData?.getData('text/plain').trim() ?? '';
        const { empty, from, to } = view.state.selection;
        if (empty || !/^(?:https?:\/\/|mailto:|tel:)\S+$/.test(text)) return false;
        const link = view.state.schema.marks.link?.create({ href: text });
        if (!link) return false;
        view.dispatch(view.state.tr.addMark(from, to, link));
        return true;
      },
    },
    onTransaction({ transaction }) {
      beat.value += 1;
      if (transaction.docChanged) {
        current.value = normalise(editor.getJSON() as unknown as TextDocument);
        events.changed(current.value, transaction.getMeta('paste') === true);
        if (bracesTyped()) {
          queueMicrotask(() => {
            removeBefore(editor, 2);
            events.braces();
          });
        }
      }
      events.moved();
    },
  });
  onBeforeUnmount(() => editor.destroy());

  function bracesTyped(): boolean {
    const { $from, empty } = editor.state.selection;
    const before = $from.parent.textBetween(0, $from.parentOffset, undefined, '\uFFFC');
    return empty && before.endsWith('{{') && $from.parent.type.name !== 'codeBlock';
  }

  const variables = after<readonly Variable[]>(() => variablesOf(editor.state.doc));
  const selectionWords = after(() => {
    const { from, to } = editor.state.selection;
    return editor.state.doc.textBetween(from, to, ' ');
  });
  return {
    editor,
    /** The document in its normal form. */
    current,
    variables,
    front: computed(() => current.value.attrs.front),
    markers: computed(() => (current.value ? findMarkerGroups(editor.state.doc) : [])),
    /** How many places use each variable. */
    places: computed(() => (current.value ? countPlaces(editor) : new Map<string, number>())),
    words: computed(() => wordCount(current.value)),
    /** The passage that is selected or that the caret is in. */
    chosen: after(() => passageAt(editor)),
    path: after(() => pathInWords(editor, variables.value)),
    /** The block with the caret, and its height in the window. */
    level: after(() => caretPlace(editor)),
    selectionWords,
    /** How many places hold the selected words. */
    selectionPlaces: after(() => findWords(editor.state.doc, selectionWords.value).length),
    /** True while words are selected, rather than nothing or a whole node. */
    wordsSelected: after(
      () => selectionWords.value.trim() !== '' && !(editor.state.selection instanceof NodeSelection),
    ),
    oneLine: after(() => editor.state.selection.$from.parent === editor.state.selection.$to.parent),
    inBody: after(() => caretPath(editor)[0] === editor.state.doc.childCount - 1),
  };
}

export type Manuscript = ReturnType<typeof useManuscript>;
