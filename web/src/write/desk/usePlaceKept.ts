/** Where the caret was in a text, kept while this window is open: whoever comes back to it goes on there. */
import type { Editor } from '@tiptap/core';
import { Selection } from '@tiptap/pm/state';
import { onMounted } from 'vue';

const places = new Map<string, number>();

/** Puts the caret back where it was, and remembers where it goes. */
export function usePlaceKept(editor: Editor, name: string): void {
  onMounted(() => {
    const place = places.get(name);
    if (place === undefined) return;
    const { doc, tr } = editor.state;
    // The text may have become shorter in the meantime.
    const near = Selection.near(doc.resolve(Math.min(place, doc.content.size)), -1);
    editor.view.dispatch(tr.setSelection(near).scrollIntoView());
    editor.commands.focus(null, { scrollIntoView: true });
  });
  editor.on('selectionUpdate', () => void places.set(name, editor.state.selection.head));
}
