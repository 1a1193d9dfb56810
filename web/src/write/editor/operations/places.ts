/** Where things stand in the manuscript: words, nodes by their path, and going to them. */
import type { Editor } from '@tiptap/core';
import type { Node as PmNode } from '@tiptap/pm/model';
import { NodeSelection, Selection, TextSelection } from '@tiptap/pm/state';

/** A stretch of the document. */
export interface Range {
  readonly from: number;
  readonly to: number;
}

/** Every place where words stand, whatever their case and spacing, in any line of the document. */
export function findWords(doc: PmNode, words: string): Range[] {
  const tidy = words.trim();
  if (tidy === '') return [];
  const pattern = new RegExp(
    `(?<![\\p{L}\\p{N}])${tidy
      .split(/\s+/)
      .map((word) => word.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'))
      .join('\\s+')}(?![\\p{L}\\p{N}])`,
    'giu',
  );
  const found: Range[] = [];
  eachLine(doc, (text, at) => {
    for (const match of text.matchAll(pattern))
      found.push({ from: at(match.index), to: at(match.index + match[0].length) });
  });
  return found;
}

/** Visits the text of every line in a stretch; `at` gives the document position of an offset in it. */
export function eachLine(
  doc: PmNode,
  visit: (text: string, at: (offset: number) => number) => void,
  { from, to }: Range = { from: 0, to: doc.content.size },
): void {
  doc.nodesBetween(from, Math.min(to, doc.content.size), (node, pos) => {
    if (!node.isTextblock) return true;
    if (node.type.name === 'codeBlock') return false;
    // One character for everything that is no text keeps offsets and positions alike.
    const text = node.textBetween(0, node.content.size, undefined, '\uFFFC');
    visit(text, (offset) => pos + 1 + offset);
    return false;
  });
}

/** The document position of a node by its path of child indexes. */
export function positionOf(doc: PmNode, path: readonly number[]): number | undefined {
  let node = doc;
  let pos = 0;
  for (const [depth, index] of path.entries()) {
    if (index >= node.childCount) return undefined;
    if (depth > 0) pos += 1;
    for (let before = 0; before < index; before += 1) pos += node.child(before).nodeSize;
    node = node.child(index);
  }
  return pos;
}

/** Selects a node and brings it into view. */
export function selectNode(editor: Editor, pos: number): void {
  editor.view.dispatch(editor.state.tr.setSelection(NodeSelection.create(editor.state.doc, pos)).scrollIntoView());
}

/** Puts the caret at a place, or selects it, and brings it into view. */
export function goTo(editor: Editor, { from, to }: Range): void {
  const { doc } = editor.state;
  const selection =
    from === to ? Selection.near(doc.resolve(from)) : TextSelection.between(doc.resolve(from), doc.resolve(to));
  editor.view.dispatch(editor.state.tr.setSelection(selection).scrollIntoView());
  editor.view.focus();
}

/** The first words of a stretch, placeholders by their names. */
export function firstWords(doc: PmNode, { from, to }: Range, most = 60): string {
  const text = doc.textBetween(from, Math.min(to, from + most * 3), ' ', (leaf) =>
    leaf.type.name === 'placeholder' ? `[${String(leaf.attrs.name)}]` : '',
  );
  const words = text.replace(/\s+/g, ' ').trim();
  return words.length > most ? `${words.slice(0, most - 1).trimEnd()}…` : words;
}
