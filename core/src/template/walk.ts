/** The walk through a document: each node with its path, the conditions that it stands under, and its neighbour. */
import type { Condition } from './condition.js';
import type { Node, TextDocument } from './document.js';
import type { Variable } from './variable.js';

/** A node's children, none for a leaf. */
export function childrenOf(node: Node): readonly Node[] {
  return 'content' in node && node.content ? node.content : [];
}

/** The conditions that a node carries itself, outermost first: of a passage, an item, a row, or words in a line. */
export function conditionsOf(node: Node): readonly Condition[] {
  if (node.type === 'passage') return [node.attrs];
  if (node.type === 'listItem' || node.type === 'tableRow') return node.attrs.when;
  return 'marks' in node && node.marks
    ? node.marks.flatMap((mark) => (mark.type === 'phrase' ? [mark.attrs] : []))
    : NONE;
}
const NONE: readonly Condition[] = [];

/** A node as a walk meets it. */
export interface Step {
  readonly node: Node;
  /** Child indexes from where the walk began. */
  readonly path: readonly number[];
  /** The conditions around the node, outermost first. */
  readonly outer: readonly Condition[];
  /** The conditions that it carries itself. */
  readonly own: readonly Condition[];
  /** The node in front of it, among the children of the same parent. */
  readonly before: Node | undefined;
}

/** Goes through a node and all in it, parents first. Goes no deeper where `visitor` returns false. */
export function walk(root: Node, visitor: (step: Step) => boolean | void, path: readonly number[] = []): void {
  const go = (node: Node, at: readonly number[], outer: readonly Condition[], before: Node | undefined): void => {
    const own = conditionsOf(node);
    if (visitor({ node, path: at, outer, own, before }) === false) return;
    const children = childrenOf(node);
    if (children.length === 0) return;
    const inside = own.length > 0 ? [...outer, ...own] : outer;
    children.forEach((child, index) => go(child, [...at, index], inside, children[index - 1]));
  };
  go(root, path, NONE, undefined);
}

/** Goes through a node and all in it with its path alone, parents first. Goes no deeper where `visitor` returns false. */
export function visit(
  node: Node,
  visitor: (node: Node, path: readonly number[]) => boolean | void,
  path: readonly number[] = [],
): void {
  if (visitor(node, path) === false) return;
  childrenOf(node).forEach((child, index) => visit(child, visitor, [...path, index]));
}

/** The node at a path, if there is one. */
export function nodeAt(document: TextDocument, path: readonly number[]): Node | undefined {
  let node: Node | undefined = document;
  for (const index of path) node = node && childrenOf(node)[index];
  return node;
}

/** Keys that mean a column of a list that is repeated around a place, and not a variable. */
export type Shadows = ReadonlySet<string>;
/** No key is a column here. */
export const NO_SHADOWS: Shadows = new Set();

/** The shadows inside conditions: a repeat adds the columns of its list. */
export function shadowsInside(
  outer: Shadows,
  conditions: readonly Condition[],
  variables: readonly Variable[],
): Shadows {
  let inner = outer;
  for (const { of, not } of conditions) {
    const columns = not ? undefined : variables.find(({ key }) => key === of)?.columns;
    if (columns) inner = new Set([...inner, ...columns.map(({ key }) => key)]);
  }
  return inner;
}
