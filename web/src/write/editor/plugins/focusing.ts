/**
 * The caret goes back into the text at once. The library's own command waits for the next frame, and what a quick
 * typist writes until then is lost.
 */
import { Extension, resolveFocusPosition, type FocusPosition } from '@tiptap/core';
import { Plugin } from '@tiptap/pm/state';
import type { EditorView } from '@tiptap/pm/view';

/**
 * Reads where the browser has put the caret. It tells of a press in a task of its own; what is shown between the press and
 * that task would put the caret back to where it was before.
 */
function readCaret(view: EditorView): void {
  // The observer is not among the types of the library; it reads in this way whenever the browser tells of a change.
  (view as unknown as { readonly domObserver: { flush(): void } }).domObserver.flush();
}

export const Focusing = Extension.create({
  name: 'focusing',
  addProseMirrorPlugins: () => [
    new Plugin({
      props: {
        handleDOMEvents: {
          mouseup(view) {
            readCaret(view);
            return false;
          },
        },
      },
    }),
  ],
  addCommands() {
    return {
      focus:
        (position: FocusPosition = null, { scrollIntoView = true }: { scrollIntoView?: boolean } = {}) =>
        ({ tr, view, dispatch }) => {
          if (!dispatch) return true;
          const selection = resolveFocusPosition(tr.doc, position);
          if (selection && !tr.selection.eq(selection)) {
            const { storedMarks } = tr;
            tr.setSelection(selection).setStoredMarks(storedMarks);
          }
          if (!view.hasFocus()) view.focus();
          if (scrollIntoView) tr.scrollIntoView();
          return true;
        },
    };
  },
});
