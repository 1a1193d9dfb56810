/** How included blocks stand in the manuscript: their words, for reading only. */
import type { NodeViewRenderer } from '@tiptap/core';
import { bodyOf, childrenOf, type Inline, type Node as DocumentNode } from '@vocabula/core';
import { knownText } from '../../../ui/library';
import { dress, dressedView } from './placeholder';

export const inclusionView: NodeViewRenderer = ({ node }) => {
  const inline = node.isInline;
  const dom = document.createElement(inline ? 'span' : 'div');
  dom.className = inline ? 'included inline' : 'included';
  let shown: unknown;
  /** Its words are being written here, in an editor of their own: this view leaves all within it alone. */
  const isOpen = (): boolean => dom.dataset.open !== undefined;
  const view = dressedView(node, dom, ({ attrs }) => {
    if (isOpen()) return;
    const name = String(attrs.name);
    const text = knownText(name);
    if (shown !== undefined && shown === text && dom.dataset.inclusion === name) {
      for (const element of dom.querySelectorAll<HTMLElement>('.placeholder'))
        dress(element, element.dataset.of ?? '', element.dataset.view ?? '');
      return;
    }
    shown = text;
    dom.dataset.inclusion = name;
    dom.setAttribute('aria-label', `block, ${text?.attrs.front.title ?? name}`);
    dom.replaceChildren(
      ...(text
        ? show(bodyOf(text), inline, [name])
        : [
            Object.assign(document.createElement('span'), {
              className: 'missing',
              textContent: `There is no block “${name}”.`,
            }),
          ]),
    );
  });
  return { ...view, stopEvent: isOpen, ignoreMutation: (mutation) => isOpen() || mutation.type !== 'selection' };
};

/** A block's words as they stand in it, for reading only. */
function show(nodes: readonly DocumentNode[], inline: boolean, chain: readonly string[]): globalThis.Node[] {
  return nodes.flatMap((node): globalThis.Node[] => {
    switch (node.type) {
      case 'text':
        return [document.createTextNode(node.text)];
      case 'hardBreak':
        return [document.createElement('br')];
      case 'placeholder': {
        const element = document.createElement('span');
        element.dataset.of = node.attrs.name;
        element.dataset.view = node.attrs.view;
        dress(element, node.attrs.name, node.attrs.view);
        return [element];
      }
      case 'inclusion':
      case 'inlineInclusion': {
        const text = chain.includes(node.attrs.name) ? undefined : knownText(node.attrs.name);
        return text ? show(bodyOf(text), inline || node.type === 'inlineInclusion', [...chain, node.attrs.name]) : [];
      }
      case 'paragraph':
      case 'heading': {
        const words = show((node.content ?? []) as readonly Inline[], inline, chain);
        if (inline) return words;
        const element = document.createElement('p');
        element.append(...words);
        return [element];
      }
      case 'comment':
      case 'inlineComment':
        return [];
      default:
        return show(childrenOf(node), inline, chain);
    }
  });
}
