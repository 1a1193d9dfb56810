/** What compiling finds and makes, piece by piece: slots, conditions, inclusions, lines. */
import { describe, expect, it } from 'vitest';
import { documentOf, program, type Source } from '../testing/build.js';
import { compile } from './compile.js';
import type { BlockUnit, Governed, Program } from './program.js';

const codes = (compiled: Program): string[] => compiled.findings.map(({ code }) => code);
const slot = (compiled: Program, key: string) => compiled.slots.find((each) => each.key === key);
/** The lines of a body with their tests, outermost first. */
function lines(nodes: readonly Governed<BlockUnit>[], tests: readonly string[] = []): string[] {
  return nodes.flatMap((each): string[] => {
    if (!('node' in each)) return lines(each.children, [...tests, each.test.label]);
    if (each.node.kind !== 'line') return 'children' in each.node ? lines(each.node.children, tests) : [];
    const words = each.node.line.leaves.map((leaf) => (leaf.kind === 'text' ? leaf.text : `<${leaf.kind}>`)).join('');
    return [[...tests, words].join(' > ')];
  });
}

describe('slots', () => {
  const block = (variables: string): Source => ({ body: '{{n}}', variables });
  it('are one for each key, whoever declares it; the outermost declaration says label and default', () => {
    const compiled = program(
      { body: '{{n}} {{> inner}}', variables: 'n: { type: text, label: Outer }' },
      { inner: block('n: { type: text, label: Inner, max_length: 3 }') },
    );
    expect(compiled.slots.map(({ key, label, declarations }) => [key, label, declarations.length])).toEqual([
      ['n', 'Outer', 2],
    ]);
    // The constraints of all hold: a value is taken as it stands only where none has to look at it.
    expect(slot(compiled, 'n')?.asGiven).toBeUndefined();
  });
  it.each([
    ['number', 'type'],
    ['money, currency: EUR', 'type'],
  ])('that are declared as text and as %s clash, with their variable and attribute', (type, attribute) => {
    const compiled = program(
      { body: '{{n}} {{> inner}}', variables: 'n: { type: text }' },
      { inner: block(`n: { type: ${type} }`) },
    );
    const [clash] = compiled.findings.filter(({ code }) => code === 'type-clash');
    expect(clash?.place).toMatchObject({ text: 'inner', variable: 'n', attribute });
    expect(slot(compiled, 'n')?.declarations).toHaveLength(1);
  });
  it('whose values wait for each other are a loop, told once, and stay undecided', () => {
    const compiled = program({
      body: '{{a}}',
      variables: 'a: { type: number, value: "b + 1" }\nb: { type: number, value: "a + 1" }',
    });
    expect(codes(compiled)).toEqual(['value-loop']);
  });
  it('with a calculated value know what they read', () => {
    const compiled = program({
      body: '{{sum}}',
      variables: 'a: { type: number }\nb: { type: number }\nsum: { type: number, value: "a + b * 2" }',
    });
    expect(slot(compiled, 'sum')?.inputs.map(({ key }) => key)).toEqual(['a', 'b']);
    expect(slot(compiled, 'a')?.inputs).toEqual([]);
  });
});

describe('conditions', () => {
  const VARIABLES =
    'late: { type: yes-no }\nn: { type: text }\ngate: { type: choice, options: { north: { label: North }, south: {} } }\nrows: { type: list, columns: { item: { type: text } } }';
  const of = (tag: string): Program => program({ body: `{{#${tag}}}\nwords\n{{/${tag}}}`, variables: VARIABLES });
  it.each([['late'], ['gate.north'], ['rows']])('on %s govern', (tag) => {
    const compiled = of(tag);
    expect(codes(compiled)).toEqual([]);
    expect(lines(compiled.body)[0]).toMatch(/^.+ > words$/);
  });
  it.each([
    ['n', 'neither a yes-no'],
    ['gate', 'name the options'],
    ['gate.west', 'no option “west”'],
    ['late.north', 'has no options'],
  ])('on %s are refused, and say why', (tag, words) => {
    const compiled = of(tag);
    const [finding] = compiled.findings.filter(({ code }) => code === 'not-a-condition');
    expect(finding?.message).toContain(words);
    // What cannot be governed is kept: nothing an author wrote goes missing without a word.
    expect(lines(compiled.body)).toEqual(['words']);
  });
  it('that nest are kept in order, outermost first', () => {
    const compiled = program({
      body: '{{#late}}\n{{#gate.north}}\nboth\n{{/gate.north}}\n{{/late}}',
      variables: VARIABLES,
    });
    expect(lines(compiled.body)).toEqual([expect.stringMatching(/late.* > .*North.* > both$/i)]);
  });
  it('on a list do not repeat inside a line', () => {
    expect(codes(program({ body: 'a {{#rows}}x{{/rows}} b', variables: VARIABLES }))).toContain('repeat-in-line');
  });
});

describe('inclusions', () => {
  it('bring their words, and nest', () => {
    const compiled = program({ body: 'one\n\n{{> b}}' }, { b: { body: 'two\n\n{{> c}}' }, c: { body: 'three' } });
    expect(lines(compiled.body)).toEqual(['one', 'two', 'three']);
    expect(compiled.texts).toEqual(['main', 'b', 'c']);
  });
  it('that include themselves are a loop, told with its way, and end', () => {
    const compiled = program({ body: '{{> b}}' }, { b: { body: 'x\n\n{{> c}}' }, c: { body: '{{> b}}' } });
    const [loop] = compiled.findings.filter(({ code }) => code === 'block-loop');
    expect(loop?.message).toContain('b → c → b');
    expect(lines(compiled.body)).toEqual(['x']);
  });
  it('of more than a paragraph do not stand inside a line', () => {
    expect(codes(program({ body: 'a {{> b}} c' }, { b: { body: 'one\n\ntwo' } }))).toContain('block-in-line');
    expect(codes(program({ body: 'a {{> b}} c' }, { b: { body: 'one' } }))).toEqual([]);
  });
  it('inside a repeat see its columns before variables of the same key', () => {
    const compiled = program(
      {
        body: '{{#rows}}\n{{> line}}\n{{/rows}}',
        variables: 'rows: { type: list, columns: { item: { type: text } } }',
      },
      { line: { body: '{{item}}', variables: 'item: { type: text }' } },
    );
    expect(codes(compiled)).toEqual([]);
    expect(compiled.slots.map(({ key }) => key)).toEqual(['rows']);
  });
});

describe('lines', () => {
  it('know whether a seam can arise in them', () => {
    const plain = (body: string, variables = 'n: { type: text }\nlate: { type: yes-no }'): boolean => {
      const [first] = program({ body, variables }).body;
      return first !== undefined && 'node' in first && first.node.kind === 'line' && first.node.line.plain;
    };
    expect(plain('Dear {{n}}, hello.')).toBe(true);
    expect(plain('Dear {{#late}}late {{/late}}friend')).toBe(false);
    expect(plain('a **bold** word')).toBe(false);
  });
  it('tell of what a placeholder names and there is not, and of views that a type has not', () => {
    expect(codes(program({ body: '{{nobody}} {{house.nothing}}' }))).toEqual(['unknown-variable', 'unknown-variable']);
    expect(codes(program({ body: '{{n.backwards}}', variables: 'n: { type: text }' }))).toEqual(['unknown-view']);
    expect(
      codes(program({ body: '{{rows}}', variables: 'rows: { type: list, columns: { a: { type: text } } }' })),
    ).toEqual(['unknown-view']);
  });
  it('lead nowhere unsafe', () => {
    expect(codes(program({ body: '[a](javascript:alert) [b](https://x.example)' }))).toEqual(['unsafe-link']);
  });
  it('name the colours that the message uses, and no other', () => {
    const compiled = program({
      body: '<span data-colour="moss">a</span> <mark data-colour="slate">b</mark> <span data-colour="nowhere">c</span>',
    });
    expect([...compiled.colours]).toEqual(['c-moss', 'h-slate']);
  });
});

describe('a template', () => {
  it('of a message needs a subject; an answer and a block do not', () => {
    const of = (front: string): string[] =>
      codes(compile({ name: 'x', document: documentOf({ body: 'a', front }) }, { library: { get: () => undefined } }));
    expect(of('kind: message')).toEqual(['no-subject']);
    expect(of('kind: message\npurpose: reply')).toEqual([]);
    expect(of('kind: block')).toEqual([]);
  });
  it('with a signature of its own takes none of the sender', () => {
    const blocks = {
      mine: { body: 'Mine', front: 'kind: signature' },
      theirs: { body: 'Theirs', front: 'kind: signature' },
    };
    const of = (front: string, body = 'words'): string[] =>
      lines(program({ body, front: `kind: message\nsubject: S${front}` }, blocks, { senderSignature: 'theirs' }).body);
    expect(of('')).toEqual(['words', 'Theirs']);
    expect(of('\nsignature: mine')).toEqual(['words', 'Mine']);
    expect(of('\nsignature: none')).toEqual(['words']);
    expect(of('', 'words\n\n{{> mine}}')).toEqual(['words', 'Mine']);
  });
});
