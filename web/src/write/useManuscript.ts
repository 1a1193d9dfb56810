/** The editor over one document, and everything that is derived from its state. */
import { Editor } from '@tiptap/core';
import { NodeSelection, type Transaction } from '@tiptap/pm/state';
import { countUses, normalise, usesOf, type TextDocument, type Variable } from '@vocabula/core';
import { computed, onBeforeUnmount, ref, shallowRef } from 'vue';
import { caretPlace, chosenBracket, pathInWords } from './caret';
import { bracketsOf, type Bracket } from './editor/brackets';
import { firstWords } from './editor/operations/places';
import { extensions } from './editor/extensions';
import { useMarkers } from './useMarkers';
import { variablesOf } from './editor/operations/variables';
import type { MarkerGroup } from './editor/operations/markers';
import type { PastingOptions } from './editor/plugins/pasting';

/** What happens in the manuscript that others act on. */
export interface ManuscriptEvents {
  changed(document: TextDocument, pasted: boolean): void;
  /** Something happened in the editor. */
  acted(editor: Editor, transaction: Transaction): void;
  focused(editor: Editor): void;
  /** `Esc` was pressed in the text; true if that closed something, so that the text is not left yet. */
  escaped(): boolean;
  /** A bracket was in the way of a deleting key. */
  stays(): void;
  /** A placeholder, image, note or block was chosen, by pointer or key. */
  chose(): void;
  /** The node at a position was pressed twice. */
  pressedTwice(pos: number): void;
  /** Old markers were looked for, for the first time. */
  markersFound(groups: readonly MarkerGroup[]): void;
  /** What is to be known and done when something is pasted. */
  readonly pasting: PastingOptions;
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

  /** Whether what happens just now was done with a key. */
  let byKey = false;
  const editor = new Editor({
    extensions: extensions({ stays: events.stays, ...events.pasting }),
    content: opened as never,
    editorProps: {
      attributes: { 'aria-label': 'Manuscript', role: 'textbox', 'aria-multiline': 'true' },
      handleKeyDown(_view, event) {
        byKey = true;
        setTimeout(() => (byKey = false));
        return event.key === 'Escape' && events.escaped();
      },
      handleDoubleClickOn(_view, _pos, _node, nodePos) {
        events.pressedTwice(nodePos);
        return false;
      },
    },
    onFocus: () => events.focused(editor),
    onTransaction({ transaction }) {
      beat.value += 1;
      changed ||= transaction.docChanged;
      pasted ||= transaction.getMeta('paste') === true;
      const byHand = byKey || transaction.getMeta('pointer') === true;
      if (byHand && !transaction.docChanged && transaction.selection instanceof NodeSelection) events.chose();
      cancel ??= afterPaint(settle);
      events.acted(editor, transaction);
    },
  });
  onBeforeUnmount(() => {
    settle();
    editor.destroy();
  });

  const variables = after<readonly Variable[]>(rest, () => variablesOf(editor.state.doc));
  const brackets = after(rest, () => bracketsOf(editor.state.doc));
  const uses = computed(() => usesOf(current.value));
  return {
    editor,
    settle,
    beat,
    rest,
    /** The document in its normal form. */
    current,
    variables,
    front: computed(() => current.value.attrs.front),
    ...useMarkers(editor, current, events.markersFound),
    uses,
    /** How many places use each variable. */
    places: computed<ReadonlyMap<string, number>>((old) => {
      const counts = countUses(uses.value);
      // The same counts are the same map, so that nothing that shows them is drawn over.
      return old?.size === counts.size && [...counts].every(([key, count]) => old.get(key) === count) ? old : counts;
    }),
    brackets,
    /** The first words that a bracket stands around. */
    firstWords: (bracket: Bracket): string => firstWords(editor.state.doc, bracket),
    /** The bracket that is selected or that the caret is in. */
    chosen: after(rest, () => chosenBracket(editor, brackets.value)),
    path: after(rest, () => pathInWords(editor, brackets.value, variables.value)),
    /** The block with the caret, and its height in the window. */
    level: after(rest, () => caretPlace(editor)),
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
