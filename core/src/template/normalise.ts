/**
 * The one form a document has: equal neighbours joined, marks in order, conditions where they belong.
 * Reading a file and writing one both end here, so the two can be inverse.
 */
import { compareConditions, sameCondition, type Condition } from './condition.js';
import {
  isAddresses,
  type Addresses,
  type Block,
  type Cell,
  type Image,
  type Inline,
  type Layout,
  type Line,
  type ListItem,
  type Mark,
  type Part,
  type Row,
  type Table,
  type TextDocument,
} from './document.js';
import { beginsAt, gridOf, type Grid } from './grid.js';
import type { Step } from './steps.js';
import type { Variable } from './variable.js';

/**
 * The line a node was read from, counted from 1. Only readers put it there; it goes along through
 * normalising, is not part of the JSON, and is taken off by `takeLines`.
 */
export const LINE: unique symbol = Symbol('line');
type Lined = { [LINE]?: number };

/** Gives `to` the line of `from`, unless it has one. */
function withLine<N extends object>(from: object, to: N): N {
  const line = (from as Lined)[LINE];
  return line === undefined || (to as Lined)[LINE] !== undefined ? to : { ...to, [LINE]: line };
}

const MARK_ORDER = [
  'phrase',
  'language',
  'colour',
  'highlight',
  'link',
  'bold',
  'italic',
  'underline',
  'strike',
  'code',
];

/** Phrases first, by their tag's text; then form in a fixed order, of each kind the last that was given. */
export function sortMarks(marks: readonly Mark[]): Mark[] {
  const sorted = [...marks].sort((a, b) =>
    a.type === 'phrase' && b.type === 'phrase'
      ? compareConditions(a.attrs, b.attrs)
      : MARK_ORDER.indexOf(a.type) - MARK_ORDER.indexOf(b.type),
  );
  return sorted.filter((mark, i) => {
    const next = sorted[i + 1];
    return !next || (mark.type === 'phrase' ? !sameMark(mark, next) : mark.type !== next.type);
  });
}

/** Whether two marks are the same. */
export function sameMark(a: Mark, b: Mark): boolean {
  if (a.type === 'phrase' && b.type === 'phrase') return sameCondition(a.attrs, b.attrs);
  if (a.type === 'link' && b.type === 'link') return a.attrs.href === b.attrs.href;
  if (a.type === 'language' && b.type === 'language') return a.attrs.lang === b.attrs.lang;
  if ((a.type === 'colour' || a.type === 'highlight') && b.type === a.type) return a.attrs.name === b.attrs.name;
  return a.type === b.type;
}

/** Whether two lists of marks are the same, in the same order. */
export function sameMarks(a: readonly Mark[] = [], b: readonly Mark[] = []): boolean {
  return a.length === b.length && a.every((mark, i) => sameMark(mark, b[i] as Mark));
}

function withMarks<N extends Inline>(node: N, marks: readonly Mark[]): N {
  const { marks: _old, ...rest } = node;
  return (marks.length > 0 ? { ...rest, marks } : rest) as N;
}

/** Inline content with sorted marks, no empty text and no equal neighbours. `onlyForm` marks that a place allows may be limited. */
export function normaliseInline(
  nodes: readonly Inline[] = [],
  allowed: (mark: Mark) => boolean = () => true,
): Inline[] {
  const out: Inline[] = [];
  for (const node of nodes.flatMap(breaksApart)) {
    if (node.type === 'text' && node.text === '') continue;
    let marks = sortMarks((node.marks ?? []).filter(allowed));
    // Inside code a tag is literal, so nothing but text can be code.
    if (node.type !== 'text') marks = marks.filter((mark) => mark.type !== 'code');
    const last = out.at(-1);
    if (node.type === 'text' && last?.type === 'text' && sameMarks(last.marks, marks)) {
      out[out.length - 1] = withMarks({ ...last, text: last.text + node.text }, marks);
    } else {
      out.push(withMarks(node.type === 'image' ? normaliseImage(node) : node, marks));
    }
  }
  return out;
}

/** A line feed in words, as a code block has them before it becomes a paragraph, is a break. */
function breaksApart(node: Inline): readonly Inline[] {
  if (node.type !== 'text' || !node.text.includes('\n')) return [node];
  const marks = node.marks ? { marks: node.marks } : {};
  return node.text
    .split('\n')
    .flatMap((text, at): Inline[] => [
      ...(at > 0 ? [{ type: 'hardBreak' as const, ...marks }] : []),
      { ...node, text },
    ]);
}
/** Where a line is one, a line feed is a space. */
const inOneLine = (node: Inline): Inline =>
  node.type === 'text' && node.text.includes('\n') ? { ...node, text: node.text.replace(/\s*\n\s*/g, ' ') } : node;

function normaliseImage({ attrs: { width, ...attrs }, ...node }: Image): Image {
  return { ...node, attrs: { ...attrs, alt: normaliseLine(attrs.alt), ...(width ? { width } : {}) } };
}

/** A line of text: passages are its only form. */
export function normaliseLine(nodes: readonly Inline[] = []): Inline[] {
  const plain = nodes.filter(
    (node) => node.type === 'text' || node.type === 'placeholder' || node.type === 'inlineComment',
  );
  return normaliseInline(plain.map(inOneLine), (mark) => mark.type === 'phrase');
}

function content<N extends object>(nodes: readonly N[]): { content?: readonly N[] } {
  return nodes.length > 0 ? { content: nodes } : {};
}

/** A layout without what is as usual; undefined if nothing is left. */
function normalLayout({ align, indent }: Layout = {}): Layout | undefined {
  return align || indent ? { ...(align ? { align } : {}), ...(indent ? { indent } : {}) } : undefined;
}

/** Blocks in their normal form; an empty paragraph where there is none. */
export function normaliseBlocks(blocks: readonly Block[]): Block[] {
  const out = blocks.map(normaliseBlock);
  return out.length > 0 ? out : [{ type: 'paragraph' }];
}

function normaliseBlock(block: Block): Block {
  return withLine(block, normalBlock(block));
}

function normalBlock(block: Block): Block {
  switch (block.type) {
    case 'paragraph': {
      const inline = normaliseInline(block.content);
      const only = inline.length === 1 ? inline[0] : undefined;
      // A line that holds only such a tag is block structure.
      if (only?.type === 'inlineInclusion' && !only.marks)
        return { type: 'inclusion', attrs: { name: only.attrs.name } };
      if (only?.type === 'inlineComment' && !only.marks) return { type: 'comment', attrs: { text: only.attrs.text } };
      const layout = normalLayout(block.attrs);
      return { type: 'paragraph', ...(layout ? { attrs: layout } : {}), ...content(inline) };
    }
    case 'heading':
      return {
        type: 'heading',
        attrs: { level: block.attrs.level, ...normalLayout(block.attrs) },
        ...content(normaliseInline(block.content)),
      };
    case 'button': {
      const { href, align } = block.attrs;
      return { type: 'button', attrs: { href, ...(align ? { align } : {}) }, ...content(normaliseLine(block.content)) };
    }
    case 'panel':
      return { type: 'panel', attrs: block.attrs, content: normaliseBlocks(block.content) };
    case 'codeBlock': {
      const text = (block.content ?? []).map((node) => node.text).join('');
      return {
        type: 'codeBlock',
        attrs: { language: block.attrs.language || null },
        ...(text ? { content: [{ type: 'text', text }] } : {}),
      };
    }
    case 'blockquote':
      return { type: 'blockquote', content: normaliseBlocks(block.content) };
    case 'bulletList':
      return { type: 'bulletList', content: block.content.map(normaliseItem) };
    case 'orderedList':
      return { type: 'orderedList', attrs: block.attrs, content: block.content.map(normaliseItem) };
    case 'table':
      return normaliseTable(block);
    case 'passage': {
      const inner = normaliseBlocks(block.content);
      const [only] = inner;
      if (inner.length === 1 && (only?.type === 'bulletList' || only?.type === 'orderedList'))
        return governItems(only, block.attrs);
      return { type: 'passage', attrs: { ...block.attrs, run: 0 }, content: inner };
    }
    default:
      return block;
  }
}

/** A passage never holds nothing but one list: the condition belongs to the items. */
export function governItems<L extends Extract<Block, { type: 'bulletList' | 'orderedList' }>>(
  list: L,
  governing: Condition,
): L {
  const items = list.content.map((item): ListItem => ({ ...item, attrs: { when: [governing, ...item.attrs.when] } }));
  return { ...list, content: items };
}

function normaliseItem(item: ListItem): ListItem {
  return withLine(item, { type: 'listItem', attrs: { when: item.attrs.when }, content: normaliseBlocks(item.content) });
}

/**
 * A table whose rows are all as wide. A head is one row of its own; a cell spans only rows under the same conditions,
 * so that its rows are kept or left out together; each column is aligned as its first cell.
 */
function normaliseTable(table: Table): Table {
  const hasHead = table.content[0]?.content.every((cell) => cell.type === 'tableHeader') ?? false;
  const rows = table.content.map((row, at): Row => ({
    ...row,
    attrs: { when: at === 0 && hasHead ? [] : row.attrs.when },
    content: row.content.map((cell) => ({
      ...cell,
      attrs: { ...cell.attrs, rowspan: Math.min(cell.attrs.rowspan, rowsTogether(table.content, at, hasHead)) },
    })),
  }));
  const { width, places } = gridWithoutGaps(rows);
  const aligns = (places[0] ?? []).map((placed) => placed?.cell.attrs.align ?? null);
  const cell = (from: Cell | undefined, column: number, head: boolean): Cell => ({
    type: head ? 'tableHeader' : 'tableCell',
    attrs: {
      align: aligns[column] ?? null,
      colspan: from?.attrs.colspan ?? 1,
      rowspan: from?.attrs.rowspan ?? 1,
      colwidth: null,
    },
    content: [{ type: 'paragraph', ...content(normaliseInline(from?.content[0].content)) }],
  });
  const whole = rows.map((row, at): Row => {
    const line = places[at] ?? [];
    const cells = Array.from({ length: width }, (_, column) => {
      const placed = line[column];
      return placed && !beginsAt(placed, at, column) ? undefined : cell(placed?.cell, column, at === 0 && hasHead);
    });
    return withLine(row, { type: 'tableRow', attrs: row.attrs, content: cells.filter((each) => each !== undefined) });
  });
  // A head without a word cannot be told from none.
  const words = whole[0]?.content.some((each) => each.content[0].content !== undefined);
  return hasHead && !words && whole.length > 1
    ? normaliseTable({ type: 'table', content: whole.slice(1) })
    : { type: 'table', content: whole };
}

/** Lays rows out; a row that cells from above would cover whole gets back its first place, for a row has a cell. */
function gridWithoutGaps(rows: Row[]): Grid {
  for (;;) {
    const grid = gridOf(rows);
    const at = grid.places.findIndex(
      (line, row) => !line.some((placed, column) => !placed || beginsAt(placed, row, column)),
    );
    const placed = grid.places[at]?.[0];
    const row = placed && rows[placed.row];
    if (!placed || !row) return grid;
    const cut = (cell: Cell): Cell =>
      cell === placed.cell ? { ...cell, attrs: { ...cell.attrs, rowspan: at - placed.row } } : cell;
    rows[placed.row] = { ...row, content: row.content.map(cut) };
  }
}

/** How many rows from one on stand under its conditions, the head for itself. */
function rowsTogether(rows: readonly Row[], at: number, hasHead: boolean): number {
  if (at === 0 && hasHead) return 1;
  const when = rows[at]?.attrs.when ?? [];
  const end = rows.findIndex(
    ({ attrs }, index) =>
      index > at &&
      !(attrs.when.length === when.length && attrs.when.every((each, i) => sameCondition(each, when[i] as Condition))),
  );
  return (end < 0 ? rows.length : end) - at;
}

/** Numbers repeats in order of reading, and clears the number of everything else. */
function renumberRuns(document: TextDocument): TextDocument {
  const lists = new Set(
    document.attrs.variables.filter((variable) => variable.type === 'list').map((variable) => variable.key),
  );
  let next = 0;
  const numbered = (
    previous: readonly [Condition, Condition][],
    conditions: readonly Condition[],
  ): [Condition, Condition][] => {
    const pairs: [Condition, Condition][] = [];
    conditions.forEach((old, i) => {
      const repeat = lists.has(old.of) && !old.not;
      // A nested repeat goes on from its neighbour only while all that governs it goes on too.
      const before = previous[i];
      const goesOn =
        before !== undefined &&
        sameCondition(before[0], old) &&
        pairs.every((pair, j) => sameCondition(pair[0], (previous[j] as [Condition, Condition])[0]));
      pairs.push([old, !repeat ? { ...old, run: 0 } : goesOn ? before[1] : { ...old, run: (next += 1) }]);
    });
    return pairs;
  };
  const rewriteWhen = <N extends ListItem | Row>(nodes: readonly N[]): N[] => {
    let previous: [Condition, Condition][] = [];
    return nodes.map((node) => {
      previous = numbered(previous, node.attrs.when);
      return { ...node, attrs: { when: previous.map((pair) => pair[1]) } };
    });
  };
  const rewrite = (block: Block): Block => {
    switch (block.type) {
      case 'bulletList':
      case 'orderedList':
        return {
          ...block,
          content: rewriteWhen(block.content).map((item) => ({ ...item, content: item.content.map(rewrite) })),
        };
      case 'table':
        return { ...block, content: rewriteWhen(block.content) };
      case 'blockquote':
      case 'panel':
      case 'passage':
        return { ...block, content: block.content.map(rewrite) };
      default:
        return block;
    }
  };
  return {
    ...document,
    content: document.content.map((part) =>
      part.type === 'body' ? { ...part, content: part.content.map(rewrite) } : part,
    ),
  };
}

function normaliseVariable(variable: Variable): Variable {
  if (!variable.options) return variable;
  return {
    ...variable,
    options: variable.options.map(({ wording, ...option }) => {
      const words = normaliseInline(
        (wording ?? []).filter((node) => node.type === 'text' || node.type === 'placeholder').map(inOneLine),
      );
      return { ...option, ...(words.length > 0 ? { wording: words } : {}) };
    }),
  };
}

/** The normal form of a document. Idempotent. */
export function normalise(document: TextDocument): TextDocument {
  const parts = document.content.map((part): Part => {
    if (part.type === 'body') return { type: 'body', content: normaliseBlocks(part.content) };
    if (part.type === 'attachments') {
      return {
        type: 'attachments',
        ...content(
          (part.content ?? []).map((file) => ({
            type: 'attachment' as const,
            attrs: file.attrs,
            ...content(normaliseLine(file.content)),
          })),
        ),
      };
    }
    if (isAddresses(part.type)) {
      const filled = (part as Addresses).content
        .map((address) => normaliseLine(address.content))
        .filter((address) => address.length > 0);
      return {
        type: part.type,
        content: (filled.length > 0 ? filled : [[]]).map((address) => ({
          type: 'address' as const,
          ...content(address),
        })),
      };
    }
    return { type: part.type, ...content(normaliseLine((part as Line).content)) } as Part;
  });
  return renumberRuns({
    type: 'template',
    attrs: {
      front: document.attrs.front,
      variables: document.attrs.variables.map(normaliseVariable),
      // A series says its steps, even where it has none yet; any other text has none.
      ...(document.attrs.front.kind === 'series' ? { steps: (document.attrs.steps ?? []).map(normaliseStep) } : {}),
    },
    content: parts,
  });
}

/** A step without what is as usual. */
function normaliseStep({ text, days, working, before, after, at, when, look, later }: Step): Step {
  return {
    text,
    ...(days ? { days } : {}),
    ...(days && working ? { working } : {}),
    ...(before !== undefined ? (days ? { before } : { after: before }) : {}),
    ...(after !== undefined && before === undefined ? { after } : {}),
    ...(at === undefined ? {} : { at }),
    ...(when?.trim() ? { when: when.trim() } : {}),
    ...(look ? { look } : {}),
    ...(later && later.length > 0 ? { later: [...new Set(later)] } : {}),
  };
}
