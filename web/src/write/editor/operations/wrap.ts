/** Putting words, blocks, items or rows under a condition. */
import type { Editor } from '@tiptap/core';
import type { Node as PmNode, ResolvedPos } from '@tiptap/pm/model';
import { NodeSelection, TextSelection, type Transaction } from '@tiptap/pm/state';
import { CellSelection } from '@tiptap/pm/tables';
import { sameCondition, type Condition, type Variable } from '@vocabula/core';
import type { Range } from './places';
import { setVariables, variablesOf } from './variables';

/** What a new bracket would stand around. */
export type Target =
  | { readonly form: 'phrase'; readonly from: number; readonly to: number }
  | { readonly form: 'passage'; readonly from: number; readonly to: number }
  | { readonly form: 'items' | 'rows'; readonly parent: number; readonly first: number; readonly last: number };

const HOLDS_BLOCKS = new Set(['body', 'passage', 'blockquote', 'panel', 'listItem']);

/** The depth of the closest ancestor of a type, or -1. */
function depthOf($pos: ResolvedPos, ...names: string[]): number {
  for (let depth = $pos.depth; depth > 0; depth -= 1) if (names.includes($pos.node(depth).type.name)) return depth;
  return -1;
}

/**
 * What a selection's words become when they are put under a condition: part of one line a phrase; items or rows those
 * items or rows; everything else a passage around whole blocks. Lines of the envelope hold phrases only.
 */
export function targetOf(doc: PmNode, { from, to }: Range, selection?: unknown): Target | undefined {
  const [$from, $to] = [doc.resolve(from), doc.resolve(to)];
  if (selection instanceof CellSelection || depthOf($from, 'table') >= 0) {
    const rows = childrenOf($from, $to, 'table');
    if (rows && (selection instanceof CellSelection || rows.first !== rows.last)) return { form: 'rows', ...rows };
  }
  if (depthOf($from, 'body') < 0) return { form: 'phrase', from, to };
  const whole = $from.parent !== $to.parent || (from === $from.start() && to === $to.end());
  if ($from.parent.isTextblock && !whole) return { form: 'phrase', from, to };
  const rows = childrenOf($from, $to, 'table');
  if (rows) return { form: 'rows', ...rows };
  const items = childrenOf($from, $to, 'bulletList') ?? childrenOf($from, $to, 'orderedList');
  if (items && wholeItem($from, $to)) return { form: 'items', ...items };
  const range = $from.blockRange($to, (node) => HOLDS_BLOCKS.has(node.type.name));
  return range ? { form: 'passage', from: range.start, to: range.end } : undefined;
}

/** The children of the closest list or table around both ends, from that with the one end to that with the other. */
function childrenOf(
  $from: ResolvedPos,
  $to: ResolvedPos,
  name: string,
): { parent: number; first: number; last: number } | undefined {
  const depth = depthOf($from, name);
  if (depth < 0 || $to.depth < depth || $to.node(depth) !== $from.node(depth)) return undefined;
  return { parent: $from.before(depth), first: $from.index(depth), last: $to.indexAfter(depth) - 1 };
}

/** A selection in one of several paragraphs of an item is about the paragraph, not about the item. */
function wholeItem($from: ResolvedPos, $to: ResolvedPos): boolean {
  const depth = depthOf($from, 'listItem');
  if (depth < 0) return false;
  if ($from.node(depth) !== $to.node(Math.min(depth, $to.depth))) return true;
  return $from.index(depth) === 0 && $to.indexAfter(depth) === $to.node(depth).childCount;
}

/** Passages that a selection crosses into or out of: one of its ends is inside, the other is not. */
export function crossed(doc: PmNode, { from, to }: Range): Range[] {
  const [$from, $to] = [doc.resolve(from), doc.resolve(to)];
  const shared = $from.sharedDepth(to);
  const ranges: Range[] = [];
  for (const $pos of [$from, $to])
    for (let depth = shared + 1; depth <= $pos.depth; depth += 1)
      if ($pos.node(depth).type.name === 'passage') ranges.push({ from: $pos.before(depth), to: $pos.after(depth) });
  return ranges;
}

/** The part of a selection from its anchor up to the edge of what it crosses. */
export function upToEdge(doc: PmNode, anchor: number, head: number): Range {
  const [from, to] = [Math.min(anchor, head), Math.max(anchor, head)];
  let [start, end] = [from, to];
  for (const edge of crossed(doc, { from, to })) {
    const anchorInside = anchor > edge.from && anchor < edge.to;
    if (anchor < head) end = Math.min(end, anchorInside ? edge.to - 1 : edge.from);
    else start = Math.max(start, anchorInside ? edge.from + 1 : edge.to);
  }
  const selection = TextSelection.between(doc.resolve(start), doc.resolve(end), anchor < head ? -1 : 1);
  return { from: Math.max(from, selection.from), to: Math.min(to, selection.to) };
}

/** Puts a target under a condition; more passages, such as the other alternatives, can follow it. */
export function govern(tr: Transaction, target: Target, condition: Condition, others: readonly Condition[] = []): void {
  const { schema } = tr.doc.type;
  if (target.form === 'phrase') {
    const mark = schema.marks.phrase?.create(condition);
    if (mark) tr.addMark(target.from, target.to, mark);
  } else if (target.form === 'passage') {
    const { passage, paragraph } = schema.nodes;
    if (!passage) return;
    const inside = tr.doc.slice(target.from, target.to).content;
    tr.replaceWith(target.from, target.to, [
      passage.create(condition, inside),
      ...others.map((each) => passage.create(each, paragraph?.create())),
    ]);
  } else governChildren(tr, target, condition);
}

/** Puts items or rows under a condition, outside of what only some of them carry. A head has none. */
function governChildren(
  tr: Transaction,
  { parent, first, last, form }: Extract<Target, { readonly parent: number }>,
  condition: Condition,
): void {
  const node = tr.doc.nodeAt(parent);
  if (!node) return;
  const when = (index: number): readonly Condition[] => (node.child(index).attrs.when ?? []) as readonly Condition[];
  const isHead = (index: number): boolean => form === 'rows' && index === 0 && allHeads(node.child(0));
  const from = isHead(first) ? first + 1 : first;
  let shared = 0;
  const outer = when(Math.min(from, last));
  while (shared < outer.length && indexes(from, last).every((index) => same(when(index)[shared], outer[shared])))
    shared += 1;
  let pos = parent + 1;
  node.forEach((child, _offset, index) => {
    if (index >= from && index <= last)
      tr.setNodeMarkup(pos, undefined, { ...child.attrs, when: when(index).toSpliced(shared, 0, condition) });
    pos += child.nodeSize;
  });
}

const indexes = (first: number, last: number): number[] =>
  Array.from({ length: last - first + 1 }, (_, at) => first + at);
const same = (a: Condition | undefined, b: Condition | undefined): boolean =>
  a !== undefined && b !== undefined && sameCondition(a, b);
/** True for a row of heads only. */
export const allHeads = (row: PmNode): boolean => {
  let all = true;
  row.forEach((cell) => void (all &&= cell.type.name === 'tableHeader'));
  return all;
};

/** Puts the selection under a condition, with the variables that the condition needs; one step of undo. */
export function wrap(
  editor: Editor,
  condition: Condition,
  variables: readonly Variable[] = [],
  others: readonly Condition[] = [],
  range: Range = editor.state.selection,
): void {
  const { tr, doc, selection } = editor.state;
  let target = targetOf(doc, range, selection);
  // A list does not repeat inside a line: the line repeats as a whole.
  const repeats = [...variablesOf(doc), ...variables].some(({ key, type }) => key === condition.of && type === 'list');
  if (target?.form === 'phrase' && repeats && !condition.not) target = aroundLine(doc, range.from);
  if (!target) return;
  govern(tr, target, repeats ? { ...condition, run: nextRun(doc) } : condition, others);
  if (variables.length > 0) setVariables(tr, [...variablesOf(doc), ...variables]);
  if (!(selection instanceof NodeSelection) && target.form === 'passage')
    tr.setSelection(TextSelection.near(tr.doc.resolve(Math.min(selection.head + 1, tr.doc.content.size))));
  editor.view.dispatch(tr.scrollIntoView());
}

/** The whole line with a place, as a target: its item, its row, or its block. */
function aroundLine(doc: PmNode, pos: number): Target | undefined {
  const $pos = doc.resolve(pos);
  if (depthOf($pos, 'body') < 0) return undefined;
  const rows = childrenOf($pos, $pos, 'table');
  if (rows) return { form: 'rows', parent: rows.parent, first: rows.first, last: Math.max(rows.first, rows.last) };
  return targetOf(doc, { from: $pos.start(), to: $pos.end() });
}

/** A number for a repeat that no other has, so that neighbours stay apart. */
export function nextRun(doc: PmNode): number {
  let most = 0;
  doc.descendants((node) => {
    const conditions =
      node.type.name === 'passage' ? [node.attrs as Condition] : ((node.attrs.when ?? []) as Condition[]);
    for (const { run } of conditions) most = Math.max(most, run);
  });
  return most + 1;
}
