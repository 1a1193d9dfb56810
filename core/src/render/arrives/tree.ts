/** Our own HTML as a tree that can be changed and written again. */
import { isTag, isText, type ChildNode, type Document, type Element } from 'domhandler';
import { parseDocument } from 'htmlparser2';
import { escapeHtml } from '../../words/escape.js';

export type { ChildNode, Document, Element } from 'domhandler';

/** The tree of a message's HTML. */
export const treeOf = (html: string): Document => parseDocument(html, { decodeEntities: true });

/** All elements, parents before children. */
export function* elementsOf(nodes: readonly ChildNode[]): Generator<Element> {
  for (const node of nodes) {
    if (isTag(node)) yield node;
    if ('children' in node) yield* elementsOf(node.children);
  }
}

/** Pieces of text that a reader sees, each with the element it stands in. */
export function* wordsIn(
  nodes: readonly ChildNode[],
): Generator<{ readonly words: string; readonly element: Element }> {
  for (const node of nodes) {
    if (isText(node) && node.parent && isTag(node.parent) && node.data.trim() !== '')
      yield { words: node.data.trim(), element: node.parent };
    else if ('children' in node && !(isTag(node) && /^(?:head|style|title)$/.test(node.name)))
      yield* wordsIn(node.children);
  }
}

/** The words of some nodes in one line, white space joined. */
export const textIn = (nodes: readonly ChildNode[]): string =>
  [...wordsIn(nodes)]
    .map(({ words }) => words)
    .join(' ')
    .replace(/\s+/g, ' ');

/** Declarations of an element's own style, in order. */
export const declarationsOf = (element: Element): [property: string, value: string][] =>
  (element.attribs.style ?? '').split(';').flatMap((each): [string, string][] => {
    const colon = each.indexOf(':');
    return colon < 0 ? [] : [[each.slice(0, colon).trim(), each.slice(colon + 1).trim()]];
  });

/** Gives an element these style declarations in place of the ones it has. */
export function putDeclarations(element: Element, declarations: readonly (readonly [string, string])[]): void {
  if (declarations.length === 0) delete element.attribs.style;
  else element.attribs.style = declarations.map((each) => each.join(':')).join(';');
}

const VOID = new Set(['meta', 'br', 'hr', 'img']);

/** Writes a tree. */
export function written(nodes: readonly ChildNode[]): string {
  let out = '';
  for (const node of nodes) {
    if (isText(node)) {
      const raw = node.parent && isTag(node.parent) && node.parent.name === 'style';
      out += raw ? node.data : escapeHtml(node.data);
    } else if (node.type === 'directive') out += `<${node.data}>`;
    else if (isTag(node)) {
      const element = node;
      const attributes = Object.entries(element.attribs).map(([name, value]) => ` ${name}="${escapeHtml(value)}"`);
      out += `<${element.name}${attributes.join('')}>`;
      if (!VOID.has(element.name)) out += `${written(element.children)}</${element.name}>`;
    }
  }
  return out;
}
