/** Writes a body as Markdown, in the one form that reads back to the same document. */
import { closingTag, openingTag, sameCondition, type Condition } from '../../template/condition.js';
import type { Block, Cell, Inline, List, ListItem, Mark, Row, Table } from '../../template/document.js';
import { normaliseInline } from '../../template/normalise.js';
import { Reading } from './inline.js';
import { tagOf, writeRuns } from './line.js';
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
      return writeParagraph(block.content);
    case 'heading':
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
function writeParagraph(content: readonly Inline[] = []): string {
  const nodes = normaliseInline(content);
  if (nodes.length === 0) return '<p></p>';
  const text = writeInline(nodes, 'marks');
  const back = readBody(text, new Reading(new Set()));
  const [only] = back;
  return back.length === 1 && only?.type === 'paragraph' && sameInline(normaliseInline(only.content), nodes)
    ? text
    : writeInline(nodes, 'html');
}

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

function writeCode(text: string, language: string | null): string {
  const longest = Math.max(2, ...[...text.matchAll(/^\s*(`+)/gm)].map((run) => (run[1] as string).length));
  const fence = '`'.repeat(longest + 1);
  return `${fence}${language ?? ''}\n${text}${text ? '\n' : ''}${fence}`;
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

function writeTable(table: Table): string {
  const [first, ...others] = table.content as readonly [Row, ...Row[]];
  const hasHead = first.content.every((cell) => cell.type === 'tableHeader');
  const line = (row: Row): string => `| ${row.content.map(writeCell).join(' | ')} |`;
  const rule = `| ${first.content.map((cell) => ALIGN[cell.attrs.align ?? 'none']).join(' | ')} |`;
  const head = hasHead ? line(first) : `|${'  |'.repeat(first.content.length)}`;
  const rows = hasHead ? others : [first, ...others];
  return [head, rule, ...(rows.length > 0 ? [governed(rows, line)] : [])].join('\n');
}

const ALIGN = { none: '---', left: ':--', center: ':-:', right: '--:' } as const;
const writeCell = (cell: Cell): string => oneLine(cell.content[0].content).replace(/\|/g, '\\|');
