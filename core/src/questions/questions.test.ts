import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compile } from '../compile/compile.js';
import { render } from '../render/render.js';
import { answers as someAnswers, documents } from '../testing/arbitrary.js';
import { program, type Source } from '../testing/build.js';
import { questions } from './questions.js';

const ask = (
  text: Source,
  answers: Record<string, unknown> = {},
  more: { recipient?: Record<string, unknown>; blocks?: Record<string, Source> } = {},
) =>
  questions(program(text, more.blocks), { answers, recipient: more.recipient ?? {}, today: '2026-11-24' }).map(
    (question) => question.key,
  );

const VARIABLES = `name: { type: text, required: true }
late: { type: yes-no }
why: { type: text }
gate: { type: choice, options: { north: { wording: "north of {{tree}}" }, river: {} } }
tree: { type: text }
party: { type: number }
fee: { type: number, value: "late ? 1 : party * 2" }
big: { type: yes-no, value: "party > 15" }`;

describe('questions', () => {
  it('come in the order of reading: subject, body, then addresses', () => {
    const front = 'kind: message\nsubject: "{{why}}"\nto: "{{tree}}@x.example"';
    expect(ask({ body: '{{name}} {{party}}', front, variables: VARIABLES })).toEqual(['why', 'name', 'party', 'tree']);
  });

  it('put a condition before its content, which is asked only while it can be kept', () => {
    const text = { body: '{{#late}}{{why}}{{/late}} {{^late}}{{name}}{{/late}}', variables: VARIABLES };
    expect(ask(text)).toEqual(['late', 'name']);
    expect(ask(text, { late: true })).toEqual(['late', 'why']);
  });

  it('put a choice before the variables of its chosen wording', () => {
    const text = { body: '{{gate}} {{name}}', variables: VARIABLES };
    expect(ask(text)).toEqual(['gate', 'name']);
    expect(ask(text, { gate: 'north' })).toEqual(['gate', 'tree', 'name']);
    expect(ask(text, { gate: 'river' })).toEqual(['gate', 'name']);
  });

  it('ask the inputs of what is worked out, where it first matters', () => {
    expect(ask({ body: '{{fee}} {{name}}', variables: VARIABLES })).toEqual(['late', 'party', 'name']);
    expect(ask({ body: '{{#big}}a{{/big}}{{name}}', variables: VARIABLES })).toEqual(['party', 'name']);
  });

  it('are asked once, however often and deep they stand', () => {
    const text = { body: '{{name}} {{> b}} {{name}}', variables: VARIABLES };
    const blocks = { b: { body: '{{name}} and {{other}}', variables: 'name: { type: text }\nother: { type: text }' } };
    expect(ask(text, {}, { blocks })).toEqual(['name', 'other']);
  });

  it('say what prefilled them, and what is wrong with an answer', () => {
    const variables =
      'a: { type: text, from: recipient.a }\nb: { type: text, default: usual }\nc: { type: number }\nd: { type: text }';
    const found = questions(program({ body: '{{a}}{{b}}{{c}}{{d}}', variables }), {
      recipient: { a: 'Ann' },
      answers: { c: 'abc' },
      today: '2026-11-24',
    });
    expect(found.map(({ key, source, value }) => [key, source, value])).toEqual([
      ['a', 'recipient', 'Ann'],
      ['b', 'default', 'usual'],
      ['c', 'answer', undefined],
      ['d', 'none', undefined],
    ]);
    expect(found[2]?.problem).toMatch(/number/);
  });

  it('name the passages around the place where they first matter', () => {
    const found = questions(
      program({
        body: '{{#late}}\n{{why}}\n{{/late}}',
        variables: 'late: { type: yes-no, label: Late in the year }\nwhy: { type: text }',
      }),
      { answers: { late: true }, today: '2026-11-24' },
    );
    expect(found.map(({ key, within }) => [key, within])).toEqual([
      ['late', []],
      ['why', ['Late in the year']],
    ]);
  });

  it('leave nothing blank that was not asked', () => {
    fc.assert(
      fc.property(documents, someAnswers, (document, answers) => {
        const compiled = compile({ name: 'a', document }, { library: { get: () => undefined } });
        const input = { answers, today: '2026-11-24' };
        const asked = new Set(questions(compiled, input).map((question) => question.key));
        for (const key of render(compiled, input).blanks) expect(asked).toContain(key);
      }),
      { numRuns: 300 },
    );
  });
});
