/** How placeholders stand in the manuscript: a ruled blank with a small mark of its type. */
import type { NodeViewRenderer } from '@tiptap/core';
import type { Node as PmNode } from '@tiptap/pm/model';
import type { NodeView } from '@tiptap/pm/view';
import type { TypeName } from '@vocabula/core';
import { labels } from './labels';

/** Marks of types in text: letters where letters do, a drawn sign where they do not. */
const SIGNS: Partial<Record<TypeName | 'field' | 'fact', string>> = {
  text: 'Aa',
  paragraphs: '¶',
  number: '12',
  money: '€',
  date: '▦',
  'yes-no': '½',
  choice: '⋔',
  choices: '⋔',
  email: '@',
  phone: '☏',
  link: '↗',
  list: '≡',
  time: '◷',
  datetime: '▦',
  image: '▣',
  field: '@',
  fact: '⌂',
};
const LONGEST = 24;

const dressed = new WeakMap<HTMLElement, string>();

/** Fills an element with a placeholder's look. */
export function dress(element: HTMLElement, name: string, view: string): void {
  const { label, type, known } = labels.of(name);
  const value = labels.value(name, view);
  const shown = value ?? (label.length > LONGEST ? `${label.slice(0, LONGEST - 1)}…` : label);
  // Most of a manuscript's placeholders stay as they are at most keystrokes.
  const look = [label, type, known, view, shown].join('\n');
  if (dressed.get(element) === look) return;
  dressed.set(element, look);
  element.className = known ? 'placeholder' : 'placeholder unknown';
  element.setAttribute('aria-label', `placeholder, ${label}, ${type}${view ? `, ${view}` : ''}`);
  element.title = `${label}${view ? ` · ${view}` : ''}`;
  const sign = Object.assign(document.createElement('span'), { className: 'sign', textContent: SIGNS[type] ?? 'Aa' });
  sign.setAttribute('aria-hidden', 'true');
  element.replaceChildren(sign, document.createTextNode(`\u2060${shown}`));
}

/** A view that is dressed anew when its node changes or when names and values do. */
export function dressedView(node: PmNode, dom: HTMLElement, dressUp: (node: PmNode) => void): NodeView {
  let current = node;
  const update = (): void => dressUp(current);
  dom.contentEditable = 'false';
  update();
  return {
    dom,
    update(next) {
      if (next.type !== current.type) return false;
      current = next;
      update();
      return true;
    },
    destroy: labels.watch(update),
  };
}

export const placeholderView: NodeViewRenderer = ({ node }) => {
  const dom = document.createElement('span');
  return dressedView(node, dom, ({ attrs }) => {
    dom.dataset.placeholder = String(attrs.name);
    dom.dataset.view = String(attrs.view);
    dress(dom, String(attrs.name), String(attrs.view));
  });
};
