import { describe, expect, it } from 'vitest';
import { documentOf } from '../testing/build.js';
import type { Node } from './document.js';
import { conditionsOf, nodeAt, NO_SHADOWS, shadowsInside, visit, walk } from './walk.js';

const VARIABLES = `school: { type: yes-no }
rows: { type: list, columns: { name: { type: text } } }`;
const BODY = `{{#school}}
For schools: {{#rows}}**{{rows.name}}**{{/rows}} and more.

{{/school}}

- {{#rows}}{{name}}{{/rows}}
- last`;
const document = documentOf({ variables: VARIABLES, body: BODY });
const governed = (name: string): string[][] => {
  const found: string[][] = [];
  walk(document, ({ node, outer, own }) => {
    if (node.type === 'placeholder' && node.attrs.name === name) found.push([...outer, ...own].map(({ of }) => of));
  });
  return found;
};

describe('the walk through a document', () => {
  it('gives the conditions around a node and its own, outermost first', () => {
    expect(governed('rows')).toEqual([['school', 'rows']]);
    expect(governed('name')).toEqual([['rows']]);
  });

  it('gives paths that lead to their nodes, and the node in front', () => {
    walk(document, ({ node, path, before }) => {
      expect(nodeAt(document, path)).toBe(node);
      const last = path.at(-1) ?? 0;
      expect(before).toBe(last > 0 ? nodeAt(document, [...path.slice(0, -1), last - 1]) : undefined);
    });
  });

  it('meets every node once, parents first, as the short walk does', () => {
    const [long, short]: [Node[], Node[]] = [[], []];
    walk(document, ({ node }) => void long.push(node));
    visit(document, (node) => void short.push(node));
    expect(long).toEqual(short);
    expect(new Set(long).size).toBe(long.length);
    expect(long[0]).toBe(document);
  });

  it('goes no deeper where it is told so', () => {
    const met: string[] = [];
    walk(document, ({ node }) => {
      met.push(node.type);
      return node.type !== 'body';
    });
    expect(met).not.toContain('paragraph');
    expect(met).toContain('body');
  });

  it('knows which keys are columns inside a repeat', () => {
    const { variables } = document.attrs;
    const repeat = { of: 'rows', is: [], not: false, run: 0 };
    expect([...shadowsInside(NO_SHADOWS, [repeat], variables)]).toEqual(['name']);
    expect(shadowsInside(NO_SHADOWS, [{ ...repeat, not: true }], variables)).toBe(NO_SHADOWS);
    expect(conditionsOf(document)).toEqual([]);
  });
});
