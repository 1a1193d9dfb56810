// @vitest-environment happy-dom
import { getSchema } from '@tiptap/core';
import { Node as PmNode } from '@tiptap/pm/model';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { normalise, type TextDocument } from '@vocabula/core';
import { parseDocument } from '@vocabula/core/schema';
import { documents } from '@vocabula/core/testing';
import { schema as extensions } from './index';

const schema = getSchema(extensions);

/** What the editor makes of JSON, or undefined if it refuses it. */
function edited(json: unknown): PmNode | undefined {
  try {
    const node = PmNode.fromJSON(schema, json);
    node.check();
    return node;
  } catch {
    return undefined;
  }
}
const plain = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;

interface Json {
  type: string;
  attrs?: Record<string, unknown>;
  content?: Json[];
  marks?: { type: string; attrs?: Record<string, unknown> }[];
  text?: string;
}
const condition = { of: 'guide', is: [], not: false, run: 0 };
const cell = (type: string): Json => ({
  type,
  attrs: { align: null, colspan: 1, rowspan: 1, colwidth: null },
  content: [{ type: 'paragraph' }],
});
/** One whole node of every kind: what a mutation may put anywhere. */
const PIECES: readonly Json[] = [
  { type: 'text', text: 'words' },
  { type: 'placeholder', attrs: { name: 'name', view: '' } },
  { type: 'hardBreak' },
  { type: 'image', attrs: { src: 'a.png', alt: [], title: '', width: 120 } },
  { type: 'inlineInclusion', attrs: { name: 'hours' } },
  { type: 'inlineComment', attrs: { text: 'a note' } },
  { type: 'paragraph' },
  { type: 'heading', attrs: { level: 2, align: 'center' } },
  { type: 'paragraph', attrs: { indent: 2 } },
  { type: 'button', attrs: { href: 'https://x.example' } },
  { type: 'panel', attrs: { colour: 'moss' }, content: [{ type: 'paragraph' }] },
  { type: 'codeBlock', attrs: { language: null } },
  { type: 'horizontalRule' },
  { type: 'blockquote', content: [{ type: 'paragraph' }] },
  { type: 'listItem', attrs: { when: [] }, content: [{ type: 'paragraph' }] },
  {
    type: 'bulletList',
    content: [{ type: 'listItem', attrs: { when: [condition] }, content: [{ type: 'paragraph' }] }],
  },
  { type: 'tableRow', attrs: { when: [] }, content: [cell('tableCell')] },
  { type: 'table', content: [{ type: 'tableRow', attrs: { when: [] }, content: [cell('tableHeader')] }] },
  cell('tableCell'),
  { type: 'passage', attrs: condition, content: [{ type: 'paragraph' }] },
  { type: 'inclusion', attrs: { name: 'hours' } },
  { type: 'comment', attrs: { text: 'a note' } },
  { type: 'address' },
  { type: 'attachment', attrs: { file: 'a.pdf' } },
];
const MARKS = [
  { type: 'bold' },
  { type: 'code' },
  { type: 'link', attrs: { href: 'https://x.example' } },
  { type: 'colour', attrs: { name: 'moss' } },
  { type: 'highlight', attrs: { name: 'moss' } },
  { type: 'language', attrs: { lang: 'ga' } },
  { type: 'phrase', attrs: condition },
];

const nodesOf = (node: Json): Json[] => [node, ...(node.content ?? []).flatMap(nodesOf)];

/** Changes a document in one place; what comes of it may or may not be a document. */
function mutate(document: Json, [where, how, what]: readonly number[]): Json {
  const copy = plain(document);
  const pick = <T>(list: readonly T[], at: number): T => list[at % list.length] as T;
  const all = nodesOf(copy);
  const node = pick(
    all.filter((each) => each.type !== 'text'),
    where ?? 0,
  );
  const children = (node.content ??= []);
  switch ((how ?? 0) % 5) {
    case 0:
      children.splice((what ?? 0) % (children.length + 1), 0, plain(pick(PIECES, what ?? 0)));
      break;
    case 1:
      children.splice((what ?? 0) % Math.max(1, children.length), 1);
      break;
    case 2:
      if (children.length > 0) children[(what ?? 0) % children.length] = plain(pick(PIECES, what ?? 0));
      break;
    case 3:
      children.reverse();
      break;
    default: {
      const inline = all.filter((each) => each.type === 'text' || each.type === 'placeholder');
      if (inline.length > 0) pick(inline, where ?? 0).marks = [plain(pick(MARKS, what ?? 0))];
    }
  }
  for (const each of nodesOf(copy)) if (each.content?.length === 0) delete each.content;
  return copy;
}

describe('the editor and the core', () => {
  it('accept the same documents, and the editor gives them back unchanged', () => {
    fc.assert(
      fc.property(documents, (document) => {
        const node = edited(plain(document));
        expect(node).toBeDefined();
        expect(normalise(plain(node?.toJSON()) as TextDocument)).toEqual(plain(document));
      }),
      { numRuns: 300 },
    );
  });

  it('refuse the same changes of them', () => {
    const change = fc.tuple(fc.nat(), fc.nat(), fc.nat());
    let refused = 0;
    fc.assert(
      fc.property(documents, change, (document, how) => {
        const changed = mutate(plain(document) as unknown as Json, how);
        const core = 'document' in parseDocument(changed);
        if (!core) refused += 1;
        expect({ accepted: edited(changed) !== undefined, changed }).toEqual({ accepted: core, changed });
      }),
      { numRuns: 1500 },
    );
    // Both outcomes must have been seen, or the law says nothing.
    expect(refused).toBeGreaterThan(200);
    expect(refused).toBeLessThan(1300);
  });
});
