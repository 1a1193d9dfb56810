/** Tables as GitHub-flavoured Markdown writes them, with tag lines between rows that govern the rows up to their closing tag. */
import { conditionName } from '../../template/condition.js';
import { tagLineAt, type BlockState, type TagMeta } from './tag-line.js';
import type { Tag } from './tags.js';

const DELIMITER = /^\|?\s*:?-+:?\s*(?:\|\s*:?-+:?\s*)*\|?$/;

/** The cells of a row; `\|` is a bar inside one. */
export function splitRow(line: string): string[] {
  const cells: string[] = [];
  let cell = '';
  const text = line.trim().replace(/^\|/, '');
  for (let i = 0; i < text.length; i += 1) {
    if (text[i] === '\\' && text[i + 1] === '|') {
      cell += '|';
      i += 1;
    } else if (text[i] === '|') {
      cells.push(cell.trim());
      cell = '';
    } else {
      cell += text[i];
    }
  }
  if (cell.trim() !== '' || !text.trimEnd().endsWith('|') || cells.length === 0) cells.push(cell.trim());
  return cells;
}

type TableLine = { readonly line: number; readonly text: string; readonly tag?: Tag };

const lineText = (state: BlockState, line: number): string =>
  state.src.slice((state.bMarks[line] ?? 0) + (state.tShift[line] ?? 0), state.eMarks[line]).trim();

/** The lines that may belong to the body: up to a blank one, an outdent, or another block's beginning. */
function bodyLines(state: BlockState, from: number, endLine: number): TableLine[] {
  const terminators = state.md.block.ruler.getRules('blockquote');
  const lines: TableLine[] = [];
  for (let line = from; line < endLine; line += 1) {
    const text = lineText(state, line);
    const indent = state.sCount[line] ?? 0;
    if (text === '' || indent < state.blkIndent || indent - state.blkIndent >= 4) break;
    const tag = tagLineAt(state, line, endLine);
    if (tag && tag.lines > 1) break;
    if (!tag && terminators.some((rule) => rule(state, line, endLine, true))) break;
    lines.push(tag ? { line, text, tag: tag.tag } : { line, text });
  }
  return lines;
}

/** How many of the lines are the table's: a tag whose partner stands elsewhere ends it, and so does an inclusion. */
function ownLines(lines: readonly TableLine[]): number {
  const open: { name: string; at: number }[] = [];
  for (const [at, { tag }] of lines.entries()) {
    if (tag?.kind === 'open') open.push({ name: conditionName(tag.condition), at });
    else if (tag?.kind === 'close') {
      if (open.at(-1)?.name !== tag.name) return open[0]?.at ?? at;
      open.pop();
    } else if (tag?.kind === 'inclusion') return open[0]?.at ?? at;
  }
  return open[0]?.at ?? lines.length;
}

/** The block rule. */
export function tableRule(state: BlockState, startLine: number, endLine: number, silent: boolean): boolean {
  if (startLine + 1 >= endLine || (state.sCount[startLine + 1] ?? 0) < state.blkIndent) return false;
  if (
    (state.sCount[startLine] ?? 0) - state.blkIndent >= 4 ||
    (state.sCount[startLine + 1] ?? 0) - state.blkIndent >= 4
  )
    return false;
  const head = lineText(state, startLine);
  const delimiter = lineText(state, startLine + 1);
  if (!head.includes('|') || !DELIMITER.test(delimiter)) return false;
  const headers = splitRow(head);
  const delimiters = splitRow(delimiter);
  if (headers.length !== delimiters.length) return false;
  if (silent) return true;

  const candidates = bodyLines(state, startLine + 2, endLine);
  const lines = candidates.slice(0, ownLines(candidates));
  state.push('table_open', 'table', 1).meta = {
    align: delimiters.map((cell) =>
      /^:-*:$/.test(cell) ? 'center' : cell.endsWith(':') ? 'right' : cell.startsWith(':') ? 'left' : null,
    ),
  };
  const row = (text: string, line: number): void => {
    const open = state.push('tr_open', 'tr', 1);
    open.map = [line, line + 1];
    for (const cell of splitRow(text)) {
      const inline = state.push('inline', '', 0);
      inline.content = cell;
      inline.children = [];
      inline.map = [line, line + 1];
    }
    state.push('tr_close', 'tr', -1);
  };
  row(head, startLine);
  for (const { line, text, tag } of lines) {
    if (!tag) row(text, line);
    else {
      const token = state.push('tag_line', '', 0);
      token.meta = { tag, source: text, line: 0 } satisfies TagMeta as TagMeta & Record<string, unknown>;
      token.map = [line, line + 1];
    }
  }
  state.push('table_close', 'table', -1);
  state.line = startLine + 2 + lines.length;
  return true;
}
