/** The editor's schema: the same documents as the core's, node for node and attribute for attribute. */
import { Extension, Mark, Node, type Extensions } from '@tiptap/core';
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
import { Dropcursor, Gapcursor, UndoRedo } from '@tiptap/extensions';
import { safeUrl, type Condition } from '@vocabula/core';
import { contentEditing } from './editing';
import { placeholderView, inclusionView } from './views';

const attribute = <T>(value: T, rendered = false) => ({ default: value, rendered });
const LINE = '(text | placeholder | inlineComment)*';
const PARTS = 'subject to cc bcc reply_to attachments start length place body';

const Template = Node.create({
  name: 'template',
  topNode: true,
  content: PARTS,
  addAttributes: () => ({ front: attribute({}), variables: attribute([]) }),
});
const WORDS: Record<string, string> = {
  subject: 'Subject',
  start: 'Start',
  length: 'Length',
  place: 'Place',
  to: 'To',
  cc: 'Cc',
  bcc: 'Bcc',
  reply_to: 'Reply to',
};

/** A line of the envelope: text, placeholders and passages, and no other form. */
const line = (name: string) =>
  Node.create({
    name,
    content: LINE,
    marks: 'phrase',
    defining: true,
    isolating: true,
    parseHTML: () => [{ tag: `div[data-line="${name}"]` }],
    renderHTML: () => [
      'div',
      { 'data-line': name, class: `line ${name}`, 'aria-label': WORDS[name] ?? name },
      ['span', { class: 'line-name', contenteditable: 'false' }, WORDS[name] ?? name],
      ['span', { class: 'line-text' }, 0],
    ],
  });
const addresses = (name: string) =>
  Node.create({
    name,
    content: 'address+',
    isolating: true,
    parseHTML: () => [{ tag: `div[data-line="${name}"]` }],
    renderHTML: () => [
      'div',
      { 'data-line': name, class: `line ${name}`, 'aria-label': WORDS[name] ?? name },
      ['span', { class: 'line-name', contenteditable: 'false' }, WORDS[name] ?? name],
      ['span', { class: 'line-text' }, 0],
    ],
  });
const Address = Node.create({
  name: 'address',
  content: LINE,
  marks: 'phrase',
  parseHTML: () => [{ tag: 'span[data-address]' }],
  renderHTML: () => ['span', { 'data-address': '', class: 'address' }, 0],
});
const Attachments = Node.create({
  name: 'attachments',
  content: 'attachment*',
  isolating: true,
  renderHTML: () => ['div', { class: 'line attachments' }, 0],
});
const Attachment = Node.create({
  name: 'attachment',
  content: LINE,
  marks: 'phrase',
  addAttributes: () => ({ file: attribute('') }),
  renderHTML: ({ node }) => ['div', { class: 'attachment', 'data-file': String(node.attrs.file) }, 0],
});
const Body = Node.create({
  name: 'body',
  content: 'block+',
  isolating: true,
  renderHTML: () => ['div', { class: 'body', 'data-body': '' }, 0],
});

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
});

/** Attributes that were written into a data attribute as JSON, for copying and pasting within the editor. */
const readData = (name: string) => (element: HTMLElement) => {
  try {
    return JSON.parse(element.dataset[name] ?? '') as Record<string, unknown>;
  } catch {
    return false;
  }
};

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

const when = () => ({ when: attribute<Condition[]>([]) });
const cellAttributes = () => ({
  align: attribute(null),
  colspan: attribute(1),
  rowspan: attribute(1),
  colwidth: attribute(null),
});

/** Blocks are kept apart from the parts of the envelope by their group alone. */
export const extensions: Extensions = [
  Template,
  line('subject'),
  addresses('to'),
  addresses('cc'),
  addresses('bcc'),
  addresses('reply_to'),
  Address,
  Attachments,
  Attachment,
  line('start'),
  line('length'),
  line('place'),
  Body,
  Paragraph.extend({ addAttributes: layout }),
  Text,
  Heading.extend({
    addAttributes: () => ({ level: { default: 1, rendered: false }, ...layout() }),
  }).configure({ levels: [1, 2, 3] }),
  Panel,
  Button,
  Blockquote,
  HorizontalRule,
  HardBreak.extend({ marks: '_' }),
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
  Passage,
  inclusion('inclusion'),
  inclusion('inlineInclusion'),
  comment('comment'),
  comment('inlineComment'),
  Placeholder,
  Image,
  Phrase,
  Language,
  colour('colour'),
  colour('highlight'),
  Link,
  Bold,
  Italic,
  Underline,
  Strike,
  Code.extend({ excludes: '' }),
  Gapcursor,
  Dropcursor,
  UndoRedo.configure({ depth: 400 }),
  Extension.create({ name: 'contentEditing', priority: 1000, ...contentEditing }),
];
