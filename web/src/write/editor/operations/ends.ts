/** Moving the ends of brackets. */
import type { Editor } from '@tiptap/core';
import { Fragment, type Node as PmNode } from '@tiptap/pm/model';
import type { Transaction } from '@tiptap/pm/state';
import { sameCondition } from '@vocabula/core';
import type { Bracket } from '../brackets';
import { whenOf } from './regovern';
import { allHeads } from './wrap';

/** An end of a bracket. */
export type End = 'start' | 'end';

/**
 * Moves an end of a bracket by whole blocks, items, rows, or words of a line: outwards for `by` above 0. Stops where
 * there is nothing more to take in, or only one left inside. False if it could not move at all.
 */
export function moveEnd(editor: Editor, bracket: Bracket, end: End, by: number): boolean {
  const { tr } = editor.state;
  const moved = ((): boolean => {
    switch (bracket.form) {
      case 'passage':
        return moveBlocks(tr, bracket, end, by);
      case 'items':
      case 'rows':
        return moveChildren(tr, bracket, end, by);
      case 'phrase':
        return moveWords(tr, bracket, end, by);
      default:
        return false;
    }
  })();
  if (moved) editor.view.dispatch(tr);
  return moved;
}

function moveBlocks(tr: Transaction, { from, to }: Bracket, end: End, by: number): boolean {
  const node = tr.doc.nodeAt(from);
  if (!node) return false;
  const $from = tr.doc.resolve(from);
  const index = $from.index();
  const siblings = childrenOf($from.parent);
  const inside = childrenOf(node);
  const outside = end === 'end' ? siblings.slice(index + 1) : siblings.slice(0, index).reverse();
  const count = by > 0 ? Math.min(by, outside.length) : -Math.min(-by, inside.length - 1);
  if (count === 0) return false;
  const size = (nodes: readonly PmNode[]): number => nodes.reduce((sum, each) => sum + each.nodeSize, 0);
  const passage = (content: readonly PmNode[]): PmNode => node.copy(Fragment.fromArray([...content]));
  if (count > 0) {
    const taken = outside.slice(0, count);
    if (end === 'end') tr.replaceWith(from, to + size(taken), passage([...inside, ...taken]));
    else tr.replaceWith(from - size(taken), to, passage([...taken.toReversed(), ...inside]));
  } else if (end === 'end') tr.replaceWith(from, to, [passage(inside.slice(0, count)), ...inside.slice(count)]);
  else tr.replaceWith(from, to, [...inside.slice(0, -count), passage(inside.slice(-count))]);
  return true;
}

function moveChildren(tr: Transaction, bracket: Bracket, end: End, by: number): boolean {
  const { group, condition, from } = bracket;
  if (!group || !condition) return false;
  const $from = tr.doc.resolve(from);
  const parent = $from.parent;
  const outer = whenOf(parent.child(group.first)).slice(0, group.depth);
  const step = end === 'end' ? 1 : -1;
  let edge = end === 'end' ? group.last : group.first;
  let moved = 0;
  const positionOf = (index: number): number => {
    let pos = $from.start();
    for (let before = 0; before < index; before += 1) pos += parent.child(before).nodeSize;
    return pos;
  };
  for (; moved < Math.abs(by); moved += 1) {
    const index = by > 0 ? edge + step : edge;
    const child = index >= 0 && index < parent.childCount ? parent.child(index) : undefined;
    if (!child) break;
    const when = whenOf(child);
    if (by > 0) {
      const sameOuter = outer.every((each, at) => when[at] && sameCondition(when[at], each));
      const isHead = bracket.form === 'rows' && index === 0 && allHeads(child);
      if (!sameOuter || isHead) break;
      tr.setNodeMarkup(positionOf(index), undefined, {
        ...child.attrs,
        when: when.toSpliced(group.depth, 0, condition),
      });
    } else {
      if (end === 'end' ? edge <= group.first : edge >= group.last) break;
      tr.setNodeMarkup(positionOf(index), undefined, { ...child.attrs, when: when.toSpliced(group.depth, 1) });
    }
    edge += by > 0 ? step : -step;
  }
  return moved > 0;
}

/** Moves by words: letters up to the next gap. */
function moveWords(tr: Transaction, { from, to, condition }: Bracket, end: End, by: number): boolean {
  const { phrase } = tr.doc.type.schema.marks;
  if (!phrase || !condition) return false;
  const $from = tr.doc.resolve(from);
  const text = $from.parent.textBetween(0, $from.parent.content.size, undefined, '\uFFFC');
  const start = $from.start();
  let at = (end === 'end' ? to : from) - start;
  const forward = (end === 'end') === by > 0;
  for (let count = 0; count < Math.abs(by); count += 1) {
    const rest = forward ? text.slice(at) : [...text.slice(0, at)].reverse().join('');
    at += (forward ? 1 : -1) * (/^\s*(?:\uFFFC|[^\s\uFFFC]+)/u.exec(rest)?.[0].length ?? 0);
  }
  // What leaves takes the gap along.
  if (by < 0) {
    const gap = forward ? /^\s*/.exec(text.slice(at)) : /\s*$/.exec(text.slice(0, at));
    at += (forward ? 1 : -1) * (gap?.[0].length ?? 0);
  }
  const [newFrom, newTo] = end === 'end' ? [from, start + at] : [start + at, to];
  if (newTo <= newFrom || (newFrom === from && newTo === to)) return false;
  const mark = phrase.create(condition);
  tr.removeMark(from, to, mark).addMark(newFrom, newTo, mark);
  return true;
}

export function childrenOf(node: PmNode | Fragment): PmNode[] {
  const children: PmNode[] = [];
  node.forEach((child) => void children.push(child));
  return children;
}
