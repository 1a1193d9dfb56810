/** Putting a node in place of another. */
import type { Node, TextDocument } from '../template/document.js';

/** The document with another node at a path; itself where there is nothing at it. */
export function replaceAt(document: TextDocument, path: readonly number[], change: (node: Node) => Node): TextDocument {
  return replaced(document, path, change) as TextDocument;
}

function replaced(node: Node, [index, ...rest]: readonly number[], change: (node: Node) => Node): Node {
  if (index === undefined) return change(node);
  const children = ('content' in node ? node.content : undefined) as readonly Node[] | undefined;
  const child = children?.[index];
  if (!children || !child) return node;
  return { ...node, content: children.with(index, replaced(child, rest, change)) } as Node;
}
