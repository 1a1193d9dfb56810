/** Putting things in where the caret is. */
import type { Editor } from '@tiptap/core';
import type { Node as PmNode } from '@tiptap/pm/model';
import { NodeSelection, Selection, type Transaction } from '@tiptap/pm/state';
import type { EditorView } from '@tiptap/pm/view';

/** Puts a node where the caret is, as part of a transaction. */
export function insertNode(editor: Editor, node: PmNode, tr: Transaction = editor.state.tr): void {
  const { storedMarks, selection } = editor.state;
  // What is put in is in the phrases that typed words would be in.
  const marks = (storedMarks ?? selection.$from.marks()).filter(
    (mark) => node.isInline && mark.type.name !== 'code' && selection.$from.parent.type.allowsMarkType(mark.type),
  );
  tr.replaceSelectionWith(node.mark(marks), false);
  editor.view.dispatch(tr.setStoredMarks(storedMarks).scrollIntoView());
}

/**
 * A block takes the place of an empty paragraph, or comes after the block with the caret, as far out as it has to be to
 * be allowed there. The caret goes into it, or behind what holds nothing.
 */
export function placeBlock(editor: Editor, nodes: readonly PmNode[], tr: Transaction = editor.state.tr): void {
  const { selection } = editor.state;
  const { $from } = selection;
  const [first] = nodes;
  if (!first) return;
  for (let depth = $from.depth; depth > 0; depth -= 1) {
    const parent = $from.node(depth - 1);
    const index = $from.index(depth - 1);
    const empty = depth === $from.depth && $from.parent.isTextblock && $from.parent.content.size === 0;
    if (!parent.canReplaceWith(index + 1, index + 1, first.type)) continue;
    const at = empty ? $from.before(depth) : $from.after(depth);
    if (empty) tr.replaceWith(at, $from.after(depth), nodes);
    else tr.insert(at, nodes);
    tr.setSelection(Selection.near(tr.doc.resolve(first.isAtom ? at + first.nodeSize : at + 1)));
    editor.view.dispatch(tr.scrollIntoView());
    return;
  }
}

/** Puts an image in at the selection, and selects it, so that its words can be asked for. */
export function putImage(view: EditorView, src: string): void {
  const { schema, tr } = view.state;
  const image = schema.nodes.image?.create({ src, alt: [], title: '', width: null });
  if (!image) return;
  tr.replaceSelectionWith(image, false);
  const pos = tr.selection.from - image.nodeSize;
  if (tr.doc.nodeAt(pos)?.type === image.type) tr.setSelection(NodeSelection.create(tr.doc, pos));
  view.dispatch(tr.scrollIntoView());
}
