import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compile } from '../compile/compile.js';
import { namesIn, renameIn } from '../expression/names.js';
import { writeText } from '../formats/markdown/index.js';
import { render } from '../render/render.js';
import type { TextDocument } from '../template/document.js';
import { isReserved } from '../template/keys.js';
import { normalise } from '../template/normalise.js';
import { documents } from '../testing/arbitrary.js';
import { documentOf } from '../testing/build.js';
import {
  keyProblem,
  mapDocument,
  mergeVariables,
  readersOf,
  removeVariable,
  renameVariable,
  retypeVariable,
  usesOf,
} from './index.js';

const NO_LIBRARY = { library: { get: () => undefined } };
const CONTEXT = { today: '2026-11-24', locale: 'en-GB' };
const body = (document: TextDocument): string => writeText(document).split('\n---\n')[1]?.trim() ?? '';
const textOf = (document: TextDocument, answers: Record<string, unknown>): string =>
  render(compile({ name: 'main', document }, NO_LIBRARY), { answers, today: '2026-11-24' }).text.trim();

const VISIT = documentOf({
  front: 'kind: message\nsubject: "Visit of {{party}} on {{day}}"\nto: "{{recipient.email}}"',
  variables: [
    'party: { type: number, plural: { one: guest, other: guests }, default: "12" }',
    'day: { type: date }',
    'big: { type: yes-no, value: "party >= 15.0 && size(tickets) > 0" }',
    'gate: { type: choice, default: river, options: { river: { label: River, wording: "river, for {{party.counted}}" }, north: { label: North } } }',
    'tickets: { type: list, columns: { party: { type: text }, price: { type: money, currency: EUR }, all: { type: number, value: "price * 2" } } }',
  ].join('\n'),
  body: [
    '{{#big}}',
    'Come by the {{gate}} with {{party.counted}}{{#gate.river}}, by boat{{/gate.river}}. [Look](https://larkmoor.example/{{party}})',
    '{{/big}}',
    '',
    '{{#tickets}}',
    '- {{party}}: {{price}}',
    '{{/tickets}}',
  ].join('\n'),
});

describe('uses of variables', () => {
  it('are found in lines, targets, conditions, wordings and expressions, and not where a column has the name', () => {
    const uses = usesOf(VISIT).filter(({ key }) => key === 'party');
    expect(uses.map(({ kind }) => kind)).toEqual(['placeholder', 'placeholder', 'target', 'expression', 'placeholder']);
    expect(uses[4]).toMatchObject({ variable: 'gate', option: 'river' });
    expect(
      usesOf(VISIT)
        .filter(({ key }) => key === 'tickets')
        .map(({ kind }) => kind),
    ).toEqual(['passage', 'expression']);
  });
  it('in expressions leave out quoted words, rows, fields and functions, also while one is being written', () => {
    const names = (source: string) => namesIn(source).map(({ name }) => name);
    expect(names('tickets.exists(t, t.price > limit) && kind == "t limit"')).toEqual(['tickets', 'limit', 'kind']);
    expect(names('party > && round(price) < "party')).toEqual(['party', 'price']);
    expect(renameIn('party + tickets.map(party, party.price).size() + party', 'party', 'guests')).toBe(
      'guests + tickets.map(party, party.price).size() + guests',
    );
  });
});

describe('renaming', () => {
  it('changes every place, and nothing that a column of the same name stands for', () => {
    const renamed = renameVariable(VISIT, 'party', 'guests');
    const file = writeText(renamed);
    expect(file).toContain('Visit of {{guests}} on');
    expect(file).toContain('https://larkmoor.example/{{guests}}');
    expect(file).toContain('river, for {{guests.counted}}');
    expect(file).toContain('guests >= 15.0');
    expect(file).toContain('- {{party}}: {{price}}');
    const answers = { party: 20, guests: 20, day: '2027-05-11', tickets: [{ party: 'adult', price: 8 }] };
    expect(textOf(renamed, answers)).toBe(textOf(VISIT, answers));
  });
  it('and back gives the same text, whatever it is', () => {
    fc.assert(
      fc.property(documents, fc.nat(), (document, at) => {
        const { variables } = document.attrs;
        const key = variables[at % Math.max(1, variables.length)]?.key;
        if (key === undefined || isReserved(key)) return;
        const once = renameVariable(document, key, 'zz_new');
        expect(usesOf(once).some((use) => use.key === key)).toBe(false);
        expect(usesOf(once).filter((use) => use.key === 'zz_new')).toHaveLength(
          usesOf(document).filter((use) => use.key === key).length,
        );
        expect(renameVariable(once, 'zz_new', key)).toEqual(normalise(document));
      }),
    );
  });
  it('refuses keys that cannot be', () => {
    expect(keyProblem(VISIT, 'Guests')).toMatch(/small letters/);
    expect(keyProblem(VISIT, 'size')).toMatch(/meaning of its own/);
    expect(keyProblem(VISIT, 'day')).toMatch(/merged/);
    expect(keyProblem(VISIT, 'guests')).toBeUndefined();
  });
});

describe('taking out', () => {
  it('leaves words, and passages with or without their brackets', () => {
    const unwrapped = removeVariable(VISIT, 'big', { words: '', passages: 'unwrap' });
    expect(body(unwrapped)).toMatch(/^Come by the/);
    expect(body(removeVariable(VISIT, 'big', { words: '', passages: 'out' }))).toMatch(/^\{\{#tickets\}\}/);
    const phrase = removeVariable(VISIT, 'gate', { words: 'gate', passages: 'out' });
    expect(body(phrase)).toContain('Come by the gate with {{party.counted}}. ');
    expect(body(removeVariable(VISIT, 'tickets', { words: '', passages: 'unwrap' }))).toMatch(/^- \{\{party\}\}/m);
    expect(readersOf(VISIT, 'party')).toEqual(['big']);
  });
  it('never leaves a use, except in expressions', () => {
    fc.assert(
      fc.property(documents, fc.nat(), fc.boolean(), (document, at, out) => {
        const key = document.attrs.variables[at % Math.max(1, document.attrs.variables.length)]?.key;
        if (key === undefined) return;
        const left = removeVariable(document, key, { words: 'w', passages: out ? 'out' : 'unwrap' });
        expect(usesOf(left).filter((use) => use.key === key && use.kind !== 'expression')).toEqual([]);
      }),
    );
  });
});

describe('merging', () => {
  const TWO = documentOf({
    variables: [
      'way: { type: choice, help: Which, options: { a: { label: River }, b: { label: Moor } } }',
      'gate: { type: choice, options: { river: { label: River }, b: { label: Bog } } }',
    ].join('\n'),
    body: 'By {{way}} and {{gate}}{{#way.a}} one{{/way.a}}{{#way.b}} two{{/way.b}}{{#gate.b}} three{{/gate.b}}.',
  });
  it('joins options by key and label, and says what is lost', () => {
    const { document, lost } = mergeVariables(TWO, 'way', 'gate');
    expect(document.attrs.variables.map(({ key }) => key)).toEqual(['gate']);
    expect(document.attrs.variables[0]?.options?.map(({ key, label }) => [key, label])).toEqual([
      ['river', 'River'],
      ['b', 'Bog'],
      ['b_2', 'Moor'],
    ]);
    expect(body(document)).toBe(
      'By {{gate}} and {{gate}}{{#gate.river}} one{{/gate.river}}{{#gate.b_2}} two{{/gate.b_2}}{{#gate.b}} three{{/gate.b}}.',
    );
    expect(lost).toEqual(['help']);
  });
  it('leaves variables of different types alone', () => {
    expect(mergeVariables(VISIT, 'party', 'day').document).toBe(VISIT);
  });
});

describe('another type', () => {
  it('keeps what fits and lists what does not', () => {
    const { document, lost } = retypeVariable(VISIT, 'party', 'money', CONTEXT);
    expect(document.attrs.variables[0]).toEqual({ key: 'party', type: 'money', currency: 'EUR', default: '12' });
    expect(lost).toEqual(['“plural”', 'the view in 2 places', 'perhaps 1 use in formulas']);
    expect(body(document)).toContain('with {{party}}');
    expect(retypeVariable(VISIT, 'party', 'date', CONTEXT).lost).toContain('the default');
  });
  it('turns options to a yes and back, and takes brackets off that nothing could govern', () => {
    const yesNo = retypeVariable(VISIT, 'gate', 'yes-no', CONTEXT);
    expect(body(yesNo.document)).toContain('{{#gate}}, by boat{{/gate}}');
    expect(yesNo.lost).toContain('which option keeps a passage');
    const back = retypeVariable(yesNo.document, 'gate', 'choice', CONTEXT);
    expect(body(back.document)).toContain('{{#gate.yes}}, by boat{{/gate.yes}}');
    const text = retypeVariable(VISIT, 'gate', 'text', CONTEXT);
    expect(body(text.document)).toContain('{{party.counted}}, by boat.');
    expect(text.document.attrs.variables.find(({ key }) => key === 'gate')?.default).toBe('River');
    expect(text.lost).toEqual(['“options”', 'a bracket; the words stay']);
  });
  it('gives documents that still compile, whatever they are', () => {
    const types = ['text', 'number', 'money', 'yes-no', 'choice', 'choices', 'list'] as const;
    fc.assert(
      fc.property(documents, fc.nat(), fc.constantFrom(...types), (document, at, type) => {
        const key = document.attrs.variables[at % Math.max(1, document.attrs.variables.length)]?.key;
        if (key === undefined) return;
        const { document: changed } = retypeVariable(document, key, type, CONTEXT);
        expect(changed).toEqual(normalise(changed));
        expect(() =>
          render(compile({ name: 'main', document: changed }, NO_LIBRARY), { today: '2026-11-24' }),
        ).not.toThrow();
      }),
    );
  });
});

it('a map that changes nothing gives the same text', () => {
  fc.assert(
    fc.property(documents, (document) => {
      expect(mapDocument(document, {})).toEqual(normalise(document));
    }),
  );
});
