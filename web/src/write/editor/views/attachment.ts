/** How attachments stand in the envelope: the name that the recipient sees, the file, and the way to take it off. */
import type { NodeViewRenderer } from '@tiptap/core';

export const attachmentView: NodeViewRenderer = ({ node, editor, getPos }) => {
  const dom = Object.assign(document.createElement('div'), { className: 'attachment' });
  const contentDOM = Object.assign(document.createElement('span'), { className: 'file-name' });
  const file = Object.assign(document.createElement('span'), {
    className: 'file',
    textContent: String(node.attrs.file),
  });
  const off = Object.assign(document.createElement('button'), {
    type: 'button',
    className: 'plain small',
    textContent: 'Take off',
  });
  file.contentEditable = 'false';
  off.contentEditable = 'false';
  off.addEventListener('click', () => {
    const pos = getPos();
    const size = pos === undefined ? undefined : editor.state.doc.nodeAt(pos)?.nodeSize;
    if (pos !== undefined && size !== undefined) editor.view.dispatch(editor.state.tr.delete(pos, pos + size));
  });
  dom.append(contentDOM, file, off);
  let current = node;
  return {
    dom,
    contentDOM,
    update(next) {
      if (next.type !== current.type) return false;
      current = next;
      file.textContent = String(next.attrs.file);
      return true;
    },
    stopEvent: (event) => event.target === off,
    ignoreMutation: (mutation) => !contentDOM.contains(mutation.target as globalThis.Node),
  };
};
