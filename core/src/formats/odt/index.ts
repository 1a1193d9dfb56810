/**
 * Reads documents of the OpenDocument format (ISO/IEC 26300, text) as HTML: paragraphs, headings, lists, tables, links,
 * images and emphasis, with their alignment. What HTML cannot say, and what is not part of the text (comments, tracked
 * deletions, notes), is left out.
 */
import { parseDocument } from 'htmlparser2';
import type { ChildNode, Element, ParentNode } from 'domhandler';
import { escapeHtml } from '../../words/escape.js';

/** The parts of a document: its content, its named styles, and what is asked for an image by its path. */
export interface OdtParts {
  readonly content: string;
  readonly styles?: string;
  /** The source that stands for an image; undefined to leave it out. */
  image(path: string): string | undefined;
}

/** What a style says; what is not said comes from the one that it is made from. */
interface Style {
  readonly parent: string | undefined;
  readonly bold?: boolean;
  readonly italic?: boolean;
  readonly underline?: boolean;
  readonly strike?: boolean;
  readonly align?: string;
  /** The colour under words, as CSS writes it. */
  readonly ground?: string;
}
/** Elements nested deeper than this are left out. */
const MAX_DEPTH = 120;
/** Elements whose text is none of the message's. */
const LEFT_OUT: ReadonlySet<string> = new Set([
  'text:tracked-changes',
  'office:annotation',
  'office:annotation-end',
  'text:note',
  'office:forms',
  'text:sequence-decls',
  'svg:title',
  'svg:desc',
]);

const isElement = (node: ChildNode): node is Element => node.type === 'tag';

/** The HTML of a document; undefined where it is no text. */
export function odtToHtml({ content, styles = '', image }: OdtParts): string | undefined {
  const tree = parseDocument(content, { xmlMode: true });
  const body = found(tree, 'office:text');
  if (!body) return undefined;
  const reader = new OdtReader(image);
  if (styles !== '') reader.learn(parseDocument(styles, { xmlMode: true }));
  reader.learn(tree);
  return reader.blocks(body, 0);
}

/** The first element of a name, in a tree. */
function found(root: ParentNode, name: string): Element | undefined {
  const left: ChildNode[] = [...root.children].reverse();
  for (let node = left.pop(); node; node = left.pop()) {
    if (!isElement(node)) continue;
    if (node.name === name) return node;
    for (const child of node.children.toReversed()) left.push(child);
  }
  return undefined;
}

class OdtReader {
  private readonly styles = new Map<string, Style>();
  /** Styles of lists whose first level is numbered. */
  private readonly numbered = new Set<string>();

  constructor(private readonly image: OdtParts['image']) {}

  /** Takes in the styles that a part declares. */
  learn(root: ParentNode): void {
    const left: ChildNode[] = [...root.children];
    for (let node = left.pop(); node; node = left.pop()) {
      if (!isElement(node)) continue;
      const name = node.attribs['style:name'];
      if (node.name === 'style:style' && name !== undefined) this.styles.set(name, styleOf(node));
      else if (node.name === 'text:list-style' && name !== undefined) {
        const [first] = node.children.filter(isElement);
        if (first?.name === 'text:list-level-style-number') this.numbered.add(name);
      } else for (const child of node.children) left.push(child);
    }
  }

  /** What a style says of something, by itself or through what it is made from. */
  private said<K extends keyof Style>(name: string | undefined, what: K): Style[K] {
    for (let step = 0, at = name; at !== undefined && step < 20; step += 1) {
      const style = this.styles.get(at);
      if (style?.[what] !== undefined) return style[what];
      at = style?.parent;
    }
    return undefined as Style[K];
  }

  private isMadeFrom(name: string | undefined, wanted: RegExp): boolean {
    for (let step = 0, at = name; at !== undefined && step < 20; step += 1) {
      if (wanted.test(at)) return true;
      at = this.styles.get(at)?.parent;
    }
    return false;
  }

  blocks(parent: Element, depth: number): string {
    if (depth > MAX_DEPTH) return '';
    return parent.children.map((node) => (isElement(node) ? this.block(node, depth + 1) : '')).join('');
  }

  private block(node: Element, depth: number): string {
    const style = node.attribs['text:style-name'];
    switch (node.name) {
      case 'text:h': {
        const level = Math.min(3, Math.max(1, Number(node.attribs['text:outline-level'] ?? 1) || 1));
        return `<h${level}${this.layout(style)}>${this.inline(node, depth)}</h${level}>`;
      }
      case 'text:p': {
        const words = this.words(node, depth, style);
        if (this.isMadeFrom(style, /^(?:Title|Subtitle)$/)) return `<h1${this.layout(style)}>${words}</h1>`;
        const paragraph = `<p${this.layout(style)}>${words}</p>`;
        return this.isMadeFrom(style, /^Quotations$/) ? `<blockquote>${paragraph}</blockquote>` : paragraph;
      }
      case 'text:list': {
        const kind = style !== undefined && this.numbered.has(style) ? 'ol' : 'ul';
        const items = node.children.filter(isElement).map((item) => `<li>${this.blocks(item, depth)}</li>`);
        return `<${kind}>${items.join('')}</${kind}>`;
      }
      case 'table:table':
        return `<table>${this.rows(node, depth, 'td')}</table>`;
      case 'draw:frame':
        return `<p>${this.frame(node)}</p>`;
      default:
        return LEFT_OUT.has(node.name) ? '' : this.blocks(node, depth);
    }
  }

  private rows(parent: Element, depth: number, cell: 'td' | 'th'): string {
    if (depth > MAX_DEPTH) return '';
    return parent.children
      .filter(isElement)
      .map((node) => {
        if (node.name === 'table:table-header-rows') return this.rows(node, depth + 1, 'th');
        if (node.name === 'table:table-rows' || node.name === 'table:table-row-group')
          return this.rows(node, depth + 1, cell);
        if (node.name !== 'table:table-row') return '';
        const cells = node.children.filter(isElement).filter(({ name }) => name === 'table:table-cell');
        return `<tr>${cells.map((each) => this.cell(each, depth + 1, cell)).join('')}</tr>`;
      })
      .join('');
  }

  private cell(node: Element, depth: number, name: 'td' | 'th'): string {
    const span = (attribute: string, of: string): string => {
      const count = Number(node.attribs[of] ?? 1);
      return count > 1 && count < 100 ? ` ${attribute}="${count}"` : '';
    };
    const spans = span('colspan', 'table:number-columns-spanned') + span('rowspan', 'table:number-rows-spanned');
    return `<${name}${spans}>${this.blocks(node, depth)}</${name}>`;
  }

  private layout(style: string | undefined): string {
    const align = this.said(style, 'align');
    const side = align === 'end' ? 'right' : align;
    return side === 'center' || side === 'right' ? ` style="text-align:${side}"` : '';
  }

  /** The words of a node under a style that the words of it have, such as bold paragraphs. */
  private words(node: Element, depth: number, style: string | undefined): string {
    let html = this.inline(node, depth);
    if (html === '') return html;
    if (this.said(style, 'bold')) html = `<b>${html}</b>`;
    if (this.said(style, 'italic')) html = `<i>${html}</i>`;
    if (this.said(style, 'underline')) html = `<u>${html}</u>`;
    if (this.said(style, 'strike')) html = `<s>${html}</s>`;
    const ground = this.said(style, 'ground');
    if (ground !== undefined && ground !== 'transparent')
      html = `<mark style="background-color:${escapeHtml(ground)}">${html}</mark>`;
    return html;
  }

  private inline(parent: Element, depth: number): string {
    if (depth > MAX_DEPTH) return '';
    return parent.children.map((node) => this.inlineNode(node, depth + 1)).join('');
  }

  private inlineNode(node: ChildNode, depth: number): string {
    // White space in a file is one space; more of it is written with elements.
    if (node.type === 'text') return escapeHtml(node.data.replace(/\s+/g, ' '));
    if (!isElement(node) || LEFT_OUT.has(node.name)) return '';
    switch (node.name) {
      case 'text:span':
        return this.words(node, depth, node.attribs['text:style-name']);
      case 'text:a':
        return `<a href="${escapeHtml(node.attribs['xlink:href'] ?? '')}">${this.inline(node, depth)}</a>`;
      case 'text:line-break':
        return '<br>';
      case 'text:tab':
        return ' ';
      case 'text:s':
        return '\u00A0'.repeat(Math.min(40, Math.max(1, Number(node.attribs['text:c'] ?? 1) || 1)));
      case 'draw:frame':
        return this.frame(node);
      default:
        return this.inline(node, depth);
    }
  }

  private frame(node: Element): string {
    const picture = found(node, 'draw:image');
    const path = picture?.attribs['xlink:href'];
    const source = path === undefined ? undefined : this.image(path.replace(/^\.\//, ''));
    if (source === undefined) return '';
    const words = ['svg:desc', 'svg:title'].map((name) => found(node, name)).find(Boolean);
    const alt = words ? words.children.map((child) => (child.type === 'text' ? child.data : '')).join('') : '';
    return `<img src="${escapeHtml(source)}" alt="${escapeHtml(alt)}">`;
  }
}

function styleOf(node: Element): Style {
  const [words, lines] = [found(node, 'style:text-properties'), found(node, 'style:paragraph-properties')];
  const said = (of: Element | undefined, name: string): string | undefined => of?.attribs[name];
  const weight = said(words, 'fo:font-weight');
  const slant = said(words, 'fo:font-style');
  const under = said(words, 'style:text-underline-style');
  const through = said(words, 'style:text-line-through-style');
  const align = said(lines, 'fo:text-align');
  const ground = said(words, 'fo:background-color');
  return {
    parent: node.attribs['style:parent-style-name'],
    ...(weight === undefined ? {} : { bold: weight === 'bold' || Number(weight) >= 600 }),
    ...(slant === undefined ? {} : { italic: slant !== 'normal' }),
    ...(under === undefined ? {} : { underline: under !== 'none' }),
    ...(through === undefined ? {} : { strike: through !== 'none' }),
    ...(align === undefined ? {} : { align }),
    ...(ground === undefined ? {} : { ground }),
  };
}
