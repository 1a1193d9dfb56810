/** The words of a block, line by line. */
import { plainWords, type Block, type Inline, type Node } from '../template/document.js';
import { childrenOf } from '../template/walk.js';

/** The lines of a block and of those in it: a break ends a line, placeholders stand by their names. */
export function bodyText(block: Block): string[] {
  const lines: string[] = [];
  const gather = (node: Node): void => {
    if (node.type !== 'paragraph' && node.type !== 'heading' && node.type !== 'button')
      return childrenOf(node).forEach(gather);
    let line: Inline[] = [];
    for (const each of (node.content ?? []) as readonly Inline[]) {
      if (each.type === 'hardBreak') {
        lines.push(plainWords(line));
        line = [];
      } else line.push(each);
    }
    lines.push(plainWords(line));
  };
  gather(block);
  return lines;
}
