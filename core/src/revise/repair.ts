/** Doing what a finding proposes. */
import type { Repair } from '../findings/finding.js';
import type { Inline, Mark, Node, TextDocument } from '../template/document.js';
import { childrenOf, nodeAt } from '../template/walk.js';
import { sortMarks } from '../template/normalise.js';

/**
 * The document after a repair; undefined where its place is no longer there. Not normalised: paths before the place
 * stay as they were.
 */
export function repaired(document: TextDocument, repair: Repair): TextDocument | undefined {
  const node = nodeAt(document, repair.path);
  const nodes = node && repairedNode(node, repair);
  return nodes && (put(document, repair.path, nodes) as TextDocument);
}

function repairedNode(node: Node, repair: Repair): readonly Node[] | undefined {
  switch (repair.how) {
    case 'attributes':
      return [{ ...node, attrs: { ...('attrs' in node ? node.attrs : {}), ...repair.attrs } } as Node];
    case 'recolour': {
      if (!('marks' in node)) return undefined;
      const rest = (node.marks ?? []).filter(({ type }) => type !== repair.mark);
      const added = repair.name === undefined ? [] : [{ type: repair.mark, attrs: { name: repair.name } } as Mark];
      return [withMarks(node as Inline, [...rest, ...added])];
    }
    case 'replace': {
      const end = repair.offset + repair.length;
      if (node.type !== 'text' || end > node.text.length) return undefined;
      const { insert } = repair;
      const [before, after] = [node.text.slice(0, repair.offset), node.text.slice(end)];
      const words = (text: string): Inline[] => (text === '' ? [] : [{ ...node, text }]);
      if (typeof insert === 'string') return words(before + insert + after);
      return [...words(before), ...insert.map((each) => withMarks(each, node.marks ?? [])), ...words(after)];
    }
  }
}

function withMarks(node: Inline, marks: readonly Mark[]): Inline {
  const { marks: _marks, ...rest } = node;
  return (marks.length === 0 ? rest : { ...rest, marks: sortMarks(marks) }) as Inline;
}

/** Puts nodes in place of the one at a path. */
function put(node: Node, [index, ...rest]: readonly number[], nodes: readonly Node[]): Node {
  const content = childrenOf(node).flatMap((child, at) => {
    if (at !== index) return [child];
    return rest.length === 0 ? nodes : [put(child, rest, nodes)];
  });
  return { ...node, content } as Node;
}
