/** What a text includes, whether it fits a line, and how much inclusion there may be. */
import type { Condition } from '../template/condition.js';
import { bodyOf, type Block, type TextDocument } from '../template/document.js';
import { visit, walk } from '../template/walk.js';
import { neverBoth, severalIn } from './condition-logic.js';

/** The most nodes that all included blocks come to, each counted as often as it is included. */
export const MAX_INCLUDED = 60_000;
/** How deep inclusion may nest, and how many inclusions one message may have in all. */
export const MAX_INCLUSION_DEPTH = 16;
/** The most inclusions that one message may have in all, at all depths. */
export const MAX_INCLUSIONS = 2000;

/** Inclusions and repeats of a body, in reading order. */
export function inclusionsOf(
  document: TextDocument,
): { name: string; path: readonly number[]; inline: boolean; repeats: readonly Condition[] }[] {
  const lists = new Set(
    document.attrs.variables.filter((variable) => variable.type === 'list').map((variable) => variable.key),
  );
  const found: { name: string; path: readonly number[]; inline: boolean; repeats: readonly Condition[] }[] = [];
  const repeating = (conditions: readonly Condition[]): Condition[] =>
    conditions.filter((each) => !each.not && each.is.length === 0 && lists.has(each.of));
  document.content.forEach((part, index) => {
    if (part.type !== 'body') return;
    walk(
      part,
      ({ node, path, outer }) => {
        if (node.type !== 'inclusion' && node.type !== 'inlineInclusion') return;
        found.push({ name: node.attrs.name, path, inline: node.type === 'inlineInclusion', repeats: repeating(outer) });
      },
      [index],
    );
  });
  return found;
}

/** True if a text can stand inside a line: one paragraph at most comes out, whatever is kept. */
export function fitsLine(document: TextDocument): boolean {
  const paragraphs: Condition[][] = [];
  const gather = (children: readonly Block[], conditions: readonly Condition[]): boolean =>
    children.every((block) => {
      if (block.type === 'comment') return true;
      if (block.type === 'paragraph') return paragraphs.push([...conditions]) > 0;
      return block.type === 'passage' && gather(block.content, [...conditions, block.attrs]);
    });
  if (!gather(bodyOf(document), [])) return false;
  const several = severalIn(document.attrs.variables);
  return (
    paragraphs.length > 0 &&
    paragraphs.every((a, i) =>
      paragraphs.slice(i + 1).every((b) => a.some((left) => b.some((right) => neverBoth(left, right, several)))),
    )
  );
}

/** All inclusion targets anywhere in a document. */
export function namesIncluded(document: TextDocument): string[] {
  const names = new Set<string>();
  for (const block of bodyOf(document)) {
    visit(block, (node) => {
      if (node.type === 'inclusion' || node.type === 'inlineInclusion') names.add(node.attrs.name);
    });
  }
  if (document.attrs.front.signature && document.attrs.front.signature !== 'none')
    names.add(document.attrs.front.signature);
  return [...names];
}

/** All texts that a document needs: those it includes, and the templates of its steps. */
export const namesNeeded = (document: TextDocument): string[] => [
  ...new Set([...namesIncluded(document), ...(document.attrs.steps ?? []).map(({ text }) => text)]),
];

const sizes = new WeakMap<TextDocument, number>();
/** How many nodes a text has: what compiling it once costs. */
export function sizeOf(document: TextDocument): number {
  let size = sizes.get(document);
  if (size === undefined) {
    size = 0;
    for (const part of document.content) visit(part, () => void (size = (size ?? 0) + 1));
    sizes.set(document, size);
  }
  return size;
}
