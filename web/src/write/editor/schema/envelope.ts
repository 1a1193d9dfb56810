/** The document's top, its envelope and its body. */
import { Node, type Extensions } from '@tiptap/core';
import { attachmentView } from '../views/attachment';
import { attribute, LINE } from './attributes';

const PARTS = 'subject to cc bcc reply_to attachments start length place body';

const Template = Node.create({
  name: 'template',
  topNode: true,
  content: PARTS,
  addAttributes: () => ({ front: attribute({}), variables: attribute([]) }),
});
/** What the parts of the envelope are called. */
export const PART_WORDS: Readonly<Record<string, string>> = {
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
      { 'data-line': name, class: `line ${name}`, 'aria-label': PART_WORDS[name] ?? name },
      ['span', { class: 'line-name', contenteditable: 'false' }, PART_WORDS[name] ?? name],
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
      { 'data-line': name, class: `line ${name}`, 'aria-label': PART_WORDS[name] ?? name },
      ['span', { class: 'line-name', contenteditable: 'false' }, PART_WORDS[name] ?? name],
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
  addNodeView: () => attachmentView,
});
const Body = Node.create({
  name: 'body',
  content: 'block+',
  isolating: true,
  renderHTML: () => ['div', { class: 'body', 'data-body': '' }, 0],
});

/** Blocks are kept apart from the parts of the envelope by their group alone. */
export const envelope: Extensions = [
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
];
