/** What a check is: one file, one kind of trouble. */
import type { Finding, Repair } from '../findings/finding.js';
import type { Program } from '../compile/program.js';
import type { Inline, TextDocument } from '../template/document.js';
import { childrenOf, visit } from '../template/walk.js';

/** What checks look at. */
export interface CheckContext {
  readonly document: TextDocument;
  readonly program: Program;
  readonly language: string;
  /** The document's fixed text, line by line. */
  readonly lines: readonly FixedLine[];
  /** Sample recipients, where there are any. */
  readonly people: readonly Readonly<Record<string, unknown>>[];
  /** An ISO day, where one is known. */
  readonly today?: string;
}

/** One check of a text: it looks for one kind of problem and gives its findings. */
export interface Check {
  /** Languages it knows, by two letters; it is quiet about all others. Left out, it knows every one. */
  readonly languages?: readonly string[];
  run(context: CheckContext): readonly Finding[];
}

/** A line as a reader meets it: fixed text in one string, with U+FFFC for each thing that is no text. */
export interface FixedLine {
  readonly text: string;
  /** The node the line is the content of; its path leads there. */
  readonly path: readonly number[];
  /** The text node at an offset, with the offset inside it. */
  at(offset: number): { readonly path: readonly number[]; readonly offset: number } | undefined;
}

/** Stands in for placeholders, images and included blocks. */
export const OBJECT = '\uFFFC';

const LINES = new Set([
  'paragraph',
  'heading',
  'button',
  'subject',
  'start',
  'length',
  'place',
  'address',
  'attachment',
]);

/** The lines of a document: envelope, body and the wordings of options. */
export function fixedLines(document: TextDocument): FixedLine[] {
  const lines: FixedLine[] = [];
  visit(document, (node, path) => {
    if (LINES.has(node.type)) lines.push(fixedLine(childrenOf(node) as readonly Inline[], path));
  });
  for (const variable of document.attrs.variables)
    for (const option of variable.options ?? []) if (option.wording) lines.push(fixedLine(option.wording, []));
  return lines;
}

function fixedLine(nodes: readonly Inline[], path: readonly number[]): FixedLine {
  const starts: { readonly at: number; readonly index: number; readonly text: boolean }[] = [];
  let text = '';
  nodes.forEach((node, index) => {
    const code = node.marks?.some((mark) => mark.type === 'code') ?? false;
    starts.push({ at: text.length, index, text: node.type === 'text' && !code });
    if (node.type === 'text') text += code ? OBJECT : node.text;
    else if (node.type === 'hardBreak') text += '\n';
    else if (node.type !== 'inlineComment') text += OBJECT;
  });
  return {
    text,
    path,
    at(offset) {
      const start = starts[lastAtOrBefore(starts, offset)];
      return start?.text && path.length > 0 ? { path: [...path, start.index], offset: offset - start.at } : undefined;
    },
  };
}

/** Where the last of some starts is that lies at or before an offset; −1 if none does. */
function lastAtOrBefore(starts: readonly { readonly at: number }[], offset: number): number {
  let [low, high] = [0, starts.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((starts[middle]?.at ?? 0) <= offset) low = middle + 1;
    else high = middle;
  }
  return low - 1;
}

/** A repair that replaces what stands at a place; none where that is no text. */
export const replacing = (
  label: string,
  place: ReturnType<typeof placeIn>,
  insert: string | readonly Inline[],
): Repair | undefined => ('offset' in place ? { label, how: 'replace', ...place, insert } : undefined);

/** The place of a match in a line. */
export function placeIn(
  line: FixedLine,
  offset: number,
  length: number,
): { path: readonly number[]; offset: number; length: number } | { path: readonly number[] } {
  const at = line.at(offset);
  return at ? { ...at, length } : { path: line.path };
}
