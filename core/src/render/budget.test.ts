/** A message is bounded work: beyond that it is a finding, not a wait. */
import { describe, expect, it } from 'vitest';
import { compile } from '../compile/compile.js';
import { readText } from '../formats/markdown/index.js';
import { render, renderHtml } from './render.js';

const program = (variables: string, body: string, blocks: Readonly<Record<string, string>> = {}) =>
  compile(
    {
      name: 'x',
      document: readText(
        `---\nvocabula: 1\nkind: message\ntitle: T\nsubject: S\nto: a@x.example\nvariables:\n${variables}---\n${body}\n`,
      ).document,
    },
    {
      library: {
        get: (name) =>
          blocks[name] === undefined
            ? undefined
            : readText(`---\nvocabula: 1\nkind: block\ntitle: ${name}\n---\n${blocks[name]}\n`).document,
      },
    },
  );
const rows = (count: number) => Array.from({ length: count }, (_, n) => ({ n }));
const input = (answers: Readonly<Record<string, unknown>>) => ({
  recipient: {},
  sender: {},
  answers,
  today: '2027-01-01',
});
const LISTS =
  '  a:\n    type: list\n    columns:\n      n: { type: number }\n  b:\n    type: list\n    columns:\n      n: { type: number }\n';

describe('a message that is too much work', () => {
  it('says so for calculated values of lists in lists', () => {
    const values = Array.from(
      { length: 20 },
      (_, at) => `  v${at}: { type: number, value: "sum(a.map(x, sum(a.map(y, x.n * y.n + ${at}.0))))" }\n`,
    ).join('');
    const body = Array.from({ length: 20 }, (_, at) => `{{v${at}}}`).join(' ');
    const made = program(LISTS + values, body);
    const message = render(made, input({ a: rows(1000), b: [] }));
    expect(message.ready).toBe(false);
    expect(message.findings.map(({ code }) => code)).toContain('too-costly');
    const small = render(made, input({ a: rows(20), b: [] }));
    expect([small.ready, small.findings]).toEqual([true, []]);
  });
  it('says so for a column asked for in each row of each row', () => {
    const made = program(`${LISTS}  v: { type: number, value: "sum(a.map(x, sum(a.map(y, sum(a.n)))))" }\n`, '{{v}}');
    expect(render(made, input({ a: rows(400), b: [] })).findings.map(({ code }) => code)).toContain('too-costly');
  });
  it('says so for repeats in repeats, and stops writing', () => {
    const made = program(LISTS, '{{#a}}\n{{#b}}\nA paragraph of words.\n{{/b}}\n{{/a}}');
    const message = render(made, input({ a: rows(1000), b: rows(1000) }));
    expect(message.findings.map(({ code }) => code)).toContain('too-costly');
    expect(renderHtml(made, input({ a: rows(1000), b: rows(1000) })).length).toBeLessThan(60_000_000);
    const usual = render(made, input({ a: rows(40), b: rows(40) }));
    expect(usual.findings).toEqual([]);
  });
  it('lets a thousand rows with calculated columns be', () => {
    const made = program(
      '  a:\n    type: list\n    columns:\n      n: { type: number }\n      m: { type: number, value: "n * 2.0" }\n  total: { type: number, value: "sum(a.m)" }\n',
      '{{#a}}\n- {{n}} and {{m}}\n{{/a}}\n\nTogether {{total}}.',
    );
    expect(render(made, input({ a: rows(1000) })).findings).toEqual([]);
  });
});

describe('blocks in blocks', () => {
  it('that multiply are a finding when they are compiled', () => {
    const many = (name: string) => Array.from({ length: 30 }, () => `{{> ${name}}}`).join('\n\n');
    const leaf = Array.from({ length: 400 }, () => 'Words.').join('\n\n');
    const made = program('  n: { type: text }\n', many('one'), { one: many('two'), two: leaf });
    expect(made.findings.map(({ code }) => code)).toContain('too-deep');
  });
});
