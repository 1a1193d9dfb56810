/** Tags that stand on lines of their own. */
import type { StateBlock } from 'markdown-it';
import { scanTag, type FoundTag, type Tag } from './tags.js';

/** The state of the Markdown parser at a block. */
export type BlockState = StateBlock;

/** What a tag token carries; `line` counts lines inside its block from 0. */
export interface TagMeta {
  readonly tag: Tag;
  readonly source: string;
  readonly line: number;
}
/** Columns from which a line is code. */
export const INDENT_OF_CODE = 4;

/** The tag that alone fills a line, unless it is a placeholder, which is text. */
export function tagLineAt(
  state: StateBlock,
  line: number,
  endLine: number,
): (FoundTag & { readonly lines: number }) | undefined {
  if ((state.sCount[line] ?? 0) - state.blkIndent >= INDENT_OF_CODE) return undefined;
  const start = (state.bMarks[line] ?? 0) + (state.tShift[line] ?? 0);
  if (!state.src.startsWith('{{', start)) return undefined;
  let text = state.src.slice(start, state.eMarks[line]);
  let lines = 1;
  // Only a note may go on over several lines.
  while (text.startsWith('{{!') && !text.includes('}}') && line + lines < endLine && lines < 200) {
    text += `\n${state.getLines(line + lines, line + lines + 1, state.blkIndent, false).trimEnd()}`;
    lines += 1;
  }
  const found = scanTag(text, 0);
  if (!found || text.slice(found.end).trim() !== '') return undefined;
  const structural =
    found.tag.kind === 'open' ||
    found.tag.kind === 'close' ||
    found.tag.kind === 'inclusion' ||
    found.tag.kind === 'comment';
  return structural ? { ...found, lines } : undefined;
}
