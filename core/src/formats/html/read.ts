/**
 * Reads foreign HTML, pasted or from a file, into the document's own blocks. What the document cannot say does not
 * get in: structure, emphasis, links, tables, lists and images stay; fonts, scripts, hidden text and counting images go.
 */
import { parseDocument } from 'htmlparser2';
import { Text, type ChildNode, type Element, type ParentNode } from 'domhandler';
import type { Align, Block, Inline, Layout, Mark } from '../../template/document.js';
import { normaliseBlocks } from '../../template/normalise.js';
import { safeUrl } from '../../values/address.js';
import { isImageSource } from '../../values/image.js';
import { isElement, isLeftOut, isSpacer, isText, pixels, styleOf } from './clean.js';
import { Flow } from './flow.js';
import { PEN } from './highlight.js';
import { officeLists } from './office-lists.js';
import { isLayout, readTable } from './tables.js';

/** What the reader of HTML needs to know beside the HTML. */
export interface HtmlOptions {
  /**
   * What becomes of an image's source that is no address: `data:` and `cid:` ones. Gives the source to put in its
   * place, or undefined to leave the image out, which is what happens without it.
   */
  image?(source: string): string | undefined;
  /**
   * The name of the house's colour for that of a highlighted run, as CSS writes it; undefined to leave it plain, which
   * is what happens without it.
   */
  highlight?(colour: string): string | undefined;
}

/** A document as it was read from HTML. */
export interface ReadHtml {
  /** Never empty: one paragraph at least. */
  readonly blocks: readonly Block[];
  /** How many images were left out, those that nobody sees not counted. */
  readonly imagesLeftOut: number;
}

/** The longest HTML that is read, in UTF-16 units. */
export const MAX_HTML = 2_000_000;
/** Elements nested deeper than this are read as if they stood here. */
const MAX_DEPTH = 120;

/** HTML that is too long to be read. */
export class HtmlProblem extends Error {}

/**
 * Reads HTML, a page or a piece of one.
 * @throws HtmlProblem for more than `MAX_HTML`
 */
export function readHtml(html: string, options: HtmlOptions = {}): ReadHtml {
  if (html.length > MAX_HTML)
    throw new HtmlProblem('This is more than 2 MB of formatted text. Take it in parts, or as plain text.');
  const body = parseDocument(html.replace(/\0/g, ''), { lowerCaseTags: true, lowerCaseAttributeNames: true });
  limitDepth(body);
  const reader = new HtmlReader(options);
  const blocks = reader.blocks(officeLists(body.children), PLAIN);
  return { blocks: normaliseBlocks(blocks), imagesLeftOut: reader.imagesLeftOut };
}

/** Puts the text of what is nested too deep in its place, level by level, so that nothing after it can run out of stack. */
function limitDepth(root: ParentNode): void {
  let level: ParentNode[] = [root];
  for (let depth = 0; level.length > 0; depth += 1) {
    const elements = level.flatMap((parent) => parent.children.filter(isElement));
    if (depth === MAX_DEPTH)
      for (const element of elements) element.children = isLeftOut(element) ? [] : [new Text(deepText(element))];
    level = depth === MAX_DEPTH ? [] : elements;
  }
}

/** The text of an element, gathered without recursion. */
function deepText(element: Element): string {
  let text = '';
  const left: ChildNode[] = [...element.children].reverse();
  for (let node = left.pop(); node; node = left.pop()) {
    if (isText(node)) text += node.data;
    else if (isElement(node) && !isLeftOut(node))
      for (let at = node.children.length - 1; at >= 0; at -= 1) left.push(node.children[at] as ChildNode);
  }
  return text;
}

/** What an element inherits from those around it. */
export interface Context {
  readonly marks: readonly Mark[];
  readonly align: Align;
  /** True where white space stands as it is. */
  readonly pre: boolean;
}
const PLAIN: Context = { marks: [], align: null, pre: false };

const LINES = new Set(
  'div section article aside header footer main nav center address figure figcaption details summary dl dt dd fieldset legend body html tbody thead tfoot tr td th caption'.split(
    ' ',
  ),
);
const MARKS: Readonly<Record<string, Mark>> = {
  b: { type: 'bold' },
  strong: { type: 'bold' },
  i: { type: 'italic' },
  em: { type: 'italic' },
  cite: { type: 'italic' },
  dfn: { type: 'italic' },
  u: { type: 'underline' },
  ins: { type: 'underline' },
  s: { type: 'strike' },
  strike: { type: 'strike' },
  del: { type: 'strike' },
  code: { type: 'code' },
  kbd: { type: 'code' },
  samp: { type: 'code' },
  tt: { type: 'code' },
};

/** Reads parsed HTML into blocks. What the document cannot say is left out. */
export class HtmlReader {
  imagesLeftOut = 0;
  /** The house's colours for those that were found: a page has few of them, many times over. */
  private readonly pens = new Map<string, string | undefined>();

  constructor(private readonly options: HtmlOptions) {}

  /** The blocks that nodes hold. */
  blocks(nodes: readonly ChildNode[], context: Context): Block[] {
    const flow = new Flow();
    this.walk(nodes, context, flow);
    return flow.blocks();
  }

  /** What nodes hold, in one line. */
  inline(nodes: readonly ChildNode[], context: Context): Inline[] {
    const flow = new Flow();
    this.walk(nodes, context, flow);
    return flow.inline();
  }

  /** What stands in an element inherits: its marks and its alignment. */
  private inside(element: Element, context: Context): Context {
    const within = inside(element, context);
    const colour = highlightOf(element);
    if (colour === undefined || !this.options.highlight) return within;
    if (!this.pens.has(colour)) this.pens.set(colour, this.options.highlight(colour));
    const name = this.pens.get(colour);
    const marks =
      name === undefined
        ? without(within.marks, 'highlight')
        : withMark(within.marks, { type: 'highlight', attrs: { name } });
    return { ...within, marks };
  }

  private walk(nodes: readonly ChildNode[], context: Context, flow: Flow): void {
    for (const node of nodes) {
      if (isText(node)) {
        const { data } = node;
        if (!context.pre) flow.text(data, context.marks);
        else
          data.split('\n').forEach((line, at) => {
            if (at > 0) flow.push({ type: 'hardBreak' });
            flow.text(line, context.marks);
          });
      } else if (isElement(node) && !isLeftOut(node)) this.element(node, this.inside(node, context), flow);
    }
  }

  private element(element: Element, context: Context, flow: Flow): void {
    const { name, children } = element;
    const layout: Layout = context.align === 'center' || context.align === 'right' ? { align: context.align } : {};
    switch (name) {
      case 'br':
        return flow.push({ type: 'hardBreak' }, []);
      case 'img':
        return this.image(element, context, flow);
      case 'hr':
        return flow.block({ type: 'horizontalRule' });
      case 'h1':
      case 'h2':
      case 'h3':
      case 'h4':
      case 'h5':
      case 'h6': {
        // A heading is bold by itself.
        const content = this.inline(children, { ...context, marks: without(context.marks, 'bold') }).map(unbold);
        const level = Math.min(3, Number(name[1])) as 1 | 2 | 3;
        return content.length > 0
          ? flow.block({ type: 'heading', attrs: { level, ...layout }, content })
          : flow.end('line', {});
      }
      case 'ul':
      case 'ol':
      case 'menu':
        return this.list(element, context, flow);
      case 'blockquote': {
        const content = this.blocks(children, context);
        return content.length > 0 ? flow.block({ type: 'blockquote', content }) : undefined;
      }
      case 'pre': {
        const text = textOf(element).replace(/^\n|\n$/g, '');
        if (text.trim() === '') return undefined;
        return flow.block({ type: 'codeBlock', attrs: { language: null }, content: [{ type: 'text', text }] });
      }
      case 'table':
        return this.table(element, context, flow);
      case 'p':
        flow.end('line', {});
        this.walk(children, context, flow);
        return flow.end('paragraph', layout);
      case 'li':
      case 'div':
      default:
        if (!LINES.has(name) && name !== 'li') return this.walk(children, context, flow);
        flow.end('line', {});
        if (isEmptyLine(element)) return flow.gap();
        this.walk(children, context, flow);
        return flow.end('line', layout);
    }
  }

  private list(element: Element, context: Context, flow: Flow): void {
    const items: { type: 'listItem'; attrs: { when: [] }; content: Block[] }[] = [];
    for (const child of element.children) {
      if (!isElement(child) || isLeftOut(child)) continue;
      const content = this.blocks(child.name === 'li' ? child.children : [child], this.inside(child, context));
      const [only] = content;
      const nested = only?.type === 'bulletList' || only?.type === 'orderedList';
      // A list right inside a list is what its last item goes on with.
      if (child.name !== 'li' && nested && items.length > 0) items.at(-1)?.content.push(...content);
      else if (content.length > 0) items.push({ type: 'listItem', attrs: { when: [] }, content });
    }
    if (items.length === 0) return;
    const start = Number(element.attribs.start ?? 1);
    flow.block(
      element.name === 'ol'
        ? { type: 'orderedList', attrs: { start: Number.isInteger(start) && start >= 0 ? start : 1 }, content: items }
        : { type: 'bulletList', content: items },
    );
  }

  private table(element: Element, context: Context, flow: Flow): void {
    if (isLayout(element)) {
      flow.end('line', {});
      // What is put in the middle of the page is the table, not what stands in it.
      this.walk(element.children, { ...context, align: null }, flow);
      return flow.end('line', {});
    }
    const table = readTable(element, (cell) =>
      this.inline(cell.children, this.inside(cell, { ...context, align: null })),
    );
    if (table) flow.block(table);
  }

  private image(element: Element, context: Context, flow: Flow): void {
    if (isSpacer(element)) return;
    const given = (element.attribs.src ?? '').trim();
    const src = /^https?:/i.test(given) && isImageSource(given) ? given : this.options.image?.(given);
    if (src === undefined) {
      this.imagesLeftOut += 1;
      return;
    }
    const alt = (element.attribs.alt ?? '').replace(/\s+/g, ' ').trim().slice(0, 1000);
    const width = pixels(element.attribs.width ?? styleOf(element).get('width'));
    flow.push(
      {
        type: 'image',
        attrs: {
          src,
          alt: alt === '' ? [] : [{ type: 'text', text: alt }],
          title: '',
          ...(width && width <= 4000 ? { width } : {}),
        },
      },
      context.marks,
    );
  }
}

/** A line that mail programs leave empty: nothing in it but a break. */
const isEmptyLine = ({ children }: Element): boolean =>
  children.length > 0 &&
  textOfAll(children)
    .replace(/\u00A0/g, '')
    .trim() === '' &&
  children.every((child) => isText(child) || (isElement(child) && (child.name === 'br' || isWrapperOfBreak(child))));
const isWrapperOfBreak = (element: Element): boolean =>
  ['span', 'font', 'b', 'i', 'u', 'strong', 'em', 'o:p'].includes(element.name) &&
  (element.children.length === 0 || isEmptyLine(element));

const without = (marks: readonly Mark[], type: Mark['type']): readonly Mark[] =>
  marks.filter((mark) => mark.type !== type);
const unbold = (node: Inline): Inline => {
  const { marks = [], ...rest } = node;
  const kept = without(marks, 'bold');
  return (kept.length > 0 ? { ...rest, marks: kept } : rest) as Inline;
};
const withMark = (marks: readonly Mark[], mark: Mark): readonly Mark[] => [...without(marks, mark.type), mark];

/** Elements in a line, whose background lies under words and not under a box. */
const RUNS = new Set('span font mark b strong i em u ins s strike del a small big sub sup abbr code'.split(' '));

/** The colour that a run of words is highlighted with, as CSS writes it; undefined where none is said. */
function highlightOf(element: Element): string | undefined {
  if (!RUNS.has(element.name)) return undefined;
  const style = styleOf(element);
  const ground = style.get('background-color') ?? style.get('background') ?? style.get('mso-highlight');
  return ground ?? (element.name === 'mark' ? PEN : undefined);
}

/** The marks and the alignment of what stands in an element. */
function inside(element: Element, context: Context): Context {
  let { marks, align } = context;
  const mark = MARKS[element.name];
  if (mark) marks = withMark(marks, mark);
  if (element.name === 'a') {
    const href = (element.attribs.href ?? '').trim();
    if (href.length <= 4000 && safeUrl(href)) marks = withMark(marks, { type: 'link', attrs: { href } });
  }
  const style = styleOf(element);
  const weight = style.get('font-weight');
  if (weight !== undefined)
    marks = /^(?:bold|bolder|[6-9]00)$/.test(weight) ? withMark(marks, { type: 'bold' }) : without(marks, 'bold');
  const slant = style.get('font-style');
  if (slant !== undefined)
    marks = slant === 'italic' || slant === 'oblique' ? withMark(marks, { type: 'italic' }) : without(marks, 'italic');
  const line = `${style.get('text-decoration') ?? ''} ${style.get('text-decoration-line') ?? ''}`;
  if (line.includes('line-through')) marks = withMark(marks, { type: 'strike' });
  // Links are underlined by themselves.
  if (line.includes('underline') && !marks.some(({ type }) => type === 'link'))
    marks = withMark(marks, { type: 'underline' });
  const side = element.name === 'center' ? 'center' : (style.get('text-align') ?? element.attribs.align?.toLowerCase());
  if (side === 'center' || side === 'right') align = side;
  else if (side === 'left' || side === 'start' || side === 'justify') align = null;
  const space = style.get('white-space');
  const pre = space === undefined ? context.pre : /^(?:pre|pre-wrap|pre-line|break-spaces)$/.test(space);
  return { marks, align, pre };
}

/** All text of nodes, hidden parts left out. */
function textOfAll(nodes: readonly ChildNode[]): string {
  return nodes
    .map((node) => (isText(node) ? node.data : isElement(node) && !isLeftOut(node) ? textOf(node) : ''))
    .join('');
}
const textOf = (element: Element): string => (element.name === 'br' ? '\n' : textOfAll(element.children));
