/** What is ours: passages, placeholders, included blocks, notes. */
import { Mark, Node, type Extensions } from '@tiptap/core';
import type { Condition } from '@vocabula/core';
import { inclusionView } from '../views/inclusion';
import { noteView } from '../views/note';
import { placeholderView } from '../views/placeholder';
import { attribute } from './attributes';

const conditionAttributes = () => ({
  of: attribute(''),
  is: attribute<string[]>([]),
  not: attribute(false),
  run: attribute(0),
});
const conditionData = (attrs: Record<string, unknown>) => ({
  'data-condition': JSON.stringify({ of: attrs.of, is: attrs.is, not: attrs.not, run: attrs.run }),
});
const readCondition = (element: HTMLElement): Condition | false => {
  try {
    return JSON.parse(element.dataset.condition ?? '') as Condition;
  } catch {
    return false;
  }
};

const Passage = Node.create({
  name: 'passage',
  group: 'block',
  content: 'block+',
  defining: true,
  addAttributes: conditionAttributes,
  parseHTML: () => [{ tag: 'section[data-condition]', getAttrs: readCondition as never }],
  renderHTML: ({ node }) => ['section', { ...conditionData(node.attrs), class: 'passage', role: 'group' }, 0],
});

/** A passage inside a line. Several with different conditions may stand on the same words. */
const Phrase = Mark.create({
  name: 'phrase',
  excludes: '',
  inclusive: false,
  addAttributes: conditionAttributes,
  parseHTML: () => [{ tag: 'span[data-condition]', getAttrs: readCondition as never }],
  renderHTML: ({ mark }) => ['span', { ...conditionData(mark.attrs), class: 'phrase' }, 0],
});

const Placeholder = Node.create({
  name: 'placeholder',
  group: 'inline',
  inline: true,
  atom: true,
  selectable: true,
  addAttributes: () => ({ name: attribute(''), view: attribute('') }),
  parseHTML: () => [
    {
      tag: 'span[data-placeholder]',
      getAttrs: (element) => ({ name: element.dataset.placeholder ?? '', view: element.dataset.view ?? '' }),
    },
  ],
  renderHTML: ({ node }) => [
    'span',
    { 'data-placeholder': String(node.attrs.name), 'data-view': String(node.attrs.view) },
  ],
  renderText: ({ node }) => `[${String(node.attrs.name)}]`,
  addNodeView: () => placeholderView,
});

const inclusion = (name: 'inclusion' | 'inlineInclusion') =>
  Node.create({
    name,
    group: name === 'inclusion' ? 'block' : 'inline',
    inline: name === 'inlineInclusion',
    atom: true,
    selectable: true,
    addAttributes: () => ({ name: attribute('') }),
    parseHTML: () => [
      {
        tag: `${name === 'inclusion' ? 'div' : 'span'}[data-inclusion]`,
        getAttrs: (element) => ({ name: element.dataset.inclusion ?? '' }),
      },
    ],
    renderHTML: ({ node }) => [name === 'inclusion' ? 'div' : 'span', { 'data-inclusion': String(node.attrs.name) }],
    addNodeView: () => inclusionView,
  });

const comment = (name: 'comment' | 'inlineComment') =>
  Node.create({
    name,
    group: name === 'comment' ? 'block' : 'inline',
    inline: name === 'inlineComment',
    atom: true,
    addAttributes: () => ({ text: attribute('') }),
    parseHTML: () => [
      {
        tag: `${name === 'comment' ? 'div' : 'span'}[data-note]`,
        getAttrs: (element) => ({ text: element.dataset.note ?? '' }),
      },
    ],
    renderHTML: ({ node }) => [
      name === 'comment' ? 'div' : 'span',
      { 'data-note': String(node.attrs.text), class: 'note' },
      `note: ${String(node.attrs.text)}`,
    ],
    addNodeView: () => noteView,
  });

/** Conditions of list items and table rows, outermost first. */
export const when = () => ({ when: attribute<Condition[]>([]) });

export const passages: Extensions = [
  Passage,
  inclusion('inclusion'),
  inclusion('inlineInclusion'),
  comment('comment'),
  comment('inlineComment'),
  Placeholder,
  Phrase,
];
