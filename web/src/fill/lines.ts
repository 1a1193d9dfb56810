/** The lines of a program's body, wherever they stand. */
import type { Line, Program } from '@vocabula/core';

type Unit = Extract<Program['body'][number], { node: unknown }>['node'];
type Many = readonly ({ readonly node: Unit } | { readonly children: Many })[];

export function bodyLines(program: Program): Line[] {
  return gather(program.body as Many);
}

function gather(nodes: Many): Line[] {
  return nodes.flatMap((each): Line[] => {
    if (!('node' in each)) return gather(each.children);
    const { node } = each;
    if (node.kind === 'line') return [node.line];
    if (node.kind === 'quote' || node.kind === 'include') return gather(node.children as Many);
    return [];
  });
}
