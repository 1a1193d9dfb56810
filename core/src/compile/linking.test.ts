/** What a template brings together: the house around it, signatures, declarations that must agree, limits. */
import { describe, expect, it } from 'vitest';
import { PLAIN_HOUSE, type House } from '../house/house.js';
import { condition } from '../template/condition.js';
import type { Variable } from '../template/variable.js';
import { documentOf, program, type Source } from '../testing/build.js';
import { compile } from './compile.js';
import { MAX_INCLUSIONS } from './inclusions.js';
import { clash } from './slots.js';
import { conditionInWords } from './wording.js';

const findings = (
  text: Source,
  blocks: Readonly<Record<string, Source>> = {},
  options: Parameters<typeof program>[2] = {},
) => program(text, blocks, options).findings;
const said = (...given: Parameters<typeof findings>): string[] =>
  findings(...given).map(({ code, message }) => `${code}: ${message}`);
const withHouse = (style: Partial<House['style']>): { house: House } => ({
  house: { ...PLAIN_HOUSE, style: { ...PLAIN_HOUSE.style, ...style } },
});

describe('the house around a message', () => {
  const blocks = {
    head: { body: 'Letterhead' },
    foot: { body: 'Charity 42' },
    sig: { body: 'Yours', front: 'kind: signature' },
  };
  const texts = (options: Parameters<typeof program>[2], front = 'kind: message\nsubject: S'): readonly string[] =>
    program({ body: 'words', front }, blocks, options).texts;
  it('brings its header before the words, and the signature and its footer behind them', () => {
    const compiled = program({ body: 'words' }, blocks, {
      ...withHouse({ header: 'head', footer: 'foot' }),
      senderSignature: 'sig',
    });
    const words = JSON.stringify(compiled.body);
    const at = ['Letterhead', 'words', 'Yours', 'Charity 42'].map((each) => words.indexOf(each));
    expect(at.every((each) => each >= 0)).toBe(true);
    expect(at).toEqual([...at].sort((a, b) => a - b));
  });
  it('stands around messages alone: a block by itself has neither', () => {
    expect(texts(withHouse({ header: 'head', footer: 'foot' }))).toEqual(expect.arrayContaining(['head', 'foot']));
    expect(texts(withHouse({ header: 'head', footer: 'foot' }), 'kind: block')).toEqual(['main']);
  });
  it('that names a block which there is not says so, and the message is made without', () => {
    expect(said({ body: 'words' }, {}, withHouse({ header: 'nowhere' }))).toEqual([
      'unknown-block: There is no block “nowhere”, which the house style puts in every message.',
    ]);
  });
  it('asks the questions of its blocks once, with those of the message', () => {
    const asking = { head: { body: '{{season}}', variables: 'season: { type: text, label: Season }' } };
    const compiled = program(
      { body: '{{season}}', variables: 'season: { type: text, label: Time of year }' },
      asking,
      withHouse({ header: 'head' }),
    );
    expect(compiled.slots.map(({ key, label }) => [key, label])).toEqual([['season', 'Time of year']]);
    expect(compiled.findings).toEqual([]);
  });
});

describe('a signature that is named', () => {
  it.each([
    ['nowhere', 'unknown-block: There is no signature “nowhere”.'],
    ['hours', 'unknown-block: “hours” is not a signature.'],
  ])('%s: there must be one', (name, words) => {
    const front = `kind: message\nsubject: S\nsignature: ${name}`;
    expect(said({ body: 'words', front }, { hours: { body: 'Open.' } })).toEqual([words]);
  });
});

describe('declarations of one key', () => {
  const variable = (more: Partial<Variable> & Pick<Variable, 'type'>): Variable => ({ key: 'x', ...more });
  it.each<[Variable, Variable, string | undefined]>([
    [variable({ type: 'text' }), variable({ type: 'text', label: 'Other', max_length: 3 }), undefined],
    [variable({ type: 'text' }), variable({ type: 'paragraphs' }), 'type'],
    [variable({ type: 'money', currency: 'EUR' }), variable({ type: 'money', currency: 'GBP' }), 'currency'],
    [variable({ type: 'number', decimals: 1 }), variable({ type: 'number' }), 'decimals'],
    [variable({ type: 'number', unit: 'km' }), variable({ type: 'number', unit: 'm' }), 'unit'],
    [
      variable({ type: 'datetime', zone: 'Europe/Dublin' }),
      variable({ type: 'datetime', zone: 'Europe/Paris' }),
      'zone',
    ],
    [
      variable({ type: 'number', plural: { other: 'a' } }),
      variable({ type: 'number', plural: { other: 'b' } }),
      'plural',
    ],
    [variable({ type: 'number', forms: { is: { other: 'a' } } }), variable({ type: 'number' }), 'forms'],
    [
      variable({ type: 'choice', options: [{ key: 'a' }, { key: 'b' }] }),
      variable({ type: 'choice', options: [{ key: 'b', label: 'B' }, { key: 'a' }] }),
      undefined,
    ],
    [
      variable({ type: 'choice', options: [{ key: 'a' }] }),
      variable({ type: 'choice', options: [{ key: 'b' }] }),
      'options',
    ],
    [
      variable({ type: 'list', columns: [{ key: 'a', type: 'text' }] }),
      variable({ type: 'list', columns: [{ key: 'a', type: 'number' }] }),
      'columns',
    ],
  ])('%j and %j differ in %s', (a, b, attribute) => {
    expect(clash(a, b)).toBe(attribute);
    expect(clash(b, a)).toBe(attribute);
  });
  it('at the same depth: the first in reading order wins', () => {
    const block = (label: string): Source => ({ body: '{{n}}', variables: `n: { type: text, label: ${label} }` });
    const compiled = program({ body: '{{> one}}\n\n{{> two}}' }, { one: block('First'), two: block('Second') });
    expect(compiled.slots.map(({ label }) => label)).toEqual(['First']);
  });
});

describe('what a declaration says of where its value comes from', () => {
  it.each([
    [
      'x: { type: text, from: elsewhere }',
      'bad-value: “x” can be prefilled from recipient.x, sender.x, last or clipboard.',
    ],
    [
      'x: { type: text, from: "recipient.First" }',
      'bad-value: “x” can be prefilled from recipient.x, sender.x, last or clipboard.',
    ],
    [
      'x: { type: number, value: "1 + 1", default: 3 }',
      'bad-value: “x” is calculated, so it cannot also be prefilled.',
    ],
    ['x: { type: email, remember: true }', 'bad-value: A value of type email is never remembered.'],
    ['x: { type: number, max: 5, default: 9 }', 'bad-value: The default of “x” does not fit: This must be 5 or less.'],
  ])('%s', (variables, words) => expect(said({ body: '{{x}}', variables })).toContain(words));
  it.each(['recipient.first_name', 'sender.desk', 'last', 'clipboard'])('from %s is fine', (from) =>
    expect(said({ body: '{{x}}', variables: `x: { type: text, from: ${from} }` })).toEqual([]),
  );
});

describe('languages and zones', () => {
  it('that nobody knows are told of the text they stand in; the house’s stands in', () => {
    const compiled = program(
      { body: '{{> b}}', front: 'kind: message\nsubject: S\nlocale: en-IE' },
      { b: { body: 'x', front: 'kind: block\nlocale: xx-klingon-nonsense' } },
    );
    expect(compiled.findings.map(({ code, place }) => [code, place.text])).toEqual([['unknown-locale', 'b']]);
    expect(said({ body: 'x', front: 'kind: message\nsubject: S\ntimezone: Mars/Olympus' })).toEqual([
      'bad-value: “Mars/Olympus” is not a zone, such as Europe/Dublin.',
    ]);
  });
});

describe('limits of what is brought together', () => {
  it('so many blocks, and one word about it', () => {
    const many = Array.from({ length: MAX_INCLUSIONS + 5 }, () => '{{> b}}').join('\n\n');
    const found = findings({ body: many }, { b: { body: 'x' } });
    expect(found.map(({ code }) => code)).toEqual(['too-deep']);
    expect(found[0]?.message).toContain(`More than ${MAX_INCLUSIONS} blocks`);
  });
  it('so deep, with the way down', () => {
    const blocks = Object.fromEntries(
      Array.from({ length: 20 }, (_, at) => [`d${at}`, { body: at < 19 ? `{{> d${at + 1}}}` : 'end' }]),
    );
    const [found] = findings({ body: '{{> d0}}' }, blocks);
    expect(found?.message).toMatch(/^Blocks nest \d+ deep at most: main → d0 → d1 → /);
  });
  it('a text that there is not is told where it is wanted, every time', () => {
    const compiled = program({ body: '{{> no}}\n\nand {{> no}}' });
    expect(compiled.findings.map(({ code }) => code)).toEqual(['unknown-block', 'unknown-block']);
    const [first, second] = compiled.findings;
    expect(first?.place.path).not.toEqual(second?.place.path);
  });
});

describe('conditions in words', () => {
  const gate: Variable = {
    key: 'gate',
    type: 'choice',
    label: 'Gate',
    options: [{ key: 'north', label: 'North' }, { key: 'south_west' }],
  };
  it.each([
    [condition('guide'), { key: 'guide', type: 'yes-no', label: 'Guided walk' }, 'Guided walk'],
    [condition('guide', [], true), undefined, 'not Guide'],
    [condition('gate', ['north', 'south_west']), gate, 'Gate: North or South west'],
    [condition('gate', ['north'], true), gate, 'Gate: not North'],
    [condition('gate', ['north_east']), undefined, 'Gate: North east'],
    [condition('rows'), { key: 'rows', type: 'list', label: 'Tickets' }, 'for each of Tickets'],
    [condition('rows', [], true), { key: 'rows', type: 'list' }, 'no Rows'],
  ] as const)('%j', (each, variable, words) =>
    expect(conditionInWords(each, variable as Variable | undefined)).toBe(words),
  );
});

describe('compiling again', () => {
  it('gives the same program of the same texts, and changes none of them', () => {
    const document = documentOf({
      body: 'Dear {{x}}, {{#late}}late{{/late}}',
      variables: 'x: { type: text }\nlate: { type: yes-no }',
    });
    const before = JSON.stringify(document);
    const once = compile({ name: 'main', document }, { library: { get: () => undefined } });
    const twice = compile({ name: 'main', document }, { library: { get: () => undefined } });
    expect(JSON.stringify(document)).toBe(before);
    expect(twice.slots.map(({ key }) => key)).toEqual(once.slots.map(({ key }) => key));
    expect(twice.findings).toEqual(once.findings);
  });
});
