import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compile } from '../../compile/compile.js';
import type { Node, TextDocument } from '../../template/document.js';
import { childrenOf, visit } from '../../template/walk.js';
import { normalise } from '../../template/normalise.js';
import { answers, documents } from '../../testing/arbitrary.js';
import { documentOf, program, type Source } from '../../testing/build.js';
import { digestOf } from './digest.js';
import { ProofTable } from './table.js';
import { touches } from './touched.js';
import { unlikeness } from './unlike.js';

const TODAY = '2026-11-24';
const library = { get: () => undefined };
const VARIABLES = 'late: { type: yes-no }\nname: { type: text, required: true }\nparty: { type: number }';
const tableOf = (text: Source): ProofTable =>
  new ProofTable({ name: 'main', document: documentOf(text) }, program(text), { today: TODAY });
const filling = (given: Record<string, unknown>) => ({ recipient: {}, sender: {}, answers: given });

describe('a sheet', () => {
  const table = tableOf({
    body: 'Dear {{name}},\n\n{{#late}}\nYou are late.\n{{/late}}\n\nIt is a {{name}}.',
    variables: VARIABLES,
  });
  const [ann, late] = [table.sheet(filling({ name: 'Ann', late: false })), table.sheet(filling({ late: true }))];
  it('keeps lines, passages, values, blanks and findings of a message', () => {
    expect(ann.lines.map((line) => table.book.line(line))).toEqual(['S', 'Dear Ann,', 'It is a Ann.']);
    expect(late.lines.map((line) => table.book.line(line))).toContain('You are late.');
    expect(table.passages.map(({ tag, label }) => [tag, label])).toEqual([['{{#late}}', 'Late']]);
    expect([[...ann.kept], [...late.kept]]).toEqual([[0], [1]]);
    expect(ann.values).toEqual(['no', 'Ann', '']);
    expect([ann.ready, late.ready, late.blanks]).toEqual([true, false, ['name']]);
    expect(ann.findings.map(({ code }) => code)).toEqual(['a-or-an']);
  });
  it('is known again by its digest, and by nothing else', () => {
    expect(table.sheet(filling({ name: 'Ann', late: false, party: 3 })).digest).toBe(ann.digest);
    expect(late.digest).not.toBe(ann.digest);
    expect(digestOf(['ab', 'c'])).not.toBe(digestOf(['a', 'bc']));
  });
  it('is the more unlike the rest, the fewer share its lines', () => {
    const sheets = ['Ann', 'Ann', 'Ann', 'Bo'].map((name) => table.sheet(filling({ name })));
    const [first = 0, , , last = 0] = unlikeness(sheets);
    expect(last).toBeGreaterThan(first);
    expect(unlikeness(sheets.slice(0, 2))).toEqual(new Float64Array(2));
  });
});

describe('an edit touches', () => {
  const before = 'All.\n\n{{#late}}\nLate{{#late}}, very{{/late}}.\n{{/late}}\n\nEnd{{#late}} late{{/late}}.';
  const held = (body: string, late: boolean): boolean => {
    const [a, b] = [before, body].map((each) => {
      const text = { body: each, variables: VARIABLES };
      return { document: documentOf(text), program: program(text) };
    });
    if (!a || !b) throw new Error('two');
    return touches(a, b)(Uint8Array.from([late ? 1 : 0]));
  };
  it.each<[what: string, body: string, whenLate: boolean, otherwise: boolean]>([
    ['nobody where nothing changed', before, false, false],
    ['those whose passage it is in', before.replace('Late', 'Too late'), true, false],
    ['those whose phrase it is in', before.replace(' late{{/', ' too late{{/'), true, false],
    ['everybody outside passages', before.replace('All', 'Everybody'), true, true],
    ['everybody where both changed', before.replace('All', 'x').replace('Late', 'y'), true, true],
    ['everybody where a passage is new', `${before}\n\n{{^late}}\nx\n{{/late}}`, true, true],
    ['everybody where a block comes in', before.replace('Late', 'Late\n\n{{> other}}\n\n'), true, true],
  ])('%s', (_what, body, whenLate, otherwise) => {
    expect([held(body, true), held(body, false)]).toEqual([whenLate, otherwise]);
  });

  it('every message that reads otherwise after it, whatever the document and the edit', () => {
    let spared = 0;
    fc.assert(
      fc.property(documents, answers, fc.nat(), fc.constantFrom('x', ' y', ''), (document, given, at, insert) => {
        const edited = edit(document, at, insert);
        const [a, b] = [document, edited].map((each) => ({
          document: each,
          program: compile({ name: 'a', document: each }, { library }),
        }));
        if (!a || !b) throw new Error('two');
        const [one, other] = [a, b].map((each) =>
          new ProofTable({ name: 'a', document: each.document }, each.program, { today: TODAY }).sheet(filling(given)),
        );
        if (touches(a, b)(one?.held ?? new Uint8Array())) return;
        if (document !== edited) spared += 1;
        expect([other?.digest, other?.blanks]).toEqual([one?.digest, one?.blanks]);
      }),
      { numRuns: 400 },
    );
    expect(spared).toBeGreaterThan(0);
  });
});

/** Puts letters before those of one text node, or empties it. */
function edit(document: TextDocument, at: number, insert: string): TextDocument {
  const texts: (readonly number[])[] = [];
  visit(document, (node, path) => {
    if (node.type === 'text') texts.push(path);
  });
  const path = texts[at % Math.max(1, texts.length)];
  if (!path) return document;
  const change = (node: Node, [index, ...rest]: readonly number[]): Node => {
    if (index === undefined)
      return node.type === 'text' ? { ...node, text: insert === '' ? '.' : insert + node.text } : node;
    const content = childrenOf(node).map((child, each) => (each === index ? change(child, rest) : child));
    return { ...node, content } as Node;
  };
  return normalise(change(document, path) as TextDocument);
}
