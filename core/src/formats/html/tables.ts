/** Tables of foreign HTML: those that hold data, and those that only lay a page out. */
import type { Element } from 'domhandler';
import type { Align, Cell, Inline, Row, Table } from '../../template/document.js';
import { isElement, isLeftOut, styleOf } from './clean.js';

/** The rows of a table, those of nested tables not counted. */
function rowsOf(table: Element): Element[] {
  return table.children.filter(isElement).flatMap((child) => {
    if (isLeftOut(child)) return [];
    if (child.name === 'tr') return [child];
    return ['thead', 'tbody', 'tfoot'].includes(child.name)
      ? child.children.filter(isElement).filter((row) => row.name === 'tr' && !isLeftOut(row))
      : [];
  });
}

const cellsOf = (row: Element): Element[] =>
  row.children
    .filter(isElement)
    .filter(({ name }) => name === 'td' || name === 'th')
    .filter((cell) => !isLeftOut(cell));

const BLOCKS = new Set('table ul ol h1 h2 h3 h4 h5 h6 blockquote hr pre img'.split(' '));

function holdsBlocks(element: Element): boolean {
  const paragraphs = element.children.filter((child) => isElement(child) && ['p', 'div'].includes(child.name));
  return (
    paragraphs.length > 1 ||
    element.children.some((child) => isElement(child) && (BLOCKS.has(child.name) || holdsBlocks(child)))
  );
}

/** True for tables that only put things in their places: one column, cells of whole blocks, or so declared. */
export function isLayout(table: Element): boolean {
  if (/^(?:presentation|none)$/i.test(table.attribs.role ?? '')) return true;
  const rows = rowsOf(table).map(cellsOf);
  if (rows.flat().some(({ name }) => name === 'th')) return false;
  return rows.every((cells) => cells.length <= 1) || rows.flat().some(holdsBlocks);
}

const span = (text: string | undefined): number => {
  const value = Number(text ?? 1);
  return Number.isInteger(value) && value >= 1 ? Math.min(value, 200) : 1;
};

/** How many rows and columns are taken at most. */
const MAX_ROWS = 2000;
const MAX_COLUMNS = 60;

/** A table that holds data; undefined if there is nothing in it. `read` gives what a cell holds, in one line. */
export function readTable(table: Element, read: (cell: Element) => readonly Inline[]): Table | undefined {
  const given = rowsOf(table).slice(0, MAX_ROWS);
  const rows = given.flatMap((row, at): Row[] => {
    const cells = cellsOf(row).slice(0, MAX_COLUMNS);
    // A first row of headers, or one that the table keeps apart as its head.
    const head =
      at === 0 &&
      (cells.every(({ name }) => name === 'th') ||
        (isElement(row.parent as Element) && (row.parent as Element).name === 'thead'));
    const content = cells.map((cell): Cell => ({
      type: head ? 'tableHeader' : 'tableCell',
      attrs: {
        align: alignOf(cell),
        colspan: span(cell.attribs.colspan),
        rowspan: span(cell.attribs.rowspan),
        colwidth: null,
      },
      content: [{ type: 'paragraph', content: read(cell) }],
    }));
    return content.length > 0 ? [{ type: 'tableRow', attrs: { when: [] }, content }] : [];
  });
  const words = rows.some(({ content }) =>
    content.some(({ content: [paragraph] }) => (paragraph.content?.length ?? 0) > 0),
  );
  return words ? { type: 'table', content: rows } : undefined;
}

function alignOf(cell: Element): Align {
  const side = styleOf(cell).get('text-align') ?? cell.attribs.align?.toLowerCase();
  return side === 'center' || side === 'right' ? side : null;
}
