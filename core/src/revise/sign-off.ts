/** Taking a signature out that was written or pasted into a text, for messages bring their own. */
import { bodyOf, type Block, type Inline, type TextDocument } from '../template/document.js';
import { normalise } from '../template/normalise.js';
import { findSignOff } from '../words/closing.js';
import { bodyText } from '../words/lines.js';

/** The lines that sign a text off; none where it is not signed. */
export function signOffLines(document: TextDocument): string[] {
  const blocks = bodyOf(document);
  const found = findSignOff(blocks);
  if (!found) return [];
  const [first, ...rest] = blocks.slice(found.block);
  return [...bodyText(first as Block).slice(found.line), ...rest.flatMap(bodyText)].filter(
    (line) => line.trim() !== '',
  );
}

/** The text without its last lines from the one that signs it off. */
export function withoutSignOff(document: TextDocument): TextDocument {
  const blocks = bodyOf(document);
  const found = findSignOff(blocks);
  if (!found) return document;
  const at = blocks[found.block];
  const head =
    found.line > 0 && at?.type === 'paragraph' ? [{ ...at, content: linesBefore(at.content ?? [], found.line) }] : [];
  const content: readonly Block[] = [...blocks.slice(0, found.block), ...head];
  return normalise({
    ...document,
    content: document.content.map((part) => (part.type === 'body' ? { ...part, content } : part)),
  });
}

/** A paragraph's first lines, without the break behind them. */
function linesBefore(nodes: readonly Inline[], line: number): readonly Inline[] {
  let breaks = 0;
  const end = nodes.findIndex((node) => node.type === 'hardBreak' && (breaks += 1) === line);
  return end < 0 ? nodes : nodes.slice(0, end);
}
