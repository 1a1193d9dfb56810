/** Keys of the manuscript that differ from what an editor does by itself. */
import { Extension, type Editor } from '@tiptap/core';
import { NodeSelection, Plugin, TextSelection } from '@tiptap/pm/state';
import { splitBlock } from '@tiptap/pm/commands';
import { writeBelow } from '../operations/below';

/** Selects the placeholder, block or note beside the caret, so that a second press is what deletes it. */
function selectBeside(editor: Editor, side: -1 | 1): boolean {
  const { state, view } = editor;
  const { empty, $from } = state.selection;
  if (!empty) return false;
  const beside = side < 0 ? $from.nodeBefore : $from.nodeAfter;
  if (beside?.isAtom && beside.isInline && beside.type.name !== 'hardBreak' && !beside.isText) {
    view.dispatch(
      state.tr.setSelection(NodeSelection.create(state.doc, side < 0 ? $from.pos - beside.nodeSize : $from.pos)),
    );
    return true;
  }
  return false;
}

/**
 * Puts the caret beside a placeholder or image that is selected, and leaves the key to the browser, which goes on from
 * there. From a selected one it goes now to this side and now to that, while the press that selected it is fresh.
 */
function fromBeside(editor: Editor, side: -1 | 1): boolean {
  const { state, view } = editor;
  const { selection } = state;
  if (selection instanceof NodeSelection && selection.node.isInline)
    view.dispatch(state.tr.setSelection(TextSelection.create(state.doc, side < 0 ? selection.from : selection.to)));
  return false;
}

export const Typing = Extension.create({
  name: 'typing',
  priority: 1000,
  addKeyboardShortcuts() {
    const { editor } = this;
    return {
      Backspace: () => selectBeside(editor, -1),
      Delete: () => selectBeside(editor, 1),
      // Both halves stay in the passage; only an empty last paragraph leaves it, as it leaves a list.
      Enter: () => {
        const { $from, $to } = editor.state.selection;
        const inPassage = $from.depth > 1 && $from.node($from.depth - 1).type.name === 'passage';
        const inLine = $from.depth <= 1 || ['address', 'attachment'].includes($from.parent.type.name);
        if (inLine) return leaveLine(editor);
        // Over several blocks: the editor's own command maps the caret through the deletion and splits what holds them.
        if (!$from.sameParent($to)) return splitBlock(editor.state, editor.view.dispatch);
        if (!inPassage || $from.parent.type.name !== 'paragraph') return false;
        return leavePassage(editor) || splitBlock(editor.state, editor.view.dispatch);
      },
      Home: () => fromBeside(editor, -1),
      End: () => fromBeside(editor, 1),
      ArrowDown: () => leaveLastTable(editor),
      Escape: () => {
        editor.commands.blur();
        return true;
      },
    };
  },
  addProseMirrorPlugins() {
    const { editor } = this;
    return [
      new Plugin({
        props: {
          // A comma behind a whole address begins the next, and the space behind it is none of that one's.
          handleTextInput(view, _from, _to, text) {
            if (text === ',' || text === ';') return nextAddress(editor);
            const { parent } = view.state.selection.$from;
            return text === ' ' && parent.type.name === 'address' && parent.content.size === 0;
          },
        },
      }),
    ];
  },
});

/** From the last row of a table with which the text ends, one goes on below it. */
function leaveLastTable(editor: Editor): boolean {
  const { doc, selection } = editor.state;
  const { $from, empty } = selection;
  const table = doc.lastChild?.lastChild;
  if (!empty || table?.type.name !== 'table' || $from.depth < 4 || $from.node(2) !== table) return false;
  if ($from.index(2) !== table.childCount - 1 || !editor.view.endOfTextblock('down')) return false;
  writeBelow(editor);
  return true;
}

/** Moves the caret's paragraph out behind its passage, if it is the passage's empty last one. */
function leavePassage(editor: Editor): boolean {
  const { $from, empty } = editor.state.selection;
  const passage = $from.node($from.depth - 1);
  const last = $from.index($from.depth - 1) === passage.childCount - 1;
  if (!empty || $from.parent.content.size > 0 || passage.childCount < 2 || !last) return false;
  const { tr } = editor.state;
  const paragraph = $from.parent;
  const behind = $from.after($from.depth - 1);
  tr.insert(behind, paragraph).delete($from.before(), $from.after());
  const at = behind - paragraph.nodeSize + 1;
  editor.view.dispatch(tr.setSelection(TextSelection.create(tr.doc, at)).scrollIntoView());
  return true;
}

/** Begins the next address behind one that is whole: with an @ behind its last bracket, or a placeholder. */
function nextAddress(editor: Editor): boolean {
  const { $from, empty } = editor.state.selection;
  const address = $from.parent;
  if (!empty || address.type.name !== 'address' || $from.parentOffset < address.content.size) return false;
  const whole = /^[^<]*<[^<>@\s]+@[^<>@\s]+>$|^[^<>@\s]+@[^<>@\s]+$/.test(address.textContent.trim());
  const before = $from.nodeBefore;
  if (!whole && (!before?.isAtom || before.isText)) return false;
  return splitBlock(editor.state, editor.view.dispatch);
}

/** Enter in a line of the envelope goes to the next part. */
function leaveLine(editor: Editor): boolean {
  const { $from } = editor.state.selection;
  const after = $from.after(1);
  let target = -1;
  editor.state.doc.nodesBetween(after, editor.state.doc.content.size, (node, pos) => {
    if (target < 0 && node.type.name === 'body') target = pos + 2;
    return target < 0;
  });
  return target < 0 ? false : editor.commands.setTextSelection(target);
}
