/**
 * The document: one ProseMirror document, as JSON, that holds a template whole (engine notes, section 1).
 * These are the types; `schema.ts` checks unknown JSON against them.
 */
import type { Condition } from './condition.js';
import type { TextNode, Inline } from './inline.js';
import type { OnAnswer, Step } from './steps.js';
import type { Variable } from './variable.js';

export type * from './inline.js';

/** How the lines of a block are aligned; null as usual in its language. */
export type Align = 'left' | 'center' | 'right' | null;
/** Where a block stands across the page; the normal form leaves out what is as usual. */
export interface Layout {
  readonly align?: Align;
  /** Steps to the right, `MAX_INDENT` at most. */
  readonly indent?: number;
}
/** The most steps that a block can be indented. */
export const MAX_INDENT = 8;
/** A paragraph. */
export interface Paragraph {
  readonly type: 'paragraph';
  readonly attrs?: Layout;
  readonly content?: readonly Inline[];
}
/** A heading. */
export interface Heading {
  readonly type: 'heading';
  readonly attrs: { readonly level: 1 | 2 | 3 } & Layout;
  readonly content?: readonly Inline[];
}
/** A link that stands alone and looks like something to press. Its content is a line of text. */
export interface Button {
  readonly type: 'button';
  readonly attrs: { readonly href: string; readonly align?: Align };
  readonly content?: readonly Inline[];
}
/** Blocks on the tint of a named colour. */
export interface Panel {
  readonly type: 'panel';
  readonly attrs: { readonly colour: string };
  readonly content: readonly Block[];
}
/** Text set in a fixed pitch, without marks. */
export interface CodeBlock {
  readonly type: 'codeBlock';
  readonly attrs: { readonly language: string | null };
  readonly content?: readonly TextNode[];
}
/** A rule across the message. */
export interface HorizontalRule {
  readonly type: 'horizontalRule';
}
/** A quotation. */
export interface Blockquote {
  readonly type: 'blockquote';
  readonly content: readonly Block[];
}
/** `when`: conditions of a list item or table row, outermost first. */
export interface ListItem {
  readonly type: 'listItem';
  readonly attrs: { readonly when: readonly Condition[] };
  readonly content: readonly Block[];
}
/** A list with bullets. */
export interface BulletList {
  readonly type: 'bulletList';
  readonly content: readonly ListItem[];
}
/** A numbered list. */
export interface OrderedList {
  readonly type: 'orderedList';
  readonly attrs: { readonly start: number };
  readonly content: readonly ListItem[];
}
/** A list of either kind. */
export type List = BulletList | OrderedList;
/** Merged cells span columns, or rows under the same conditions; the cells they cover are not there. */
export interface Cell {
  readonly type: 'tableCell' | 'tableHeader';
  readonly attrs: {
    readonly align: Align;
    readonly colspan: number;
    readonly rowspan: number;
    readonly colwidth: null;
  };
  readonly content: readonly [Paragraph];
}
/** A row of a table, kept where all of its conditions hold. */
export interface Row {
  readonly type: 'tableRow';
  readonly attrs: { readonly when: readonly Condition[] };
  readonly content: readonly Cell[];
}
/** A table. */
export interface Table {
  readonly type: 'table';
  readonly content: readonly Row[];
}
/** Blocks that are kept, left out or repeated by a condition. */
export interface Passage {
  readonly type: 'passage';
  readonly attrs: Condition;
  readonly content: readonly Block[];
}
/** A live block that is included here. @see InlineInclusion for one in a line */
export interface Inclusion {
  readonly type: 'inclusion';
  readonly attrs: { readonly name: string };
}
/** Words for other authors, which are never rendered. */
export interface Comment {
  readonly type: 'comment';
  readonly attrs: { readonly text: string };
}
/** What a body consists of. */
export type Block =
  | Paragraph
  | Heading
  | Button
  | Panel
  | CodeBlock
  | HorizontalRule
  | Blockquote
  | List
  | Table
  | Passage
  | Inclusion
  | Comment;

/** The lines of the envelope. */
export type LineName = 'subject' | 'start' | 'length' | 'place';
/** The lists of addresses in the envelope. */
export type AddressesName = 'to' | 'cc' | 'bcc' | 'reply_to';
/** A line of the envelope. */
export interface Line {
  readonly type: LineName;
  readonly content?: readonly Inline[];
}
/** One address of the envelope, as a line that may hold placeholders. */
export interface Address {
  readonly type: 'address';
  readonly content?: readonly Inline[];
}
/** A list of addresses of the envelope. */
export interface Addresses {
  readonly type: AddressesName;
  readonly content: readonly Address[];
}
/** A file that goes with the message; its content is the name it is sent under. */
export interface Attachment {
  readonly type: 'attachment';
  readonly attrs: { readonly file: string };
  readonly content?: readonly Inline[];
}
/** The files that go with the message. */
export interface Attachments {
  readonly type: 'attachments';
  readonly content?: readonly Attachment[];
}
/** The body. */
export interface Body {
  readonly type: 'body';
  readonly content: readonly Block[];
}
/** What a text consists of: envelope and body. */
export type Part = Line | Addresses | Attachments | Body;
/** The part of a name. */
export type PartOf<N extends Part['type']> = N extends LineName
  ? Line
  : N extends AddressesName
    ? Addresses
    : N extends 'attachments'
      ? Attachments
      : Body;

/** What a text is. */
export const KINDS = ['message', 'block', 'signature', 'series'] as const;
/** What a text is. */
export type Kind = (typeof KINDS)[number];
/** How a message is sent. */
export type Purpose = 'new' | 'reply' | 'invitation';

/** The front matter that is not a line of the envelope. Absent means left out in the file. */
export interface Front {
  readonly kind: Kind;
  readonly title: string;
  readonly description?: string;
  readonly call?: string;
  readonly locale?: string;
  readonly timezone?: string;
  readonly purpose?: Purpose;
  readonly signature?: string;
  readonly owner?: string;
  readonly review_by?: string;
  readonly valid_from?: string;
  readonly valid_until?: string;
  readonly fixed?: readonly string[];
  readonly translation_of?: string;
  /** Of a series: whether it stops when one of its messages is answered; it does if this is left out. */
  readonly on_answer?: OnAnswer;
  /** Comments of the front matter, by the attribute (`subject`, `variables.fee`) they stand before. */
  readonly remarks?: Readonly<Record<string, string>>;
}

/** The parts of every document, in their order. */
export const PARTS = [
  'subject',
  'to',
  'cc',
  'bcc',
  'reply_to',
  'attachments',
  'start',
  'length',
  'place',
  'body',
] as const;
/** The lists of addresses, in their order. */
export const ADDRESS_PARTS = ['to', 'cc', 'bcc', 'reply_to'] as const satisfies readonly AddressesName[];
/** The lines of the envelope, in their order. */
export const LINE_PARTS = ['subject', 'start', 'length', 'place'] as const satisfies readonly LineName[];

/** A template, block, signature or series. `content` holds one node for each of `PARTS`; the body of a series is notes. */
export interface TextDocument {
  readonly type: 'template';
  readonly attrs: {
    readonly front: Front;
    readonly variables: readonly Variable[];
    /** Of a series only. */
    readonly steps?: readonly Step[];
  };
  readonly content: readonly Part[];
}

/** A document with its name in the library. */
export interface NamedDocument {
  readonly name: string;
  readonly document: TextDocument;
}

/** Any node of a document. */
export type Node = TextDocument | Part | Address | Attachment | Block | ListItem | Row | Cell | Inline;

/** The part with that name; every valid document has it. */
export function part<N extends Part['type']>(document: TextDocument, name: N): PartOf<N> {
  const found = document.content.find((node) => node.type === name);
  if (!found) throw new Error(`a document without its part ${name} was not checked`);
  return found as PartOf<N>;
}

/** The body's blocks. */
export const bodyOf = (document: TextDocument): readonly Block[] => part(document, 'body').content;

/** An empty text. */
export function emptyDocument(front: Front): TextDocument {
  return {
    type: 'template',
    attrs: { front, variables: [] },
    content: PARTS.map((name): Part => {
      if (name === 'body') return { type: 'body', content: [{ type: 'paragraph' }] };
      if (name === 'attachments') return { type: 'attachments' };
      return isAddresses(name) ? { type: name, content: [{ type: 'address' }] } : { type: name };
    }),
  };
}

/** True for the parts that hold addresses. */
export function isAddresses(name: string): name is AddressesName {
  return (ADDRESS_PARTS as readonly string[]).includes(name);
}

/** The words of a line as an author reads them: placeholders by their names. */
export function plainWords(nodes: readonly Inline[] = []): string {
  return nodes
    .map((node) => {
      if (node.type === 'text') return node.text;
      if (node.type === 'placeholder') return `[${node.attrs.name}]`;
      return node.type === 'hardBreak' ? ' ' : '';
    })
    .join('');
}
