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
  /** `Esc` was pressed in the text; true if that closed something, so that the text is not left yet. */
  escaped(): boolean;
}

export function useManuscript(opened: TextDocument, events: ManuscriptEvents) {
  const current = shallowRef<TextDocument>(opened);
  /** Counts transactions: what must be right at once, such as what is selected, is derived after each. */
  const beat = ref(0);
  /** Follows `beat` once the keystroke has been painted: everything else waits for it, several at once. */
  const rest = ref(0);
  const after = <T>(count: typeof beat, derive: () => T) =>
    computed(() => {
      void count.value;
      return derive();
    });
  let changed = false;
  let pasted = false;
  let cancel: (() => void) | undefined;

  /** Does what waits now. */
  function settle(): void {
    cancel?.();
    cancel = undefined;
    rest.value += 1;
    if (!changed) return;
    current.value = normalise(editor.getJSON() as unknown as TextDocument);
    const wasPasted = pasted;
    changed = pasted = false;
    events.changed(current.value, wasPasted);
  }

  const editor = new Editor({
    extensions,
    content: opened as never,
    editorProps: {
      attributes: { 'aria-label': 'Manuscript', role: 'textbox', 'aria-multiline': 'true' },
      handleKeyDown: (_view, event) => event.key === 'Escape' && events.escaped(),
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
      changed ||= transaction.docChanged;
      pasted ||= transaction.getMeta('paste') === true;
      cancel ??= afterPaint(settle);
      if (transaction.docChanged && bracesTyped()) {
        queueMicrotask(() => {
          removeBefore(editor, 2);
          events.braces();
        });
      }
      events.moved();
    },
  });
  onBeforeUnmount(() => {
    settle();
    editor.destroy();
  });

  function bracesTyped(): boolean {
    const { $from, empty } = editor.state.selection;
    const before = $from.parent.textBetween(0, $from.parentOffset, undefined, '\uFFFC');
    return empty && before.endsWith('{{') && $from.parent.type.name !== 'codeBlock';
  }

  const variables = after<readonly Variable[]>(rest, () => variablesOf(editor.state.doc));
  const selectionWords = after(beat, () => {
    const { from, to } = editor.state.selection;
    return editor.state.doc.textBetween(from, to, ' ');
  });
  return {
    editor,
    settle,
    /** The document in its normal form. */
    current,
    variables,
    front: computed(() => current.value.attrs.front),
    markers: computed(() => (current.value ? findMarkerGroups(editor.state.doc) : [])),
    /** How many places use each variable. */
    places: computed(() => (current.value ? countPlaces(editor) : new Map<string, number>())),
    words: computed(() => wordCount(current.value)),
    /** The passage that is selected or that the caret is in. */
    chosen: after(rest, () => passageAt(editor)),
    path: after(rest, () => pathInWords(editor, variables.value)),
    /** The block with the caret, and its height in the window. */
    level: after(rest, () => caretPlace(editor)),
    selectionWords,
    /** How many places hold the selected words. */
    selectionPlaces: after(beat, () => findWords(editor.state.doc, selectionWords.value).length),
    /** True while words are selected, rather than nothing or a whole node. */
    wordsSelected: after(
      beat,
      () => selectionWords.value.trim() !== '' && !(editor.state.selection instanceof NodeSelection),
    ),
    oneLine: after(beat, () => editor.state.selection.$from.parent === editor.state.selection.$to.parent),
    inBody: after(beat, () => caretPath(editor)[0] === editor.state.doc.childCount - 1),
  };
}

/** Runs work once the browser has painted; gives a way to call it off. Pages in the background do not paint. */
function afterPaint(work: () => void): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  if (document.hidden) {
    timer = setTimeout(work);
    return () => clearTimeout(timer);
  }
  const frame = requestAnimationFrame(() => {
    timer = setTimeout(work);
  });
  return () => {
    cancelAnimationFrame(frame);
    clearTimeout(timer);
  };
}

export type Manuscript = ReturnType<typeof useManuscript>;
