/** Splitting brackets, joining them, moving them in and out. */
import type { Editor } from '@tiptap/core';
import { Fragment, type Node as PmNode } from '@tiptap/pm/model';
import type { Transaction } from '@tiptap/pm/state';
import type { Bracket } from '../brackets';
import { childrenOf } from './ends';
import { eachChild, regovern, whenOf } from './regovern';
import { nextRun } from './wrap';

/** Splits a passage in two at a place inside, or a repeat between items or rows; the second goes on alone. */
export function split(editor: Editor, bracket: Bracket, pos: number): boolean {
  const { tr } = editor.state;
  if (bracket.form === 'passage' ? !splitPassage(tr, bracket, pos) : !splitGroup(tr, bracket, pos)) return false;
  editor.view.dispatch(tr.scrollIntoView());
  return true;
}

function splitPassage(tr: Transaction, { from, to }: Bracket, pos: number): boolean {
  const $pos = tr.doc.resolve(Math.max(from + 1, Math.min(to - 1, pos)));
  const depth = tr.doc.resolve(from).depth + 1;
  const passage = $pos.node(depth);
  // In the middle of a paragraph, the paragraph is split too.
  const inside =
    $pos.parent.isTextblock &&
    $pos.depth === depth + 1 &&
    $pos.parentOffset > 0 &&
    $pos.parentOffset < $pos.parent.content.size;
  const before = $pos.parent.isTextblock && $pos.parentOffset === 0;
  if (inside) {
    tr.split($pos.pos, 2, [{ type: passage.type, attrs: passage.attrs }, null]);
    return true;
  }
  const index = before ? $pos.index(depth) : $pos.indexAfter(depth);
  if (index <= 0 || index >= passage.childCount) return false;
  tr.split($pos.posAtIndex(index, depth));
  return true;
}

function splitGroup(tr: Transaction, bracket: Bracket, pos: number): boolean {
  const { group, condition } = bracket;
  // Neighbours under one condition are one group; only repeats are told apart, by their number.
  if (!group || !condition || condition.run === 0) return false;
  const again = { ...condition, run: nextRun(tr.doc) };
  let changed = 0;
  eachChild(tr.doc, bracket, (child, at) => {
    if (at < bracket.from + 1 || at + child.nodeSize <= pos) return;
    tr.setNodeMarkup(at, undefined, { ...child.attrs, when: whenOf(child).with(group.depth, again) });
    changed += 1;
  });
  return changed > 0;
}

/** Joins a bracket with the next one of its form beside it; the first one's condition governs both. */
export function join(editor: Editor, bracket: Bracket, next: Bracket | undefined): boolean {
  const { tr } = editor.state;
  if (!next || next.form !== bracket.form || !bracket.condition) return false;
  if (bracket.form === 'passage') {
    if (next.from !== bracket.to) return false;
    const [first, second] = [tr.doc.nodeAt(bracket.from), tr.doc.nodeAt(next.from)];
    if (!first || !second) return false;
    tr.replaceWith(bracket.from, next.to, first.copy(first.content.append(second.content)));
  } else if (bracket.form === 'phrase') {
    const { phrase } = tr.doc.type.schema.marks;
    if (!phrase || !next.condition || tr.doc.resolve(bracket.from).parent !== tr.doc.resolve(next.from).parent)
      return false;
    tr.removeMark(next.from, next.to, phrase.create(next.condition));
    tr.addMark(bracket.from, next.to, phrase.create(bracket.condition));
  } else {
    if (next.from !== bracket.to || next.group?.depth !== bracket.group?.depth) return false;
    regovern(tr, next, bracket.condition);
  }
  editor.view.dispatch(tr);
  return true;
}

/** Moves a passage out of the container it stands in: before or after what is left, or between its halves. */
export function moveOut(editor: Editor, { form, from, to }: Bracket): boolean {
  if (form !== 'passage') return false;
  const { tr } = editor.state;
  const $from = tr.doc.resolve(from);
  const container = $from.parent;
  if (container.type.name === 'body' || container.type.name === 'listItem') return false;
  const index = $from.index();
  const children = childrenOf(container);
  const half = (nodes: PmNode[]): PmNode[] => (nodes.length > 0 ? [container.copy(Fragment.fromArray(nodes))] : []);
  const own = tr.doc.slice(from, to).content;
  const parts = [...half(children.slice(0, index)), ...childrenOf(own), ...half(children.slice(index + 1))];
  tr.replaceWith($from.before(), $from.after(), parts);
  editor.view.dispatch(tr.scrollIntoView());
  return true;
}

/** Moves a passage into the passage right before it, else into the one right after it. */
export function moveIn(editor: Editor, { form, from, to }: Bracket): boolean {
  if (form !== 'passage') return false;
  const { tr } = editor.state;
  const own = tr.doc.nodeAt(from);
  const [before, after] = [tr.doc.resolve(from).nodeBefore, tr.doc.resolve(to).nodeAfter];
  if (!own) return false;
  if (before?.type.name === 'passage')
    tr.replaceWith(from - before.nodeSize, to, before.copy(before.content.addToEnd(own)));
  else if (after?.type.name === 'passage')
    tr.replaceWith(from, to + after.nodeSize, after.copy(after.content.addToStart(own)));
  else return false;
  editor.view.dispatch(tr.scrollIntoView());
  return true;
}
