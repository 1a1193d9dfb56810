/** Writes a body as Markdown, in the one form that reads back to the same document. */
import { closingTag, openingTag, sameCondition, type Condition } from '../../template/condition.js';
import type { Block, Cell, Inline, Layout, List, ListItem, Mark, Row, Table } from '../../template/document.js';
import { beginsAt, gridOf } from '../../template/grid.js';
import { normaliseInline } from '../../template/normalise.js';
import { Reading } from './inline.js';
import { buttonTag, markTag, panelTag, writeTag } from './form.js';
import { tagOf, writeLine, writeRuns } from './line.js';
import { readBody, readInline } from './read-body.js';
import { commentTag, inclusionTag } from './tags.js';

/** How form is written: as Markdown's marks, or, where those would not read back, as inline HTML. */
type Style = 'marks' | 'html';

/** Writes blocks, separated by blank lines, without a newline at the end. */
export function writeBody(blocks: readonly Block[]): string {
  const parts: string[] = [];
  let previous: Block | undefined;
  let otherMarker = false;
  for (const block of blocks) {
    // Two lists of one kind side by side differ in their markers, or they would be one.
    otherMarker = previous !== undefined && isList(previous) && previous.type === block.type ? !otherMarker : false;
    parts.push(writeBlock(block, otherMarker));
    previous = block;
  }
  return parts.join('\n\n');
}

const isList = (block: Block): block is List => block.type === 'bulletList' || block.type === 'orderedList';

function writeBlock(block: Block, otherMarker: boolean): string {
  switch (block.type) {
    case 'paragraph':
      return writeParagraph(block.content, block.attrs);
    case 'button': {
      const { href, align = null } = block.attrs;
      return `${buttonTag(href, align)}${oneLine(block.content)}</a>`;
    }
    case 'panel':
      return `${panelTag(block.attrs.colour)}\n${writeBody(block.content)}\n</div>`;
    case 'heading':
      if (hasLayout(block.attrs)) {
        const name = `h${block.attrs.level}`;
        return `${layoutTag(name, block.attrs)}${oneLine(block.content)}</${name}>`;
      }
      // Number signs at the end of a heading would be taken for its closing.
      return `${'#'.repeat(block.attrs.level)} ${oneLine(block.content).replace(/#(?=#*$)/g, '\\#')}`.trimEnd();
    case 'codeBlock':
      return writeCode(block.content?.map((node) => node.text).join('') ?? '', block.attrs.language);
    case 'horizontalRule':
      return '---';
    case 'blockquote':
      return prefix(writeBody(block.content), '> ', '> ').replace(/^> $/gm, '>');
    case 'bulletList':
    case 'orderedList':
      return writeList(block, otherMarker);
    case 'table':
      return writeTable(block);
    case 'passage':
      return `${openingTag(block.attrs)}\n${writeBody(block.content)}\n${closingTag(block.attrs)}`;
    case 'inclusion':
      return inclusionTag(block.attrs.name);
    case 'comment':
      return commentTag(block.attrs.text);
  }
}

/** Tries Markdown's marks, and takes HTML where the result would not read back the same. */
function writeParagraph(content: readonly Inline[] = [], layout: Layout = {}): string {
  const nodes = normaliseInline(content);
  const [open, close] = hasLayout(layout) ? [layoutTag('p', layout), '</p>'] : ['', ''];
  if (nodes.length === 0) return open === '' ? '<p></p>' : open + close;
  const text = open + writeInline(nodes, 'marks') + close;
  const back = readBody(text, new Reading(new Set()));
  const [only] = back;
  return back.length === 1 && only?.type === 'paragraph' && sameInline(normaliseInline(only.content), nodes)
    ? text
    : open + writeInline(nodes, 'html') + close;
}

const hasLayout = ({ align, indent }: Layout): boolean => Boolean(align) || Boolean(indent);
const layoutTag = (name: string, { align, indent }: Layout): string =>
  writeTag(name, { align, 'data-indent': indent || undefined });

/** Inline content that may not break its line: headings, cells, wordings. */
function oneLine(content: readonly Inline[] = []): string {
  const nodes = normaliseInline(content);
  const text = writeInline(nodes, 'marks', false);
  return sameInline(readInline(text, new Reading(new Set())), nodes) ? text : writeInline(nodes, 'html', false);
}

/** The inline Markdown of an option's wording. */
export const writeWording = (content: readonly Inline[] = []): string => oneLine(content);

const clean = (nodes: readonly Inline[]): unknown =>
  nodes.map((node) => ({
    ...node,
    marks: node.marks?.map((mark) => (mark.type === 'phrase' ? { ...mark, attrs: { ...mark.attrs, run: 0 } } : mark)),
  }));
const sameInline = (a: readonly Inline[], b: readonly Inline[]): boolean =>
  JSON.stringify(clean(a)) === JSON.stringify(clean(b));

const MARKS: Record<Style, Record<string, readonly [open: string, close: string]>> = {
  marks: { bold: ['**', '**'], italic: ['*', '*'], strike: ['~~', '~~'], underline: ['<u>', '</u>'] },
  html: { bold: ['<b>', '</b>'], italic: ['<i>', '</i>'], strike: ['<s>', '</s>'], underline: ['<u>', '</u>'] },
};

function writeInline(nodes: readonly Inline[], style: Style, mayBreak = true): string {
  const hard = style === 'marks' && mayBreak ? '\\\n' : '<br>';
  const text = writeRuns(
    nodes,
    (mark) => mark.type !== 'code',
    (node, index) => leaf(node, nodes[index - 1]),
    {
      open: (mark) => delimiter(mark, style, true),
      close: (mark) => delimiter(mark, style, false),
    },
  );
  return text
    .split(BREAK)
    .map(mayBreak ? lineStart : lineEdges)
    .join(hard);

  function leaf(node: Inline, before: Inline | undefined): string {
    switch (node.type) {
      case 'text':
        if (node.marks?.some((mark) => mark.type === 'code')) return codeSpan(node.text);
        return escapeText(node.text, before);
      case 'hardBreak':
        return BREAK;
      case 'image':
        if (node.attrs.width) {
          const { src, alt, title, width } = node.attrs;
          return writeTag('img', { src, alt: writeLine(alt), title: title || undefined, width });
        }
        return `![${label(node.attrs.alt)}](${target(node.attrs.src)}${node.attrs.title ? ` "${node.attrs.title.replace(/["\\]/g, '\\$&')}"` : ''})`;
      default:
        return tagOf(node);
    }
  }
}

/** Stands for a line break until the form of breaks is known. A private-use character never left in the output. */
const BREAK = '\uE000';

function delimiter(mark: Mark, style: Style, open: boolean): string {
  if (mark.type === 'phrase') return open ? openingTag(mark.attrs) : closingTag(mark.attrs);
  if (mark.type === 'link') return open ? '[' : `](${target(mark.attrs.href)})`;
  const tag = markTag(mark);
  if (tag) return open ? tag.open : `</${tag.end}>`;
  return MARKS[style][mark.type]?.[open ? 0 : 1] ?? '';
}

/** An image's alternative text, as the label it stands in. */
const label = (alt: readonly Inline[]): string =>
  writeRuns(
    alt,
    (mark) => mark.type === 'phrase',
    (node, index) => (node.type === 'text' ? escapeText(node.text, alt[index - 1]) : tagOf(node)),
    {
      open: (mark) => delimiter(mark, 'marks', true),
      close: (mark) => delimiter(mark, 'marks', false),
    },
  );

function target(href: string): string {
  if (href !== '' && !/[\s<>()\\]/.test(href)) return href;
  return `<${href.replace(/[<>\\]/g, '\\$&').replace(/\n/g, ' ')}>`;
}

function codeSpan(text: string): string {
  const longest = Math.max(0, ...[...text.matchAll(/`+/g)].map((run) => run[0].length));
  const fence = '`'.repeat(longest + 1);
  // CommonMark trims one space from both ends, unless there are only spaces; a tab is not a space.
  const pad =
    text.startsWith('`') || text.endsWith('`') || (text.startsWith(' ') && text.endsWith(' ') && /[^ ]/.test(text))
      ? ' '
      : '';
  return fence + pad + text + pad + fence;
}

/** Escapes what would be read as form. */
function escapeText(text: string, before?: Inline): string {
  let out = text
    .replace(/[\\`*[\]]/g, '\\$&')
    .replace(/_/g, (bar, at: number) =>
      /[\p{L}\p{N}]/u.test(text[at - 1] ?? '') && /[\p{L}\p{N}]/u.test(text[at + 1] ?? '') ? bar : `\\${bar}`,
    )
    .replace(/<(?=[a-z/!?])/gi, '\\<')
    .replace(/~(?=~)|(?<=~)~/g, '\\~')
    .replace(/&(?=#?\w+;)/g, '\\&')
    .replace(/\{\{+/g, (run) => '\\{{'.repeat(run.length >> 1) + (run.length % 2 ? '&#123;' : ''))
    .replace(/\u00A0/g, '&nbsp;')
    .replace(
      /[\t\u000B\f\u0085\u1680\u2000-\u200A\u2028\u2029\u202F\u205F\u3000\uFEFF]/g,
      (space) => `&#${space.charCodeAt(0)};`,
    )
    .replace(/\n/g, ' ');
  if (out.endsWith('{')) out = `${out.slice(0, -1)}&#123;`;
  if (out.endsWith('!')) out = `${out.slice(0, -1)}\\!`;
  if (before?.type === 'text' && before.text.endsWith('~') && out.startsWith('~')) out = `\\${out}`;
  return out;
}

/** Escapes what at the beginning of a line would begin a block. */
function lineStart(line: string): string {
  return line
    .replace(/^(#{1,6}(?=\s|$)|[+>=|:-])/, '\\$1')
    .replace(/^(\d{1,9})([.)])(?=\s|$)/, '$1\\$2')
    .replace(EDGES, entities);
}

const EDGES = /^ +| +$/g;
const entities = (spaces: string): string => '&#32;'.repeat(spaces.length);
/** Spaces at the ends of a line would be trimmed. */
const lineEdges = (line: string): string => line.replace(EDGES, entities);

/** A fence of tildes where what stands behind it has backticks, which a fence of those may not have. */
function writeCode(text: string, language: string | null): string {
  const [sign, runs] = language?.includes('`') ? ['~', /^\s*(~+)/gm] : ['`', /^\s*(`+)/gm];
  const longest = Math.max(2, ...[...text.matchAll(runs)].map((run) => (run[1] as string).length));
  const fence = sign.repeat(longest + 1);
  const apart = language?.startsWith(sign) ? ' ' : '';
  return `${fence}${apart}${language ?? ''}\n${text}${text ? '\n' : ''}${fence}`;
}

function prefix(text: string, first: string, rest: string): string {
  return text
    .split('\n')
    .map((line, i) => (i === 0 ? first : line === '' && rest.trim() === '' ? '' : rest) + line)
    .join('\n');
}

/** Writes children with tag lines around the stretches that conditions govern. */
function governed<N extends { readonly attrs: { readonly when: readonly Condition[] } }>(
  children: readonly N[],
  write: (child: N, index: number) => string,
): string {
  const lines: string[] = [];
  const open: Condition[] = [];
  children.forEach((child, index) => {
    let shared = 0;
    while (
      shared < open.length &&
      shared < child.attrs.when.length &&
      sameCondition(open[shared] as Condition, child.attrs.when[shared] as Condition)
    )
      shared += 1;
    while (open.length > shared) lines.push(closingTag(open.pop() as Condition));
    for (const governing of child.attrs.when.slice(shared)) {
      lines.push(openingTag(governing));
      open.push(governing);
    }
    lines.push(write(child, index));
  });
  while (open.length > 0) lines.push(closingTag(open.pop() as Condition));
  return lines.join('\n');
}

function writeList(list: List, otherMarker: boolean): string {
  return governed<ListItem>(list.content, (item, index) => {
    const marker =
      list.type === 'bulletList'
        ? otherMarker
          ? '* '
          : '- '
        : `${list.attrs.start + index}${otherMarker ? ')' : '.'} `;
    // Behind a marker, a rule of dashes would make a rule of the whole line.
    const text = writeBody(item.content).replace(/^---(?=\n|$)/, '___');
    return prefix(text, marker, ' '.repeat(marker.length));
  });
}

/** Places that a merged cell covers are written as empty cells. */
function writeTable(table: Table): string {
  const [first, ...others] = table.content as readonly [Row, ...Row[]];
  const hasHead = first.content.every((cell) => cell.type === 'tableHeader');
  const { width, places } = gridOf(table.content);
  const columns = Array.from({ length: width }, (_, column) => column);
  const line = (row: Row): string => {
    const at = table.content.indexOf(row);
    const cells = columns.map((column) => {
      const placed = places[at]?.[column];
      return beginsAt(placed, at, column) ? writeCell(placed.cell) : '';
    });
    return `| ${cells.join(' | ')} |`;
  };
  const rule = `| ${columns.map((column) => ALIGN[places[0]?.[column]?.cell.attrs.align ?? 'none']).join(' | ')} |`;
  const head = hasHead ? line(first) : `|${'  |'.repeat(width)}`;
  const rows = hasHead ? others : [first, ...others];
  return [head, rule, ...(rows.length > 0 ? [governed(rows, line)] : [])].join('\n');
}

const ALIGN = { none: '---', left: ':--', center: ':-:', right: '--:' } as const;
function writeCell({ attrs: { colspan, rowspan }, content: [paragraph] }: Cell): string {
  const spans = { colspan: colspan > 1 ? colspan : undefined, rowspan: rowspan > 1 ? rowspan : undefined };
  const tag = colspan > 1 || rowspan > 1 ? writeTag('td', spans) : '';
  return (tag + oneLine(paragraph.content)).replace(/\|/g, '\\|');
}
