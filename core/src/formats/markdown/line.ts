/** Lines of text: subject, addresses, file names, alternative texts. Tags are their only form. */
import { countAtEnd } from '../../words/ends.js';
import { closingTag, openingTag, type Condition } from '../../template/condition.js';
import type { Inline, Mark } from '../../template/document.js';
import { normaliseLine, sameMark } from '../../template/normalise.js';
import { InlineBuilder, Reading } from './inline.js';
import { commentTag, inclusionTag, placeholderTag, scanTag } from './tags.js';

/** Reads a line. Before `{{`, two backslashes are one and an odd one makes the braces literal. */
export function readLine(source: string, reading: Reading = new Reading(new Set()), line?: number): Inline[] {
  const builder = new InlineBuilder(reading);
  let from = 0;
  for (let pos = source.indexOf('{{'); pos >= 0; pos = source.indexOf('{{', from)) {
    const backslashes = Math.min(countAtEnd(source, '\\', pos), pos - from);
    builder.text(source.slice(from, pos - backslashes) + '\\'.repeat(backslashes >> 1));
    const found = backslashes % 2 === 0 ? scanTag(source, pos) : undefined;
    const braceBefore = !found && source.startsWith('{{{', pos) && backslashes === 0;
    if (found) builder.tag(found.tag, source.slice(pos, found.end), line);
    else builder.text(braceBefore ? '{' : '{{');
    from = found ? found.end : pos + (braceBefore ? 1 : 2);
  }
  builder.text(source.slice(from));
  return normaliseLine(builder.finish());
}

/** Writes a line, so that reading it gives the same. */
export function writeLine(nodes: readonly Inline[] = []): string {
  const line = normaliseLine(nodes);
  const tagFollows = (index: number): boolean => index < line.length - 1 || line[index]?.marks !== undefined;
  return writeRuns(
    line,
    (mark) => mark.type === 'phrase',
    (node, index) => (node.type === 'text' ? escapeLine(node.text, tagFollows(index)) : tagOf(node)),
    {
      open: (mark) => openingTag((mark as { attrs: Condition }).attrs),
      close: (mark) => closingTag((mark as { attrs: Condition }).attrs),
    },
  );
}

// A backslash doubles only where braces follow it, in this text or as the next tag.
function escapeLine(text: string, tagFollows: boolean): string {
  const escaped = text.replace(/(\\*)\{\{/g, '$1$1\\{{');
  return tagFollows ? escaped + '\\'.repeat(countAtEnd(escaped, '\\')) : escaped;
}

/** The tag of a node that is one. */
export function tagOf(node: Inline): string {
  switch (node.type) {
    case 'placeholder':
      return placeholderTag(node.attrs);
    case 'inlineInclusion':
      return inclusionTag(node.attrs.name);
    case 'inlineComment':
      return commentTag(node.attrs.text);
    default:
      return '';
  }
}

interface Delimiters {
  open(mark: Mark): string;
  close(mark: Mark): string;
}

/**
 * Writes nodes with their marks as properly nested delimiters: at each place the longer run outside,
 * ties in the order of the marks, closing and opening again what would overlap.
 */
export function writeRuns(
  nodes: readonly Inline[],
  wanted: (mark: Mark) => boolean,
  leaf: (node: Inline, index: number) => string,
  delimiters: Delimiters,
): string {
  const marksAt = nodes.map((node) => (node.marks ?? []).filter(wanted));
  const runEnd = (mark: Mark, from: number): number => {
    let end = from;
    while (end < nodes.length && marksAt[end]?.some((other) => sameMark(other, mark))) end += 1;
    return end;
  };
  const open: { mark: Mark; end: number }[] = [];
  let out = '';
  nodes.forEach((node, index) => {
    const here = marksAt[index] ?? [];
    const firstEnded = open.findIndex(({ end }) => end <= index);
    if (firstEnded >= 0) while (open.length > firstEnded) out += delimiters.close((open.pop() as { mark: Mark }).mark);
    const toOpen = here
      .filter((mark) => !open.some((other) => sameMark(other.mark, mark)))
      .map((mark, order) => ({ mark, order, end: runEnd(mark, index) }))
      .sort((a, b) => b.end - a.end || a.order - b.order);
    for (const { mark, end } of toOpen) {
      out += delimiters.open(mark);
      open.push({ mark, end });
    }
    out += leaf(node, index);
  });
  while (open.length > 0) out += delimiters.close((open.pop() as { mark: Mark }).mark);
  return out;
}
