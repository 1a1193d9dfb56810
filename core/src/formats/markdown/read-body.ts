/** Reads a body: Markdown tokens and tags become blocks of the document. */
import { advice, error } from '../../findings/finding.js';
import { conditionName, type Condition } from '../../template/condition.js';
import type { Align, Block, Cell, Inline, List, ListItem, Mark, Row } from '../../template/document.js';
import { governItems, LINE, normaliseInline, normaliseLine } from '../../template/normalise.js';
import { InlineBuilder, place, type Reading } from './inline.js';
import type { Form } from './form.js';
import { readLine } from './line.js';
import {
  MAX_NESTING,
  syntax,
  type FormMeta,
  type PanelMeta,
  type SyntaxEnv,
  type TagMeta,
  type Token,
} from './syntax.js';
import type { Tag } from './tags.js';

/** A container's children before its tag lines are paired. */
type Child<N> =
  { readonly node: N } | { readonly tag: Tag; readonly line: number } | ({ readonly line: number } & PanelMeta);

const TOKEN_MARKS: Record<string, Mark['type']> = { strong: 'bold', em: 'italic', s: 'strike', link: 'link' };

/**
 * Reads a body.
 * @param offset how many lines of the file stand before it
 */
export function readBody(source: string, reading: Reading, offset = 0): Block[] {
  const env: SyntaxEnv = { html: [], panels: 0 };
  const tokens = syntax().parse(source, env);
  if (tokens.some((token) => token.level >= MAX_NESTING - 2))
    reading.findings.push(error({ code: 'bad-file', why: 'too-nested' }));
  const lines = source.split('\n');
  const blocks = new BodyReader(tokens, reading, offset, lines).blocks();
  for (const html of new Set(env.html)) {
    const at = lines.findIndex((line) => line.includes(html.split('\n')[0] ?? html));
    reading.findings.push(
      advice({ code: 'unsupported-html', why: 'html', html }, place(at < 0 ? undefined : at + 1 + offset)),
    );
  }
  return blocks.length > 0 ? blocks : [{ type: 'paragraph' }];
}

/** Reads the inline Markdown of one line, such as an option's wording. */
export function readInline(source: string, reading: Reading, line?: number): Inline[] {
  const env: SyntaxEnv = { html: [], panels: 0 };
  const tokens = syntax().parseInline(source, env);
  for (const html of new Set(env.html))
    reading.findings.push(advice({ code: 'unsupported-html', why: 'html', html }, place(line)));
  return normaliseInline(tokens.flatMap((token) => inlineOf(token.children ?? [], reading, line)));
}

function inlineOf(tokens: readonly Token[], reading: Reading, line: number | undefined): Inline[] {
  const builder = new InlineBuilder(reading);
  for (const token of tokens) {
    const at = line === undefined ? undefined : line + ((token.meta as { line?: number } | null)?.line ?? 0);
    switch (token.type) {
      case 'text':
      case 'text_special':
        builder.text(token.content);
        break;
      case 'softbreak':
        builder.text(' ');
        break;
      case 'hardbreak':
        builder.push({ type: 'hardBreak' });
        break;
      case 'code_inline':
        builder.text(token.content, [{ type: 'code' }]);
        break;
      case 'link_open':
        builder.openMark({ type: 'link', attrs: { href: String(token.attrGet('href') ?? '') } });
        if (token.attrGet('title'))
          reading.findings.push(
            advice({ code: 'unsupported-html', why: 'link-title', title: String(token.attrGet('title')) }, place(at)),
          );
        break;
      case 'strong_open':
      case 'em_open':
      case 's_open':
        builder.openMark({ type: TOKEN_MARKS[token.type.slice(0, -5)] } as Mark);
        break;
      case 'link_close':
      case 'strong_close':
      case 'em_close':
      case 's_close':
        builder.closeMark(TOKEN_MARKS[token.type.slice(0, -6)] as Mark['type']);
        break;
      case 'image': {
        const alt = normaliseLine(inlineOf(token.children ?? [], reading, line));
        builder.push({
          type: 'image',
          attrs: { src: String(token.attrGet('src') ?? ''), alt, title: String(token.attrGet('title') ?? '') },
        });
        break;
      }
      case 'tag': {
        const meta = token.meta as unknown as TagMeta;
        builder.tag(meta.tag, meta.source, at);
        break;
      }
      case 'html_form':
        form(builder, token.meta as unknown as FormMeta, reading, at);
        break;
      default:
        builder.text(token.content);
    }
  }
  return builder.finish();
}

function form(builder: InlineBuilder, { form, source }: FormMeta, reading: Reading, line: number | undefined): void {
  switch (form.kind) {
    case 'break':
      return builder.push({ type: 'hardBreak' });
    case 'mark':
      return builder.openMark(form.mark, line, form.end);
    case 'image': {
      const { src, title, width } = form;
      return builder.push({ type: 'image', attrs: { src, alt: readLine(form.alt, reading, line), title, width } });
    }
    case 'end':
      if (builder.closeTag(form.name)) return;
  }
  // A form that stands where it cannot be one is text, as all other HTML.
  reading.findings.push(advice({ code: 'unsupported-html', why: 'html', html: source }, place(line)));
  builder.text(source);
}

/** The form around the whole of a paragraph, and what stands in it. */
function around(tokens: readonly Token[]): { readonly form: Form; readonly inner: readonly Token[] } | undefined {
  const formOf = (token: Token | undefined): Form | undefined =>
    token?.type === 'html_form' ? (token.meta as unknown as FormMeta).form : undefined;
  const form = formOf(tokens[0]);
  if (form?.kind !== 'block' && form?.kind !== 'button') return undefined;
  const end = formOf(tokens.at(-1));
  const inner = tokens.slice(1, -1);
  const closes = (token: Token): boolean => {
    const each = formOf(token);
    return each?.kind === 'end' && each.name === form.end;
  };
  return end?.kind === 'end' && end.name === form.end && !inner.some(closes) ? { form, inner } : undefined;
}

/** Which columns of which rows cells that span have covered, and the row that is read. */
interface Covered {
  readonly rows: Map<number, Set<number>>;
  at: number;
}

function cover({ rows }: Covered, row: number, column: number): void {
  const columns = rows.get(row) ?? new Set();
  columns.add(column);
  rows.set(row, columns);
}

class BodyReader {
  private at = 0;
  /** The lines a list's items stand on, counted from 0 in the body. */
  private readonly spans = new WeakMap<Block, { readonly first: number; readonly last: number }>();

  constructor(
    private readonly tokens: readonly Token[],
    private readonly reading: Reading,
    private readonly offset: number,
    private readonly lines: readonly string[],
  ) {}

  blocks(until?: string): Block[] {
    const children: Child<Block>[] = [];
    for (; this.at < this.tokens.length; this.at += 1) {
      const token = this.tokens[this.at] as Token;
      if (token.type === until) break;
      const child = this.child(token);
      if (child) children.push(child);
    }
    return this.joinLists(
      this.pair(
        children,
        (governing, content) => this.passage(governing, content),
        (colour, content) => ({ type: 'panel', attrs: { colour }, content: orEmpty(this.joinLists(content)) }),
      ),
    );
  }

  private lineOf(token: Token): number {
    return (token.map?.[0] ?? 0) + 1 + this.offset;
  }

  private child(token: Token): Child<Block> | undefined {
    const line = this.lineOf(token);
    const block = (node: Block): Child<Block> => {
      const lined: Block = Object.assign({ ...node }, { [LINE]: line });
      if (isList(lined) && token.map) this.spans.set(lined, { first: token.map[0], last: this.lastFilled(token.map) });
      return { node: lined };
    };
    switch (token.type) {
      case 'tag_line': {
        const { tag } = token.meta as unknown as TagMeta;
        if (tag.kind === 'inclusion') return block({ type: 'inclusion', attrs: { name: tag.name } });
        if (tag.kind === 'comment') return block({ type: 'comment', attrs: { text: tag.text } });
        return { tag, line };
      }
      case 'panel_line': {
        const { panel, colour } = token.meta as unknown as PanelMeta;
        return { panel, colour, line };
      }
      case 'paragraph_open':
        return block(this.paragraph());
      case 'empty_paragraph':
        return block({ type: 'paragraph' });
      case 'heading_open': {
        const level = Math.min(3, Number(token.tag.slice(1))) as 1 | 2 | 3;
        return block({ type: 'heading', attrs: { level }, ...this.inlineUntil('heading_close') });
      }
      case 'fence':
      case 'code_block': {
        const text = token.content.replace(/\n$/, '');
        const language = token.info?.trim() || null;
        return block({
          type: 'codeBlock',
          attrs: { language },
          ...(text ? { content: [{ type: 'text', text }] } : {}),
        });
      }
      case 'hr':
        return block({ type: 'horizontalRule' });
      case 'blockquote_open':
        this.at += 1;
        return block({ type: 'blockquote', content: orEmpty(this.blocks('blockquote_close')) });
      case 'bullet_list_open':
        return block({ type: 'bulletList', content: this.items('bullet_list_close') });
      case 'ordered_list_open':
        return block({
          type: 'orderedList',
          attrs: { start: Number(token.attrGet('start') ?? 1) },
          content: this.items('ordered_list_close'),
        });
      case 'table_open':
        return block({ type: 'table', content: this.rows((token.meta as { align: Align[] }).align, line) });
      default:
        return undefined;
    }
  }

  /** A paragraph; or the heading or button that its one form makes of it. */
  private paragraph(): Block {
    const inline = this.tokens[this.at + 1];
    const whole = inline?.type === 'inline' ? around(inline.children ?? []) : undefined;
    if (!inline || !whole) return { type: 'paragraph', ...this.inlineUntil('paragraph_close') };
    this.at += 2;
    const nodes = inlineOf(whole.inner, this.reading, this.lineOf(inline));
    const content = nodes.length > 0 ? { content: nodes } : {};
    const { form } = whole;
    if (form.kind === 'button') {
      const { href, align } = form;
      return { type: 'button', attrs: { href, align }, ...content };
    }
    const { level, layout } = form as Extract<Form, { kind: 'block' }>;
    return level === 0
      ? { type: 'paragraph', attrs: layout, ...content }
      : { type: 'heading', attrs: { level, ...layout }, ...content };
  }

  private inlineUntil(close: string): { content?: Inline[] } {
    const content: Inline[] = [];
    for (; this.tokens[this.at]?.type !== close; this.at += 1) {
      const token = this.tokens[this.at] as Token;
      if (token.type === 'inline') content.push(...inlineOf(token.children ?? [], this.reading, this.lineOf(token)));
    }
    return content.length > 0 ? { content } : {};
  }

  private items(close: string): ListItem[] {
    const items: ListItem[] = [];
    for (this.at += 1; this.tokens[this.at]?.type !== close; this.at += 1) {
      const token = this.tokens[this.at] as Token;
      if (token.type !== 'list_item_open') continue;
      this.at += 1;
      items.push({
        type: 'listItem',
        attrs: { when: [] },
        content: orEmpty(this.blocks('list_item_close')),
        [LINE]: this.lineOf(token),
      } as ListItem);
    }
    return items;
  }

  private rows(align: readonly Align[], tableLine: number): Row[] {
    const children: Child<Row>[] = [];
    let notes: Inline[] = [];
    const covered: Covered = { rows: new Map(), at: 0 };
    for (this.at += 1; this.tokens[this.at]?.type !== 'table_close'; this.at += 1) {
      const token = this.tokens[this.at] as Token;
      const line = this.lineOf(token);
      if (token.type === 'tag_line') {
        const { tag } = token.meta as unknown as TagMeta;
        // A table has no place between rows for a note: it goes along with the next row.
        if (tag.kind === 'comment') notes.push({ type: 'inlineComment', attrs: { text: tag.text } });
        else children.push({ tag, line });
      } else if (token.type === 'tr_open') {
        children.push({ node: this.row(align, line, children.length === 0, notes, covered) });
        notes = [];
      }
    }
    const last = children.findLast((child) => 'node' in child);
    if (notes.length > 0 && last && 'node' in last) {
      const cell = last.node.content.at(-1)?.content[0] as { content?: Inline[] } | undefined;
      if (cell) cell.content = [...(cell.content ?? []), ...notes];
    }
    if (children.length === 0)
      this.reading.findings.push(error({ code: 'bad-file', why: 'no-rows' }, { line: tableLine }));
    return this.pair(children, (governing, content) =>
      content.map((row) => ({ ...row, attrs: { when: [governing, ...row.attrs.when] } })),
    );
  }

  private row(align: readonly Align[], line: number, head: boolean, notes: readonly Inline[], covered: Covered): Row {
    const given: (readonly Token[])[] = [];
    for (this.at += 1; this.tokens[this.at]?.type !== 'tr_close'; this.at += 1)
      given.push(this.tokens[this.at]?.children ?? []);
    if (given.slice(align.length).some((tokens) => tokens.length > 0))
      this.reading.findings.push(error({ code: 'bad-file', why: 'wide-row' }, { line }));
    const cells: Cell[] = [];
    align.forEach((side, column) => {
      const tokens = given[column] ?? [];
      if (covered.rows.get(covered.at)?.has(column)) {
        if (tokens.length > 0) this.reading.findings.push(error({ code: 'bad-file', why: 'spanned-cell' }, { line }));
        return;
      }
      const first = tokens[0]?.type === 'html_form' ? (tokens[0].meta as unknown as FormMeta).form : undefined;
      const spans = first?.kind === 'cell' ? first : undefined;
      const words = inlineOf(spans ? tokens.slice(1) : tokens, this.reading, line);
      const content = cells.length === 0 ? [...notes, ...words] : words;
      const colspan = Math.min(spans?.colspan ?? 1, align.length - column);
      const rowspan = spans?.rowspan ?? 1;
      for (let down = 0; down < rowspan; down += 1)
        for (let across = 0; across < colspan; across += 1) cover(covered, covered.at + down, column + across);
      cells.push({
        type: head ? 'tableHeader' : 'tableCell',
        attrs: { align: side, colspan, rowspan, colwidth: null },
        content: [{ type: 'paragraph', ...(content.length > 0 ? { content } : {}) }],
      });
    });
    covered.at += 1;
    return { type: 'tableRow', attrs: { when: [] }, content: cells, [LINE]: line } as Row;
  }

  /** Pairs opening and closing lines of one container; what has no partner is reported and governs nothing. */
  private pair<N>(
    children: readonly Child<N>[],
    govern: (governing: Condition, content: N[]) => N[],
    tint?: (colour: string, content: N[]) => N,
  ): N[] {
    type Open = { readonly governing?: Condition; readonly colour?: string; readonly line: number; content: N[] };
    const bottom: Open = { line: 0, content: [] };
    const stack: Open[] = [];
    const top = (): Open => stack.at(-1) ?? bottom;
    for (const child of children) {
      const { governing, colour, content } = top();
      if ('node' in child) content.push(child.node);
      else if ('panel' in child) {
        if (child.panel === 'open') stack.push({ colour: child.colour, line: child.line, content: [] });
        else if (colour === undefined || !tint) this.reading.unclosed('panel', child.line);
        else {
          stack.pop();
          top().content.push(tint(colour, content));
        }
      } else if (child.tag.kind === 'open')
        stack.push({ governing: this.reading.numbered(child.tag.condition), line: child.line, content: [] });
      else if (child.tag.kind === 'close') {
        if (governing && conditionName(governing) === child.tag.name) {
          stack.pop();
          top().content.push(...govern(governing, content));
        } else this.reading.unclosed(child.tag.name, child.line);
      }
    }
    for (let open = stack.pop(); open; open = stack.pop()) {
      this.reading.unclosed(open.governing ? conditionName(open.governing) : 'panel', open.line);
      top().content.push(...open.content);
    }
    return bottom.content;
  }

  private passage(governing: Condition, content: readonly Block[]): Block[] {
    const joined = this.joinLists(content);
    const [only] = joined;
    if (joined.length === 1 && only && isList(only)) return [this.keepSpan(governItems(only, governing), only, only)];
    return [{ type: 'passage', attrs: { ...governing, run: 0 }, content: orEmpty(joined) }];
  }

  /** Lists of one kind that only tag lines separate are one list; a blank line keeps them apart. */
  private joinLists(blocks: readonly Block[]): Block[] {
    const out: Block[] = [];
    for (const block of blocks) {
      const last = out.at(-1);
      if (last && isList(last) && isList(block) && last.type === block.type && this.onlyTagsBetween(last, block)) {
        out[out.length - 1] = this.keepSpan({ ...last, content: [...last.content, ...block.content] }, last, block);
      } else out.push(block);
    }
    return out;
  }

  private keepSpan(list: List, from: List, to: List): List {
    const first = this.spans.get(from)?.first;
    const last = this.spans.get(to)?.last;
    if (first !== undefined && last !== undefined) this.spans.set(list, { first, last });
    return list;
  }

  private onlyTagsBetween(a: List, b: List): boolean {
    const end = this.spans.get(a)?.last;
    const start = this.spans.get(b)?.first;
    if (end === undefined || start === undefined || start - end < 2) return false;
    for (let line = end + 1; line < start; line += 1) if (this.isBlank(line)) return false;
    return true;
  }

  private lastFilled([from, to]: readonly [number, number]): number {
    let last = to - 1;
    while (last > from && this.isBlank(last)) last -= 1;
    return last;
  }

  private isBlank(line: number): boolean {
    return /^[\s>]*$/.test(this.lines[line] ?? '');
  }
}

const isList = (block: Block): block is List => block.type === 'bulletList' || block.type === 'orderedList';
const orEmpty = (blocks: Block[]): Block[] => (blocks.length > 0 ? blocks : [{ type: 'paragraph' }]);
