/** Plain text as people type and paste it: paragraphs between empty lines, and Markdown where it is meant. */
import { Reading } from '../markdown/inline.js';
import { readBody } from '../markdown/read-body.js';
import { tagsIn, type Tag } from '../markdown/tags.js';
import type { Block, Cell, Inline } from '../../template/document.js';

/**
 * Reads text as it stands: an empty line ends a paragraph, any other line a line; lines of cells parted by tabs, as
 * spreadsheets give them, are a table. Never empty.
 */
export function readPlain(text: string): Block[] {
  const paragraphs = text
    .replace(/\r\n?/g, '\n')
    .replace(/[\u0000-\u0008\u000B-\u001F\u007F]/g, '')
    .split(/\n[ \t]*\n\s*/)
    .map((paragraph) => paragraph.replace(/^\n+|[\n ]+$/g, ''))
    .filter((paragraph) => paragraph !== '');
  const blocks = paragraphs.map((paragraph) => tableOf(paragraph.split('\n')) ?? paragraphOf(paragraph.split('\n')));
  return blocks.length > 0 ? blocks : [{ type: 'paragraph' }];
}

const paragraphOf = (lines: readonly string[]): Block => ({
  type: 'paragraph',
  content: lines.flatMap((line, at): Inline[] => [
    ...(at > 0 ? [{ type: 'hardBreak' } as const] : []),
    ...(line.trim() === '' ? [] : [{ type: 'text', text: line.trimEnd() } as const]),
  ]),
});

/** Two lines or more, each of as many cells, as a table; undefined for lines that are none. */
function tableOf(lines: readonly string[]): Block | undefined {
  const rows = lines.map((line) => line.split('\t'));
  const width = rows[0]?.length ?? 0;
  if (rows.length < 2 || width < 2 || rows.some((row) => row.length !== width)) return undefined;
  const cell = (text: string): Cell => ({
    type: 'tableCell',
    attrs: { align: null, colspan: 1, rowspan: 1, colwidth: null },
    content: [{ type: 'paragraph', ...(text.trim() === '' ? {} : { content: [{ type: 'text', text: text.trim() }] }) }],
  });
  return {
    type: 'table',
    content: rows.map((row) => ({ type: 'tableRow', attrs: { when: [] }, content: row.map(cell) })),
  };
}

/** Signs of Markdown that hardly anybody types by chance. */
const SIGNS: readonly RegExp[] = [
  /^#{1,6} \S/m,
  /^(?:[-*+] \S.*\n){1,}[-*+] \S/m,
  /^1[.)] \S.*\n2[.)] \S/m,
  /^> \S/m,
  /\*\*\S[^*\n]*\S\*\*/,
  /\[[^\]\n]+\]\((?:https?:|mailto:)[^)\s]+\)/,
  /^\|.*\|\n\|[\s:|-]+\|$/m,
  /^```/m,
];

/** Lines that are looked at, and characters of each: signs that stand nowhere else are none. */
const [MOST_LINES, MOST_OF_LINE] = [500, 400];

/** Whether a plain text seems to be written in Markdown, by its first lines. */
export function looksLikeMarkdown(text: string): boolean {
  const beginning = text
    .slice(0, MOST_LINES * MOST_OF_LINE)
    .replace(/\r\n?/g, '\n')
    .split('\n', MOST_LINES)
    .map((line) => line.slice(0, MOST_OF_LINE))
    .join('\n');
  return SIGNS.some((sign) => sign.test(beginning));
}

/**
 * Reads Markdown. Of tags only those are read that name something known; the others are markers of somebody else's
 * and stay text.
 */
export function readMarkdown(text: string, known: (name: string) => boolean = () => false): Block[] {
  const source = text.replace(/\r\n?/g, '\n').replace(/\0/g, '');
  let out = '';
  let from = 0;
  for (const { tag, start, end } of tagsIn(source)) {
    out += source.slice(from, start) + (names(tag).every(known) ? '' : '\\') + source.slice(start, end);
    from = end;
  }
  return readBody(out + source.slice(from), new Reading(new Set()));
}

/** What a tag names; an empty name for tags that cannot be read, which nobody knows. */
function names(tag: Tag): string[] {
  switch (tag.kind) {
    case 'placeholder':
      return [tag.name];
    case 'open':
      return [tag.condition.of];
    case 'close':
      return [tag.name.split('.')[0] ?? ''];
    case 'inclusion':
      return [tag.name];
    default:
      return [''];
  }
}
