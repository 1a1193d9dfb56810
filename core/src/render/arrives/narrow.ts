/** What does not fit a small screen. */
import { isTag } from 'domhandler';
import { leastWidth, ROOM } from './room.js';
import type { Losses } from './loss.js';
import { declarationsOf, elementsOf, textIn, type Document, type Element } from './tree.js';

const USUAL_SIZE = 15;

/** Notes tables that are wider than the screen even where every line of a cell breaks at every space. */
export function narrow(tree: Document, losses: Losses): void {
  for (const table of elementsOf(tree.children)) {
    if (table.name !== 'table' || table.attribs.role === 'presentation') continue;
    const widths: number[] = [];
    for (const row of elementsOf(table.children))
      if (row.name === 'tr')
        row.children
          .filter((each): each is Element => isTag(each))
          .forEach((cell, at) => (widths[at] = Math.max(widths[at] ?? 0, leastWidthOf(cell))));
    const least = Math.round(widths.reduce((sum, each) => sum + each, 0));
    if (least > ROOM)
      losses.note('a part of the table', table, `about ${least} px wide: it is moved sideways to be read`);
  }
}

function leastWidthOf(cell: Element): number {
  const style = new Map(declarationsOf(cell));
  const size = Number.parseFloat(style.get('font-size') ?? '') || USUAL_SIZE;
  return leastWidth(textIn(cell.children), size) + sidesOf(style.get('padding') ?? '0');
}

/** The room at both sides that a `padding` of one to four lengths gives, in pixels. */
function sidesOf(padding: string): number {
  const [top = 0, right = top, , left = right] = padding.split(/\s+/).map((each) => Number.parseFloat(each) || 0);
  return left + right;
}
