import { advice, type Finding } from '../findings/finding.js';
import { contrast, darkTint, DARK_PAGE, PAGE, tint } from '../house/colour.js';
import { childrenOf, type Inline, type Node } from '../template/document.js';
import type { Check } from './check.js';

/** What words need (WCAG 2.2, 1.4.3). */
const ENOUGH = 4.5;

/** Words in a colour that can hardly be read on what lies under them, on light pages or dark ones. */
export const lowContrast: Check = {
  run({ document, program }) {
    const { colours } = program.house.style;
    const findings: Finding[] = [];
    const go = (node: Node, path: readonly number[], panel: string): void => {
      const under = node.type === 'panel' ? (node.attrs as { colour?: string }).colour || panel : panel;
      const colour = colourOf(node);
      const marked = highlightOf(node) ?? under;
      const named = colour === undefined ? undefined : colours[colour];
      if (named && node.type === 'text') {
        const ground = colours[marked];
        const light = contrast(named.light, ground ? tint(ground.light) : PAGE);
        const dark = contrast(named.dark, ground ? darkTint(ground.light) : DARK_PAGE);
        const least = Math.min(light, dark);
        if (least < ENOUGH)
          findings.push(
            advice(
              'low-contrast',
              `“${node.text.trim().slice(0, 40)}” in ${colour} ${ground ? `on ${marked}` : ''} has a contrast of ${(Math.floor(least * 10) / 10).toFixed(1)} on ${light <= dark ? 'light' : 'dark'} pages; words need ${ENOUGH}.`.replace(
                '  ',
                ' ',
              ),
              { path },
            ),
          );
      }
      childrenOf(node).forEach((child, index) => go(child, [...path, index], under));
    };
    go(document, [], '');
    return findings;
  },
};

const markOf = (node: Node, type: 'colour' | 'highlight'): string | undefined => {
  const mark = 'marks' in node ? (node as Inline).marks?.find((each) => each.type === type) : undefined;
  return mark && 'attrs' in mark ? ((mark.attrs as { name?: string }).name ?? undefined) : undefined;
};
const colourOf = (node: Node): string | undefined => markOf(node, 'colour');
const highlightOf = (node: Node): string | undefined => markOf(node, 'highlight');
