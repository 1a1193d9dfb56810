/**
 * Deleting never removes a bracket: what it stands around goes, and the bracket stays with an empty place in it. Only
 * what is meant for brackets takes them off.
 */
import { Extension } from '@tiptap/core';
import { Fragment, Slice, type Mark, type Node as PmNode } from '@tiptap/pm/model';
import { NodeSelection, Plugin, Selection, TextSelection, type EditorState, type Transaction } from '@tiptap/pm/state';
import type { EditorView } from '@tiptap/pm/view';
import { bracketsOf, type Bracket } from '../brackets';
import { changeTo } from '../operations/apply';
import { isFiller } from '../operations/regovern';
import { TAKES_BRACKETS } from '../bracketRemoval';

const isBracket = (node: PmNode): boolean =>
  node.type.name === 'passage' || ((node.attrs.when as readonly unknown[] | undefined)?.length ?? 0) > 0;

function holdsBracket(node: PmNode): boolean {
  if (isBracket(node)) return true;
  let found = false;
  node.descendants((each) => {
    found ||= isBracket(each) || each.marks.some((mark) => mark.type.name === 'phrase');
    return !found;
  });
  return found;
}

/** True if deleting a stretch as usual would take a bracket out or words over its edge. */
export function touchesBrackets(doc: PmNode, from: number, to: number): boolean {
  let touches = false;
  doc.nodesBetween(from, to, (node, pos) => {
    if (isBracket(node) && !(pos < from && pos + node.nodeSize > to)) touches = true;
    return !touches && !node.isTextblock;
  });
  return touches;
}

/** Deletes a stretch, brackets left standing; false if nothing there needs such care. */
export function clear(tr: Transaction, from: number, to: number): boolean {
  if (from >= to || !touchesBrackets(tr.doc, from, to)) return false;
  const cleared = without(tr.doc, -1, from, to);
  if (!cleared) return false;
  changeTo(tr, cleared);
  tr.setSelection(Selection.near(tr.doc.resolve(Math.min(from, tr.doc.content.size))));
  return true;
}

/** A node without what lies in a stretch; undefined where nothing of it is left and nothing has to be. */
function without(node: PmNode, pos: number, from: number, to: number): PmNode | undefined {
  const end = pos + node.nodeSize;
  if (end <= from || pos >= to) return node;
  // Of a line that is deleted to its end, only the first is left for the caret.
  const whole = pos >= from && (node.isTextblock ? end - 1 : end) <= to;
  if (node.isText) {
    const text = `${node.text?.slice(0, Math.max(0, from - pos)) ?? ''}${node.text?.slice(Math.max(0, to - pos)) ?? ''}`;
    return text === '' ? undefined : node.type.schema.text(text, node.marks);
  }
  if (node.isLeaf || (whole && !holdsBracket(node) && !node.type.spec.isolating)) return whole ? undefined : node;
  if (node.isTextblock) return node.copy(Fragment.fromArray(wordsWithout(node, pos + 1, from, to)));
  const children: PmNode[] = [];
  node.forEach((child, offset) => {
    const left =
      node.type.name === 'tableRow'
        ? emptied(child, pos + 1 + offset, from, to)
        : without(child, pos + 1 + offset, from, to);
    if (left) children.push(left);
  });
  if (children.length > 0) return node.copy(Fragment.fromArray(children));
  const paragraph = node.type.schema.nodes.paragraph?.create();
  return paragraph ? node.copy(Fragment.from(paragraph)) : node;
}

/** The inline content of a line without what lies in a stretch; phrases that lose all words keep an empty place. */
function wordsWithout(line: PmNode, start: number, from: number, to: number): PmNode[] {
  const left: PmNode[] = [];
  const gone: { readonly at: number; readonly marks: readonly Mark[] }[] = [];
  line.forEach((node, offset) => {
    const kept = without(node, start + offset, from, to);
    if (kept) left.push(kept);
    else gone.push({ at: left.length, marks: node.marks.filter((mark) => mark.type.name === 'phrase') });
  });
  const held = left.flatMap(({ marks }) => [...marks]);
  const type = line.type.schema.nodes.inlineComment;
  let put = 0;
  for (const { at, marks } of gone) {
    if (!type || marks.every((mark) => mark.isInSet(held))) continue;
    left.splice(at + put, 0, type.create({ text: '' }, undefined, marks));
    held.push(...marks);
    put += 1;
  }
  return left;
}

/** Cells stay where their row does. */
function emptied(cell: PmNode, pos: number, from: number, to: number): PmNode {
  return without(cell, pos, from, to) ?? cell.copy(Fragment.from(cell.type.schema.nodes.paragraph?.create()));
}

/** Phrases whose words a change has deleted, each with the place where they were and all phrases around them. */
function emptiedPhrases(before: EditorState, tr: Transaction): { pos: number; marks: readonly Mark[] }[] {
  const found: { pos: number; marks: readonly Mark[] }[] = [];
  const visit = (bracket: Bracket): void => {
    if (bracket.form === 'phrase') {
      const [start, end] = [tr.mapping.map(bracket.from, 1), tr.mapping.map(bracket.to, -1)];
      if (start >= end) {
        const inner = bracket.children.filter(({ form }) => form === 'phrase');
        const leaf = before.doc.nodeAt(bracket.from);
        if (inner.length > 0) inner.forEach(visit);
        else found.push({ pos: start, marks: (leaf?.marks ?? []).filter((mark) => mark.type.name === 'phrase') });
        return;
      }
    }
    bracket.children.forEach(visit);
  };
  bracketsOf(before.doc).forEach(visit);
  return found;
}

/** The places of empty phrases beside words of theirs. */
function needlessFillers({ selection, doc }: EditorState): number[] {
  const { $from } = selection;
  if (!$from.parent.isTextblock) return [];
  const { parent } = $from;
  const found: number[] = [];
  parent.forEach((node, offset) => {
    if (!isFiller(node)) return;
    const phrases = node.marks.filter((mark) => mark.type.name === 'phrase');
    let held = phrases.length === 0;
    parent.forEach((other) => {
      if (other !== node && !isFiller(other) && phrases.every((mark) => mark.isInSet(other.marks))) held = true;
    });
    if (held && doc.nodeAt($from.start() + offset) === node) found.push($from.start() + offset);
  });
  return found;
}

export interface DeletingOptions {
  /** Hears that a bracket was in the way. */
  readonly stays: () => void;
}

/** Deletes the selection with brackets left standing; false where the usual way will do. */
function clearSelection(view: EditorView, text = ''): boolean {
  const { selection, tr } = view.state;
  if (!clear(tr, selection.from, selection.to)) return false;
  if (text !== '') tr.insertText(text);
  view.dispatch(tr.setMeta(TAKES_BRACKETS, true).scrollIntoView());
  return true;
}

export const Deleting = Extension.create<DeletingOptions>({
  name: 'deleting',
  priority: 1100,
  addOptions: () => ({ stays: () => undefined }),
  addProseMirrorPlugins() {
    const { stays } = this.options;
    const clearing = (view: EditorView, text?: string): boolean => {
      const whole = view.state.selection instanceof NodeSelection;
      const done = clearSelection(view, text);
      if (done && whole) stays();
      return done;
    };
    return [
      new Plugin({
        props: {
          handleKeyDown(view, event) {
            if (event.key !== 'Backspace' && event.key !== 'Delete') return false;
            if (!view.state.selection.empty) return clearing(view);
            const side = event.key === 'Backspace' ? -1 : 1;
            const blocked = atBracketEdge(view.state, side);
            if (blocked) stays();
            return blocked;
          },
          handleTextInput: (view, from, to, text) =>
            from < to && touchesBrackets(view.state.doc, from, to) && clearing(view, text),
          handlePaste(view) {
            clearing(view);
            return false;
          },
          handleDOMEvents: {
            compositionstart(view) {
              clearing(view);
              return false;
            },
          },
        },
        // Cutting copies first, and then deletes as usual: that part is done our way.
        appendTransaction(transactions, before, after) {
          const changing = transactions.filter((tr) => tr.docChanged);
          if (changing.length === 0 || changing.some((tr) => tr.getMeta(TAKES_BRACKETS) || tr.getMeta('history$')))
            return null;
          const cut = changing.length === 1 && changing[0]?.getMeta('uiEvent') === 'cut' ? changing[0] : undefined;
          const { from, to } = before.selection;
          if (cut && touchesBrackets(before.doc, from, to)) {
            const ours = before.tr;
            clear(ours, from, to);
            const tr = after.tr;
            changeTo(tr, ours.doc);
            return tr.setSelection(Selection.near(tr.doc.resolve(Math.min(ours.selection.from, tr.doc.content.size))));
          }
          return keepPhrases(changing, before, after);
        },
        view: () => ({
          update(view) {
            if (view.composing) return;
            const fillers = needlessFillers(view.state);
            if (fillers.length === 0) return;
            const { tr, storedMarks } = view.state;
            for (const pos of fillers.reverse()) tr.delete(pos, pos + 1);
            view.dispatch(tr.setStoredMarks(storedMarks).setMeta(TAKES_BRACKETS, true).setMeta('addToHistory', false));
          },
        }),
      }),
    ];
  },
});

/** True if a change takes something away rather than only adding to it. */
function deletes({ mapping }: Transaction): boolean {
  let found = false;
  for (const map of mapping.maps) map.forEach((oldStart, oldEnd) => void (found ||= oldEnd > oldStart));
  return found;
}

/** Puts an empty place into phrases whose words are gone, with the caret in it. */
function keepPhrases(
  transactions: readonly Transaction[],
  before: EditorState,
  after: EditorState,
): Transaction | null {
  const [only] = transactions;
  if (transactions.length !== 1 || !only || !deletes(only)) return null;
  const gone = emptiedPhrases(before, only);
  const type = after.schema.nodes.inlineComment;
  if (gone.length === 0 || !type) return null;
  const tr = after.tr;
  for (const { pos, marks } of gone.reverse()) {
    if (!tr.doc.resolve(pos).parent.inlineContent) continue;
    tr.replace(pos, pos, new Slice(Fragment.from(type.create({ text: '' }, undefined, marks)), 0, 0));
    tr.setSelection(TextSelection.create(tr.doc, pos + 1)).setStoredMarks(marks);
  }
  return tr.docChanged ? tr : null;
}

/** True if the caret is at the edge of a bracket, where joining would take words over it. */
export function atBracketEdge({ selection }: EditorState, side: -1 | 1): boolean {
  const { $from, empty } = selection;
  const { parent, parentOffset } = $from;
  if (!empty || !parent.isTextblock || (side < 0 ? parentOffset > 0 : parentOffset < parent.content.size)) return false;
  for (let depth = $from.depth - 1; depth >= 0; depth -= 1) {
    const container = $from.node(depth);
    const index = $from.index(depth) + side;
    if (isBracket($from.node(depth + 1)) && $from.node(depth + 1) !== parent) {
      const beside = index >= 0 && index < container.childCount ? container.child(index) : undefined;
      // Items and rows under the same conditions may become one.
      const sameWhen = beside && JSON.stringify(beside.attrs.when) === JSON.stringify($from.node(depth + 1).attrs.when);
      if (!(sameWhen && beside.type === $from.node(depth + 1).type && beside.type.name !== 'passage')) return true;
    }
    if (index >= 0 && index < container.childCount) return edgeHoldsBracket(container.child(index), side);
    if (container.type.spec.isolating) return false;
  }
  return false;
}

/** True if the bracket of a neighbour would be the first thing met in it. */
function edgeHoldsBracket(node: PmNode, side: -1 | 1): boolean {
  for (let at: PmNode | null = node; at && !at.isTextblock; at = side < 0 ? at.lastChild : at.firstChild)
    if (isBracket(at)) return true;
  return false;
}
