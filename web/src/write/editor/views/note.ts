/** How notes stand in the manuscript: beside what they are about, and apart from what is sent. */
import type { NodeViewRenderer } from '@tiptap/core';

/** A note without words keeps the place of a phrase whose words are gone. */
export const noteView: NodeViewRenderer = ({ node }) => {
  const dom = document.createElement(node.isInline ? 'span' : 'div');
  dom.contentEditable = 'false';
  let { type } = node;
  const show = (text: string): void => {
    dom.className = text === '' ? 'empty-phrase' : 'note';
    dom.textContent = text === '' ? '' : text;
    dom.setAttribute('aria-label', text === '' ? 'empty passage' : `note, never sent: ${text}`);
    dom.title = text === '' ? 'an empty passage: type here' : 'A note to us, never sent';
  };
  show(String(node.attrs.text));
  return {
    dom,
    update(next) {
      if (next.type !== type) return false;
      type = next.type;
      show(String(next.attrs.text));
      return true;
    },
  };
};
