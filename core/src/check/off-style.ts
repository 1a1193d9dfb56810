import { advice, type Finding, type Repair } from '../findings/finding.js';
import type { Node } from '../template/document.js';
import { visit } from '../template/walk.js';
import type { Check } from './check.js';

/** A colour that the house style does not have: the words are shown without it. */
export const offStyle: Check = {
  run({ document, program }) {
    const { colours } = program.house.style;
    const findings: Finding[] = [];
    visit(document, (node, path) => {
      for (const { name, use, repair } of coloursOf(node, path, instead(Object.keys(colours))))
        if (name !== '' && !Object.hasOwn(colours, name))
          findings.push(advice({ code: 'off-style', colour: name, use }, { path }, 'warning', repair));
    });
    return findings;
  },
};

interface Use {
  readonly name: string;
  readonly use: 'panel' | 'colour' | 'highlight';
  readonly repair: Repair;
}

function coloursOf(node: Node, path: readonly number[], find: (name: string) => string | undefined): Use[] {
  const label = (name: string): string => (find(name) ? `Make it ${find(name)}` : 'Take the colour off');
  if (node.type === 'panel') {
    const { colour } = node.attrs;
    const attrs = { colour: find(colour) ?? '' };
    return [{ name: colour, use: 'panel', repair: { label: label(colour), how: 'attributes', path, attrs } }];
  }
  return ('marks' in node ? (node.marks ?? []) : []).flatMap((mark): Use[] => {
    if (mark.type !== 'colour' && mark.type !== 'highlight') return [];
    const { name } = mark.attrs;
    return [
      {
        name,
        use: mark.type,
        repair: { label: label(name), how: 'recolour', path, mark: mark.type, name: find(name) },
      },
    ];
  });
}

/** The colour that an unknown name most likely was, by its beginning: `moss_green` was `moss`. */
const instead =
  (names: readonly string[]) =>
  (name: string): string | undefined =>
    names.find((known) => known.length >= 3 && (name.startsWith(known) || known.startsWith(name.slice(0, 4))));
