/** Writes a body as plain text that stands on its own: unwrapped, one blank line between blocks. */
import type { BlockUnit, Governed, ItemUnit, Line, RowUnit, TextLeaf, ValueLeaf } from '../compile/program.js';
import type { Align } from '../template/document.js';
import type { Frame } from './frame.js';
import { LineWriter, maySign, type Collected } from './writer.js';
import { walk } from './walk.js';

/** Writes a program with its values as plain text. */
export class TextWriter {
  private readonly writer: LineWriter;

  constructor(
    private readonly frame: Frame,
    private readonly collected: Collected,
  ) {
    this.writer = new LineWriter(frame, 'text', collected);
  }

  /** The blocks that came of something, each as text of one or more lines. */
  blocks(nodes: readonly Governed<BlockUnit>[]): string[] {
    const out: string[] = [];
    walk(nodes, this.frame, this.collected, (unit) => {
      if (unit.kind === 'include') {
        if (!unit.signature || maySign(this.collected)) out.push(...this.blocks(unit.children));
        return;
      }
      const text = this.block(unit);
      if (text !== undefined) out.push(text);
    });
    return out;
  }

  private line(line: Line): string | undefined {
    return (line.plain ? this.usualLine(line) : undefined) ?? this.writer.write(line);
  }

  /** A line without seams whose values stand as they are; undefined for any other. */
  private usualLine({ leaves }: Line): string | undefined {
    let out = '';
    for (const leaf of leaves as readonly (TextLeaf | ValueLeaf)[]) {
      if (leaf.kind === 'text') out += leaf.text;
      else if (leaf.asItIs && this.frame.html(leaf.read) !== undefined) out += String(this.frame.read(leaf.read));
      else return undefined;
    }
    return out === '' || !this.frame.budget.spend(leaves.length) ? undefined : out;
  }

  private block(unit: Exclude<BlockUnit, { kind: 'include' }>): string | undefined {
    switch (unit.kind) {
      case 'line':
        return this.line(unit.line);
      case 'button': {
        const words = this.line(unit.line);
        const address = words === undefined || words === '' ? '' : this.writer.address(unit.href);
        return words && address !== '' ? `${words} (${address.replace(/^mailto:|^tel:/, '')})` : words || undefined;
      }
      case 'panel': {
        const inner = this.blocks(unit.children);
        return inner.length > 0 ? inner.join('\n\n') : undefined;
      }
      case 'code':
        return unit.code;
      case 'rule':
        return '---';
      case 'note':
        return undefined;
      case 'quote': {
        const inner = this.blocks(unit.children);
        return inner.length > 0 ? indent(inner.join('\n\n'), '> ', '> ') : undefined;
      }
      case 'list':
        return this.list(unit);
      case 'table':
        return this.table(unit);
    }
  }

  private list(unit: Extract<BlockUnit, { kind: 'list' }>): string | undefined {
    const items: string[] = [];
    walk(unit.items, this.frame, this.collected, (item: ItemUnit) => {
      const inner = this.blocks(item.children);
      if (inner.length === 0) return;
      const marker = unit.ordered ? `${unit.start + items.length}. ` : '- ';
      // A nested list hangs right under its item; other blocks keep their blank line.
      const text = inner.reduce(
        (all, next, at) => (at === 0 ? next : all + (/^(- |\d+\. )/.test(next) ? '\n' : '\n\n') + next),
        '',
      );
      items.push(indent(text, marker, ' '.repeat(marker.length)));
    });
    return items.length > 0 ? items.join('\n') : undefined;
  }

  private table(unit: Extract<BlockUnit, { kind: 'table' }>): string | undefined {
    const head = unit.head && this.cells(unit.head, true);
    const rows: string[][] = [];
    walk(unit.rows, this.frame, this.collected, (row) => {
      const cells = this.cells(row, false);
      if (cells) rows.push(cells);
    });
    if (rows.length === 0 && (unit.rows.length > 0 || !head)) return undefined;
    const widths = unit.aligns.map((_, column) =>
      Math.max(...[...(head ? [head] : []), ...rows].map((cells) => width(cells[column] ?? ''))),
    );
    const write = (cells: readonly string[]): string =>
      cells
        .map((cell, column) => pad(cell, widths[column] ?? 0, unit.aligns[column] ?? null))
        .join('  ')
        .trimEnd();
    return [...(head ? [write(head), widths.map((w) => '-'.repeat(w)).join('  ')] : []), ...rows.map(write)].join('\n');
  }

  /** The cells of a row in one line each; undefined if leaving out has emptied them all. */
  private cells(row: RowUnit, always: boolean): string[] | undefined {
    const cells = row.cells.map(({ line }) => this.line(line));
    const gone = !always && !row.spanned && cells.includes(undefined) && cells.every((cell) => !cell);
    if (gone) return undefined;
    const out: string[] = [];
    row.cells.forEach(({ column }, at) => {
      while (out.length < column) out.push('');
      out.push((cells[at] ?? '').replace(/\n/g, ' '));
    });
    return out;
  }
}

const indent = (text: string, first: string, rest: string): string =>
  text
    .split('\n')
    .map((line, at) => (at === 0 ? first : line === '' ? rest.trimEnd() : rest) + line)
    .join('\n');

/** Columns a text takes: wide East Asian characters take two, combining marks none. */
function width(text: string): number {
  let columns = 0;
  for (const character of text)
    columns += /\p{M}/u.test(character)
      ? 0
      : /[\u1100-\u115F\u2E80-\uA4CF\uAC00-\uD7A3\uF900-\uFAFF\uFE30-\uFE6F\uFF00-\uFF60\uFFE0-\uFFE6]/u.test(character)
        ? 2
        : 1;
  return columns;
}

function pad(text: string, columns: number, align: Align): string {
  const left = columns - width(text);
  if (align === 'right') return ' '.repeat(left) + text;
  if (align === 'center') return ' '.repeat(left >> 1) + text + ' '.repeat(left - (left >> 1));
  return text + ' '.repeat(left);
}
