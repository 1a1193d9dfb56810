/** How images stand in the manuscript: as they are, with an edge to drag for their width. */
import type { NodeViewRenderer } from '@tiptap/core';
import type { Node as PmNode } from '@tiptap/pm/model';
import { plainWords, type Inline } from '@vocabula/core';
import { assetUrl } from '../../../api/client';

/** The narrowest and widest that dragging gives, in pixels; the page holds 520. */
const NARROWEST = 16;
const WIDEST = 520;

export const imageView: NodeViewRenderer = ({ node, editor, getPos }) => {
  const dom = Object.assign(document.createElement('span'), { className: 'image' });
  const image = document.createElement('img');
  const words = Object.assign(document.createElement('span'), { className: 'image-words' });
  const edge = Object.assign(document.createElement('span'), { className: 'image-edge', title: 'Drag for the width' });
  image.draggable = false;
  dom.contentEditable = 'false';
  dom.append(image, words, edge);
  let current: PmNode = node;

  function show(): void {
    const { src, alt, width } = current.attrs as { src: string; alt: readonly Inline[]; width: number | null };
    const text = plainWords(alt);
    const own = src.startsWith('assets/') || src.startsWith('data:');
    image.hidden = !own;
    // An image of elsewhere is not fetched.
    if (own) image.src = src.startsWith('assets/') ? assetUrl(src) : src;
    image.alt = text;
    image.style.width = width ? `${width}px` : '';
    words.textContent = own ? '' : `image at ${src.slice(0, 60)}${text ? `: ${text}` : ''}`;
    dom.setAttribute('aria-label', `image, ${text || 'without alternative text'}`);
    dom.classList.toggle('without-words', text === '');
  }
  show();

  edge.addEventListener('pointerdown', (down) => {
    down.preventDefault();
    edge.setPointerCapture(down.pointerId);
    const start = image.getBoundingClientRect().width;
    const widthAt = (event: PointerEvent): number =>
      Math.round(Math.max(NARROWEST, Math.min(WIDEST, start + event.clientX - down.clientX)));
    const move = (event: PointerEvent): void => {
      image.style.width = `${widthAt(event)}px`;
    };
    const up = (event: PointerEvent): void => {
      edge.removeEventListener('pointermove', move);
      const pos = getPos();
      if (pos !== undefined)
        editor.view.dispatch(
          editor.state.tr.setNodeMarkup(pos, undefined, { ...current.attrs, width: widthAt(event) }),
        );
    };
    edge.addEventListener('pointermove', move);
    edge.addEventListener('pointerup', up, { once: true });
  });
  return {
    dom,
    update(next) {
      if (next.type !== current.type) return false;
      current = next;
      show();
      return true;
    },
    stopEvent: (event) => event.target === edge,
    ignoreMutation: () => true,
  };
};
