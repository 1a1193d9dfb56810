/** Adds a type of variable, a visitor's reference such as `LM-0042`, and takes it through everything that types do. */
import { describe, expect, it, vi } from 'vitest';
import type { ValueType } from './type.js';

const reference = vi.hoisted((): ValueType => ({
  name: 'reference' as ValueType['name'],
  attributes: [],
  parse: (input) =>
    typeof input === 'string' && /^LM-\d{4}$/.test(input)
      ? { value: input }
      : { problem: 'This must be a reference, such as LM-0042.' },
  views: () => ['figures'],
  formatter: (_variable, view) =>
    view === '' ? String : view === 'figures' ? (value) => String(value).slice(3) : undefined,
  declared: () => [],
  specimen: () => 'LM-0042',
  expressionType: 'string',
  family: 'text',
  control: 'line',
  isPersonal: true,
  column: 'text',
  outcomes: () => [
    {
      levels: [
        { key: 'low', label: 'a low number' },
        { key: 'high', label: 'a high number' },
      ],
      levelOf: (value) => (value === undefined ? -1 : Number(String(value) > 'LM-5000')),
    },
  ],
  tried: () => ['LM-0001', 'LM-9999'],
  hard: ({ isLongest }) => (isLongest ? 'LM-8888' : undefined),
  madeUp: ({ at }) => `LM-${String(at + 1).padStart(4, '0')}`,
}));

vi.mock('./scalar.js', async (original) => {
  const real = await original<typeof import('./scalar.js')>();
  const scalarType: typeof real.scalarType = (name) => (name === reference.name ? reference : real.scalarType(name));
  return { ...real, scalarType };
});
vi.mock('../template/variable.js', async (original) => {
  const real = await original<typeof import('../template/variable.js')>();
  return { ...real, TYPE_NAMES: [...real.TYPE_NAMES, 'reference'] };
});

const { documentOf, program, rendered, textOf, codesOf } = await import('../testing/build.js');
const { parseDocument } = await import('../template/schema.js');
const { writeText } = await import('../formats/markdown/index.js');
const { questions } = await import('../questions/questions.js');
const { comparisonsOf, familyOf } = await import('../expression/comparisons.js');
const { cover } = await import('../proof/cover/cover.js');
const { hardCases } = await import('../proof/hard/hard.js');
const { madeUpSet } = await import('../proof/samples/made-up.js');
const { needs, fillingOfRow } = await import('../proof/samples/needs.js');
const { retypeVariable } = await import('../revise/retype.js');

const TODAY = '2026-11-24';
const VARIABLES = `  visit: { type: reference, required: true }
  rows: { type: list, columns: { visit: { type: reference } } }
  is_high: { type: yes-no, value: visit > "LM-5000" }`;
const TEXT = {
  variables: VARIABLES,
  body: 'Your visit {{visit}} ({{visit.figures}}), {{rows.visit}}.{{#is_high}} High.{{/is_high}}',
};

describe('a new type of variable', () => {
  it('is read from a file, kept by the schema, and written back', () => {
    expect(codesOf(TEXT)).toEqual([]);
    expect(codesOf({ ...TEXT, body: '{{visit.roman}}' })).toContain('unknown-view');
    const document = documentOf(TEXT);
    expect(parseDocument(document)).toHaveProperty('document');
    expect(writeText(document)).toContain('visit: { type: reference, required: true }');
  });

  it('is rendered by its views, also in a list', () => {
    expect(textOf(TEXT, { visit: 'LM-0042', rows: [{ visit: 'LM-0001' }, { visit: 'LM-0002' }] })).toContain(
      'Your visit LM-0042 (0042), LM-0001 and LM-0002.',
    );
  });

  it('refuses what does not fit, with words', () => {
    const message = rendered(TEXT, { visit: '42' });
    expect(message.findings).toMatchObject([{ code: 'bad-value', says: 'This must be a reference, such as LM-0042.' }]);
  });

  it('is asked for and compared', () => {
    const [asked] = questions(program(TEXT), { recipient: {}, sender: {}, answers: {}, today: TODAY });
    expect(asked).toMatchObject({ key: 'visit', type: 'reference' });
    expect(comparisonsOf(familyOf('reference' as ValueType['name']))).toContain('begins');
    expect(textOf(TEXT, { visit: 'LM-9000' })).toContain('High.');
  });

  it('is never remembered for somebody else', () => {
    expect(codesOf({ ...TEXT, variables: '  visit: { type: reference, remember: true }' })).toContain('bad-value');
  });

  it('is covered, made hard and made up', () => {
    const compiled = program(TEXT);
    const { factors, cases } = cover(compiled, { today: TODAY });
    expect(factors.map(({ name }) => name)).toContain('visit');
    expect(new Set(cases.map(({ answers }) => answers.visit))).toEqual(new Set(['LM-0001', 'LM-9999']));
    const longest = hardCases(compiled, { today: TODAY }).find(({ key }) => key === 'longest');
    expect(longest?.filling.answers.visit).toBe('LM-8888');
    const { columns, rows } = madeUpSet(needs(compiled), 3, TODAY);
    expect(columns).toContainEqual({ key: 'visit', name: 'Visit', type: 'text' });
    expect(rows.map((row) => fillingOfRow(compiled, row).answers.visit)).toEqual(['LM-0001', 'LM-0002', 'LM-0003']);
  });

  it('can be what another type becomes', () => {
    const document = documentOf({
      variables: '  visit: { type: text, default: LM-0007, max_length: 9 }',
      body: '{{visit}}',
    });
    const { document: after, lost } = retypeVariable(document, 'visit', 'reference' as ValueType['name'], {
      today: TODAY,
      locale: 'en-GB',
    });
    expect(after.attrs.variables).toEqual([{ key: 'visit', type: 'reference', default: 'LM-0007' }]);
    expect(lost).toEqual(['“max length”']);
  });
});
