/** Puts derived lines together to blocks: items to lists, rows to tables, lines with the same condition to passages. */
import { condition, type Condition } from '../template/condition.js';
import type { Block, Cell, Inline, ListItem, Row } from '../template/document.js';
import { CELL_BORDER, contentOf, type LinePart } from './inline.js';

/** A line of the template. */
export interface TemplateLine {
  /** The form of the unit it was derived from. */
  readonly shape: string;
  readonly parts: readonly LinePart[];
  /** A block that was compared as a whole. */
  readonly block?: Block;
  /** The mails that have it. */
  readonly mails: ReadonlySet<number>;
  /** The text it has in one mail, for labels. */
  readonly text: string;
  /** The key of the list that it repeats over. */
  readonly list?: string;
  /** When it is there; always if none. */
  when?: Condition;
}

/** The blocks of the body. */
export function blocksOf(lines: readonly TemplateLine[]): Block[] {
  const blocks: Block[] = [];
  let run = 0;
  for (const line of lines) {
    const when = line.when ? [line.when] : [];
    if (line.list !== undefined) when.push(condition(line.list, [], false, (run += 1)));
    const merged = mergedInto(blocks.at(-1), blockOf(line, when));
    if (merged) blocks[blocks.length - 1] = merged;
    else blocks.push(blockOf(line, when));
  }
  return blocks;
}

/** The two as one block, if they belong together. */
function mergedInto(last: Block | undefined, next: Block): Block | undefined {
  if (last?.type === 'bulletList' && next.type === 'bulletList')
    return { ...last, content: [...last.content, ...next.content] };
  if (last?.type === 'orderedList' && next.type === 'orderedList')
    return { ...last, content: [...last.content, ...next.content] };
  if (last?.type === 'table' && next.type === 'table' && continues(last.content, next.content))
    return { ...last, content: [...last.content, ...next.content] };
  if (last?.type === 'passage' && next.type === 'passage' && JSON.stringify(last.attrs) === JSON.stringify(next.attrs))
    return { ...last, content: [...last.content, ...next.content] };
  return undefined;
}
/** A header row begins another table, and so does a row of another width. */
const continues = ([first]: readonly Row[], [row]: readonly Row[]): boolean =>
  first?.content.length === row?.content.length && row?.content[0]?.type === 'tableCell';

/** One line as a block of its own. */
function blockOf({ shape, block, parts }: TemplateLine, when: readonly Condition[]): Block {
  const content = contentOf(parts);
  const [kind] = shape.split(' ');
  if (kind === 'row' || kind === 'head')
    return { type: 'table', content: [{ type: 'tableRow', attrs: { when }, content: cellsOf(shape, content) }] };
  const item: ListItem = { type: 'listItem', attrs: { when }, content: [{ type: 'paragraph', content }] };
  if (kind === 'bullet') return { type: 'bulletList', content: [item] };
  if (kind === 'number') return { type: 'orderedList', attrs: { start: 1 }, content: [item] };
  const plain = block ?? textBlock(shape, content);
  const [only] = when;
  return only ? { type: 'passage', attrs: only, content: [plain] } : plain;
}
function textBlock(shape: string, content: readonly Inline[]): Block {
  const level = /^heading ([123])$/.exec(shape)?.[1];
  if (level) return { type: 'heading', attrs: { level: Number(level) as 1 | 2 | 3 }, content };
  const attrs = JSON.parse(shape.replace(/^paragraph/, '')) as object;
  return { type: 'paragraph', ...(Object.keys(attrs).length > 0 ? { attrs } : {}), content };
}
function cellsOf(shape: string, line: readonly Inline[]): Cell[] {
  const [kind, , aligned = ''] = shape.split(' ');
  const cells: Inline[][] = [[]];
  for (const node of line) {
    const texts = node.type === 'text' ? node.text.split(CELL_BORDER) : undefined;
    if (!texts) cells.at(-1)?.push(node);
    for (const [at, text] of (texts ?? []).entries()) {
      if (at > 0) cells.push([]);
      if (text !== '') cells.at(-1)?.push({ ...node, type: 'text', text });
    }
  }
  return cells.map((content, at) => ({
    type: kind === 'head' ? 'tableHeader' : 'tableCell',
    attrs: {
      align: ((aligned.split(',')[at] ?? '') || null) as Cell['attrs']['align'],
      ...{ colspan: 1, rowspan: 1, colwidth: null },
    },
    content: [{ type: 'paragraph', ...(content.length > 0 ? { content } : {}) }],
  }));
}
