/** Putting a whole changed document into the editor: only what differs is replaced, in one step of undo. */
import type { Editor } from '@tiptap/core';
import { Fragment, type Node as PmNode } from '@tiptap/pm/model';
import { TextSelection, type Transaction } from '@tiptap/pm/state';
import type { TextDocument } from '@vocabula/core';

/** The document as the editor has it, not normalised: its paths are those of the manuscript. */
export const documentOf = (editor: Editor): TextDocument => editor.getJSON() as unknown as TextDocument;

type Change =
  | { readonly from: number; readonly to: number; readonly content: Fragment }
  | { readonly pos: number; readonly node: PmNode };

/** Makes the document what `next` is; false if it is that already. */
export function applyDocument(editor: Editor, next: TextDocument): boolean {
  const { tr } = editor.state;
  if (!changeTo(tr, editor.schema.nodeFromJSON(next))) return false;
  editor.view.dispatch(tr);
  return true;
}

/** Adds the steps that make a transaction's document what `next` is; false if none are needed. */
export function changeTo(tr: Transaction, next: PmNode): boolean {
  const { doc, selection } = tr;
  const changes: Change[] = [];
  compare(doc, next, -1, changes);
  for (const change of changes.reverse()) {
    if ('node' in change) tr.setNodeMarkup(change.pos, undefined, change.node.attrs, change.node.marks);
    else tr.replaceWith(change.from, change.to, change.content);
  }
  for (const name of Object.keys(doc.type.spec.attrs ?? {}))
    if (JSON.stringify(doc.attrs[name]) !== JSON.stringify(next.attrs[name]))
      tr.setDocAttribute(name, next.attrs[name]);
  // Where nothing moved, the caret stays.
  if (tr.docChanged && selection instanceof TextSelection && tr.doc.content.size === doc.content.size)
    tr.setSelection(TextSelection.between(tr.doc.resolve(selection.anchor), tr.doc.resolve(selection.head)));
  return tr.docChanged;
}

/** Gathers what differs between two nodes of a type, in order; `pos` is the first's own. */
function compare(a: PmNode, b: PmNode, pos: number, changes: Change[]): void {
  if (a.eq(b)) return;
  if (pos >= 0 && !a.hasMarkup(b.type, b.attrs, b.marks)) changes.push({ pos, node: b });
  let [first, fromEnd] = [0, 0];
  const fewest = Math.min(a.childCount, b.childCount);
  while (first < fewest && a.child(first).eq(b.child(first))) first += 1;
  while (fromEnd < fewest - first && a.child(a.childCount - 1 - fromEnd).eq(b.child(b.childCount - 1 - fromEnd)))
    fromEnd += 1;
  let at = pos + 1;
  for (let index = 0; index < first; index += 1) at += a.child(index).nodeSize;
  const [old, fresh] = [between(a, first, fromEnd), between(b, first, fromEnd)];
  if (old.length === fresh.length && old.every((child, index) => alike(child, fresh[index] as PmNode))) {
    old.forEach((child, index) => {
      compare(child, fresh[index] as PmNode, at, changes);
      at += child.nodeSize;
    });
    return;
  }
  const to = at + old.reduce((size, child) => size + child.nodeSize, 0);
  changes.push({ from: at, to, content: Fragment.fromArray(fresh) });
}

const between = (node: PmNode, first: number, fromEnd: number): PmNode[] =>
  Array.from({ length: node.childCount - first - fromEnd }, (_, index) => node.child(first + index));

/** True for nodes of which one can be changed into the other rather than replaced. */
const alike = (a: PmNode, b: PmNode): boolean =>
  a.type === b.type &&
  !a.isText &&
  (a.isBlock
    ? true
    : a.marks.length === b.marks.length && a.marks.every((mark, index) => mark.eq(b.marks[index] as never)));
