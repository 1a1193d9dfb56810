/**
 * The caret goes back into the text at once. The library's own command waits for the next frame, and what a quick
 * typist writes until then is lost.
 */
import { Extension, resolveFocusPosition, type FocusPosition } from '@tiptap/core';

export const Focusing = Extension.create({
  name: 'focusing',
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
