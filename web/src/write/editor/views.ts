/** How placeholders and included blocks stand in the manuscript. */
import type { NodeViewRenderer } from '@tiptap/core';
import type { Node as PmNode } from '@tiptap/pm/model';
import type { NodeView } from '@tiptap/pm/view';
import {
  bodyOf,
  childrenOf,
  labelFromKey,
  type Inline,
  type Node as DocumentNode,
  type TypeName,
  type Variable,
} from '@vocabula/core';
import { knownText } from '../../ui/library';

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
  field: '@',
  fact: '⌂',
};
const LONGEST = 24;

/** Names and, when asked for, values of the current recipient; every view follows them. */
class Labels {
  private variables: readonly Variable[] = [];
  private values: ((name: string, view: string) => string | undefined) | undefined;
  private readonly views = new Set<() => void>();

  set(variables: readonly Variable[], values: ((name: string, view: string) => string | undefined) | undefined): void {
    if (variables === this.variables && values === undefined && this.values === undefined) return;
    this.variables = variables;
    this.values = values;
    for (const update of this.views) update();
  }

  watch(update: () => void): () => void {
    this.views.add(update);
    return () => void this.views.delete(update);
  }

  refresh(): void {
    for (const update of this.views) update();
  }

  of(name: string): { label: string; type: TypeName | 'field' | 'fact'; known: boolean } {
    const [source, field] = name.split('.');
    if (field)
      return {
        label:
          `${source === 'recipient' ? 'Recipient’s' : source === 'sender' ? 'My' : ''} ${labelFromKey(field).toLowerCase()}`.trim(),
        type: source === 'house' ? 'fact' : 'field',
        known: true,
      };
    const variable =
      this.variables.find((each) => each.key === name) ??
      this.variables.flatMap((each) => each.columns ?? []).find((each) => each.key === name);
    return {
      label: variable?.label ?? labelFromKey(name),
      type: variable?.type ?? 'text',
      known: variable !== undefined,
    };
  }

  value(name: string, view: string): string | undefined {
    return this.values?.(name, view);
  }
}
export const labels = new Labels();

const dressed = new WeakMap<HTMLElement, string>();

/** Fills an element with a placeholder's look. */
function dress(element: HTMLElement, name: string, view: string): void {
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
function dressedView(node: PmNode, dom: HTMLElement, dressUp: (node: PmNode) => void): NodeView {
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

export const inclusionView: NodeViewRenderer = ({ node }) => {
  const inline = node.isInline;
  const dom = document.createElement(inline ? 'span' : 'div');
  dom.className = inline ? 'included inline' : 'included';
  let shown: unknown;
  return dressedView(node, dom, ({ attrs }) => {
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
