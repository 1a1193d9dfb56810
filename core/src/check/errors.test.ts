/** Every error of the language: what brings it about, where it is said to be, and what comes close without being one. */
import { describe, expect, it } from 'vitest';
import { compile } from '../compile/compile.js';
import { readText } from '../formats/markdown/index.js';
import { render } from '../render/render.js';
import { source, type Source } from '../testing/build.js';
import { check } from './index.js';
import type { Finding } from '../findings/finding.js';

const FRONT = 'kind: message\nsubject: S\nlocale: en-IE\nsignature: none';
type Text = Partial<Source>;

function library(blocks: Readonly<Record<string, Text>>) {
  return {
    get: (name: string) => {
      const block = Object.hasOwn(blocks, name) ? blocks[name] : undefined;
      return block && readText(source({ body: 'words', front: 'kind: block\nlocale: en-IE', ...block })).document;
    },
  };
}
function findings(text: Text, blocks: Readonly<Record<string, Text>> = {}): readonly Finding[] {
  const read = readText(source({ body: 'words', front: FRONT, ...text }));
  return [...read.findings, ...check({ name: 'main', document: read.document }, { library: library(blocks) })];
}
const codes = (text: Text, blocks: Readonly<Record<string, Text>> = {}): string[] =>
  findings(text, blocks)
    .filter((finding) => finding.level === 'error')
    .map((finding) => finding.code);

interface Case {
  readonly code: string;
  readonly fault: Text;
  readonly near: Text;
  readonly blocks?: Readonly<Record<string, Text>>;
  /** What the place must say. */
  readonly at?: Readonly<Record<string, unknown>>;
}
const v = (variables: string): Text => ({ variables });
const X = 'x: { type: yes-no }';
const GATE = 'gate: { type: choice, options: { north: {}, river: {} } }';
const LIST = 'rows: { type: list, columns: { item: { type: text } } }';
const SIGNATURE = { body: 'Yours', front: 'kind: signature' };

const CASES: readonly Case[] = [
  { code: 'unknown-type', fault: v('x: { type: colour }'), near: v('x: { type: text }') },
  {
    code: 'unknown-attribute',
    fault: v('x: { type: text, currency: EUR }'),
    near: v('x: { type: money, currency: EUR }'),
  },
  {
    code: 'unknown-variable',
    fault: { body: 'one\n\n{{nobody}}' },
    near: { body: '{{recipient.nobody}}' },
    at: { path: [9, 1, 0] },
  },
  { code: 'unknown-variable', fault: { body: '{{#nobody}}a{{/nobody}}' }, near: { body: '{{#x}}a{{/x}}', ...v(X) } },
  { code: 'unknown-variable', fault: { body: '{{house.fee}}' }, near: { body: '{{sender.fee}}' } },
  {
    code: 'unknown-view',
    fault: { body: '{{x.shout}}', ...v('x: { type: text }') },
    near: { body: '{{x.upper}}', ...v('x: { type: text }') },
  },
  { code: 'unknown-view', fault: { body: '{{rows}}', ...v(LIST) }, near: { body: '{{rows.item}}', ...v(LIST) } },
  { code: 'unknown-block', fault: { body: '{{> nowhere}}' }, near: { body: '{{> hours}}' }, blocks: { hours: {} } },
  { code: 'unsupported-tag', fault: { body: '{{{x}}}', ...v(X) }, near: { body: '\\{{{x}}}', ...v(X) } },
  { code: 'bad-key', fault: v('Party: { type: text }'), near: v('party: { type: text }') },
  { code: 'bad-key', fault: v(`${'a'.repeat(41)}: { type: text }`), near: v(`${'a'.repeat(40)}: { type: text }`) },
  { code: 'reserved-key', fault: v('size: { type: text }'), near: v('sizes: { type: text }') },
  {
    code: 'reserved-key',
    fault: v('rows: { type: list, columns: { count: { type: text } } }'),
    near: v('rows: { type: list, columns: { counted: { type: text } } }'),
  },
  {
    code: 'duplicate-key',
    fault: v('x: { type: text }\nx: { type: date }'),
    near: v('x: { type: text }\ny: { type: date }'),
  },
  { code: 'unclosed-passage', fault: { body: '{{#x}}\na', ...v(X) }, near: { body: '{{#x}}\na\n{{/x}}', ...v(X) } },
  {
    code: 'unclosed-passage',
    fault: { body: '**{{#x}}a**{{/x}}', ...v(X) },
    near: { body: '**{{#x}}a{{/x}}**', ...v(X) },
  },
  {
    code: 'not-a-condition',
    fault: { body: '{{#x}}a{{/x}}', ...v('x: { type: text }') },
    near: { body: '{{#x}}a{{/x}}', ...v(X) },
  },
  {
    code: 'not-a-condition',
    fault: { body: '{{#gate.south}}a{{/gate.south}}', ...v(GATE) },
    near: { body: '{{#gate.north|river}}a{{/gate.north|river}}', ...v(GATE) },
  },
  {
    code: 'not-a-condition',
    fault: { body: '{{#gate}}a{{/gate}}', ...v(GATE) },
    near: { body: '{{gate}}', ...v(GATE) },
  },
  {
    code: 'repeat-in-line',
    fault: { body: 'for {{#rows}}{{item}}{{/rows}}', ...v(LIST) },
    near: { body: 'for {{^rows}}nobody{{/rows}}', ...v(LIST) },
  },
  {
    code: 'block-loop',
    fault: { body: '{{> a}}' },
    near: { body: '{{> b}}{{> b}}' },
    blocks: { a: { body: '{{> c}}' }, c: { body: '{{> a}}' }, b: {} },
  },
  {
    code: 'too-deep',
    fault: { body: '{{> d0}}' },
    near: { body: '{{> d1}}' },
    blocks: Object.fromEntries(
      Array.from({ length: 17 }, (_, at) => [`d${at}`, at < 16 ? { body: `{{> d${at + 1}}}` } : {}]),
    ),
  },
  {
    code: 'block-in-line',
    fault: { body: 'see {{> two}}' },
    near: { body: 'see {{> one}}' },
    blocks: { two: { body: 'a\n\nb' }, one: { body: 'a' } },
  },
  {
    code: 'two-signatures',
    fault: { body: '{{> yours}}\n\n{{> mine}}' },
    near: { body: '{{#x}}\n{{> yours}}\n{{/x}}\n\n{{^x}}\n{{> mine}}\n{{/x}}', ...v(X) },
    blocks: { yours: SIGNATURE, mine: SIGNATURE },
  },
  {
    code: 'value-loop',
    fault: v('a: { type: number, value: "b + 1" }\nb: { type: number, value: "a + 1" }'),
    near: v('a: { type: number, value: "b + 1" }\nb: { type: number }'),
    at: { attribute: 'value' },
  },
  {
    code: 'type-clash',
    fault: { body: '{{x}} {{> b}}', ...v('x: { type: text }') },
    near: { body: '{{y}} {{> b}}', ...v('y: { type: text }') },
    blocks: { b: { body: '{{x}}', variables: 'x: { type: date }' } },
    at: { text: 'b', variable: 'x', attribute: 'type' },
  },
  {
    code: 'bad-expression',
    fault: v('n: { type: number }\nx: { type: number, value: "n + " }'),
    near: v('n: { type: number }\nx: { type: number, value: "n + 1" }'),
    at: { variable: 'x', attribute: 'value' },
  },
  {
    code: 'bad-value',
    fault: v('x: { type: date, default: 2027-02-31 }'),
    near: v('x: { type: date, default: 2027-02-28 }'),
  },
  {
    code: 'bad-value',
    fault: v('x: { type: number, min: 5, max: 2 }'),
    near: v('x: { type: number, min: 2, max: 5 }'),
  },
  { code: 'no-subject', fault: { front: 'kind: message' }, near: { front: 'kind: message\npurpose: reply' } },
  { code: 'no-subject', fault: { front: 'kind: message\nsubject: ""' }, near: { front: 'kind: block' } },
  {
    code: 'unsafe-link',
    fault: { body: '[a](javascript:alert(1))' },
    near: { body: '[a](https://x.example/?javascript:1)' },
  },
  { code: 'unsafe-link', fault: { body: '![m](data:image/png;base64,AA)' }, near: { body: '![m](assets/m.png)' } },
];

describe('errors', () => {
  it.each(CASES)('$code: $fault', ({ code, fault, near, blocks, at }) => {
    const found = findings(fault, blocks).find((finding) => finding.code === code);
    expect(found?.level).toBe('error');
    expect(found?.message).not.toBe('');
    if (at) expect(found?.place).toMatchObject(at);
    expect(codes(near, blocks)).not.toContain(code);
  });

  it('of values are said of the message they are in, and count as missing', () => {
    const { document } = readText(
      source({ body: '{{day}}', front: `${FRONT}\nto: "{{x}}"`, variables: 'day: { type: date }\nx: { type: text }' }),
    );
    const program = compile({ name: 'main', document }, { library: library({}) });
    const codesFor = (answers: Record<string, unknown>): string[] =>
      render(program, { answers, today: '2026-11-24' }).findings.map((finding) => finding.code);
    expect(codesFor({ day: '31 February' })).toEqual(['bad-value']);
    expect(codesFor({ x: 'not an address' })).toEqual(['bad-address']);
    expect(codesFor({ day: '2027-02-28', x: 'Ann Lee <ann@x.example>' })).toEqual([]);
  });

  it('unknown-locale is a warning, and the house’s language stands in', () => {
    const warnings = findings({ front: `${FRONT.replace('en-IE', 'xx-klingon-nonsense')}` });
    expect(warnings.map(({ code, level }) => [code, level])).toEqual([['unknown-locale', 'warning']]);
    expect(findings({ front: FRONT.replace('en-IE', 'ga-IE') })).toEqual([]);
  });

  it('long-subject is told by what a reader would see', () => {
    const subject = (words: string) =>
      findings({ front: FRONT.replace('subject: S', `subject: "${words}"`) }).map((each) => each.code);
    expect(subject('A visit in the spring '.repeat(7))).toEqual(['long-subject']);
    expect(subject('A visit in spring')).toEqual([]);
  });
});
