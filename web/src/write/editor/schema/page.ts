/** The forms of the page: paragraphs to tables, images, buttons and panels, and the marks on words. */
import { Mark, Node, type Extensions } from '@tiptap/core';
import { Blockquote } from '@tiptap/extension-blockquote';
import { Bold } from '@tiptap/extension-bold';
import { Code } from '@tiptap/extension-code';
import { CodeBlock } from '@tiptap/extension-code-block';
import { HardBreak } from '@tiptap/extension-hard-break';
import { Heading } from '@tiptap/extension-heading';
import { HorizontalRule } from '@tiptap/extension-horizontal-rule';
import { Italic } from '@tiptap/extension-italic';
import { BulletList, ListItem, OrderedList } from '@tiptap/extension-list';
import { Paragraph } from '@tiptap/extension-paragraph';
import { Strike } from '@tiptap/extension-strike';
import { Table, TableCell, TableHeader, TableRow } from '@tiptap/extension-table';
import { Text } from '@tiptap/extension-text';
import { Underline } from '@tiptap/extension-underline';
import { safeUrl } from '@vocabula/core';
import { attribute, LINE, readData } from './attributes';
import { imageView } from '../views/image';
import { when } from './passages';

/** Where a line stands across the page. */
const layout = () => ({
  align: {
    default: null,
    parseHTML: (element: HTMLElement) => element.getAttribute('data-align'),
    renderHTML: ({ align }: Record<string, unknown>) =>
      align ? { 'data-align': String(align), style: `text-align: ${String(align)}` } : {},
  },
  indent: {
    default: 0,
    parseHTML: (element: HTMLElement) => Number(element.getAttribute('data-indent') ?? 0),
    renderHTML: ({ indent }: Record<string, unknown>) =>
      indent ? { 'data-indent': String(indent), style: `margin-inline-start: ${Number(indent) * 28}px` } : {},
  },
});

const Panel = Node.create({
  name: 'panel',
  group: 'block',
  content: 'block+',
  defining: true,
  addAttributes: () => ({ colour: attribute('') }),
  parseHTML: () => [{ tag: 'div[data-panel]', getAttrs: (element) => ({ colour: element.dataset.panel ?? '' }) }],
  renderHTML: ({ node }) => ['div', { 'data-panel': String(node.attrs.colour), class: 'panel' }, 0],
});

const Button = Node.create({
  name: 'button',
  group: 'block',
  content: LINE,
  marks: 'phrase',
  defining: true,
  addAttributes: () => ({ href: attribute(''), align: attribute<string | null>(null) }),
  parseHTML: () => [{ tag: 'div[data-button]', getAttrs: readData('button') }],
  renderHTML: ({ node }) => [
    'div',
    {
      'data-button': JSON.stringify(node.attrs),
      class: 'button-line',
      'data-align': String(node.attrs.align ?? 'left'),
    },
    ['span', { class: 'button', title: String(node.attrs.href) }, 0],
  ],
});

/** Words in a colour of the house, or on the tint of one. */
const colour = (name: 'colour' | 'highlight') =>
  Mark.create({
    name,
    addAttributes: () => ({ name: attribute('') }),
    parseHTML: () => [{ tag: `span[data-${name}]`, getAttrs: (element) => ({ name: element.dataset[name] ?? '' }) }],
    renderHTML: ({ mark }) => ['span', { [`data-${name}`]: String(mark.attrs.name), class: `${name}ed` }, 0],
  });

const Language = Mark.create({
  name: 'language',
  addAttributes: () => ({ lang: attribute('') }),
  parseHTML: () => [{ tag: 'span[lang]', getAttrs: (element) => ({ lang: element.lang }) }],
  renderHTML: ({ mark }) => ['span', { lang: String(mark.attrs.lang), class: 'foreign' }, 0],
});

const Image = Node.create({
  name: 'image',
  group: 'inline',
  inline: true,
  atom: true,
  draggable: true,
  addAttributes: () => ({
    src: attribute(''),
    alt: attribute<unknown[]>([]),
    title: attribute(''),
    width: attribute<number | null>(null),
  }),
  parseHTML: () => [{ tag: 'span[data-image]', getAttrs: readData('image') }],
  renderHTML: ({ node }) => ['span', { class: 'image', 'data-image': JSON.stringify(node.attrs) }],
  addNodeView: () => imageView,
});

const cellAttributes = () => ({
  align: attribute(null),
  colspan: attribute(1),
  rowspan: attribute(1),
  colwidth: attribute(null),
});

const Link = Mark.create({
  name: 'link',
  inclusive: false,
  excludes: 'link',
  addAttributes: () => ({ href: { default: '' } }),
  // What a message may not link to comes in as plain words.
  parseHTML: () => [
    {
      tag: 'a[href]',
      getAttrs: (element) =>
        safeUrl(element.getAttribute('href') ?? '') ? { href: element.getAttribute('href') } : false,
    },
  ],
  renderHTML: ({ mark }) => ['a', { href: String(mark.attrs.href), title: String(mark.attrs.href) }, 0],
});

/** Marks on words, and the text that carries them: what wordings may hold too. */
export const words: Extensions = [
  Text,
  Language,
  colour('colour'),
  colour('highlight'),
  Link,
  Bold,
  Italic,
  Underline,
  Strike,
  Code.extend({ excludes: '' }),
];

/** What stands in a paragraph beside its words. */
export const inParagraphs: Extensions = [HardBreak.extend({ marks: '_' }), Image];

export const page: Extensions = [
  Paragraph.extend({ addAttributes: layout }),
  Heading.extend({
    addAttributes: () => ({ level: { default: 1, rendered: false }, ...layout() }),
  }).configure({ levels: [1, 2, 3] }),
  Panel,
  Button,
  Blockquote,
  HorizontalRule,
  CodeBlock.extend({ marks: '', addAttributes: () => ({ language: attribute(null) }) }),
  BulletList,
  OrderedList.extend({
    addAttributes: () => ({
      start: { default: 1, parseHTML: (element: HTMLElement) => Number(element.getAttribute('start') ?? 1) },
    }),
  }),
  ListItem.extend({ content: 'block+', addAttributes: when }),
  Table.configure({ resizable: false }),
  TableRow.extend({ content: '(tableCell | tableHeader)+', addAttributes: when }),
  TableCell.extend({ content: 'paragraph', addAttributes: cellAttributes }),
  TableHeader.extend({ content: 'paragraph', addAttributes: cellAttributes }),
  ...inParagraphs,
];
