/** What every type says of itself: words for what is wrong, declarations, views by language, cells, what is tried. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { TYPE_NAMES, type TypeName, type Variable } from '../template/variable.js';
import { valueHtml } from '../words/escape.js';
import { isMissing, specimenOf, valueType, type Value } from './index.js';

const context = { today: '2026-11-24', locale: 'en-IE', zone: 'Europe/Dublin' };
type Declared = Partial<Variable> & Pick<Variable, 'type'>;
const whole = (variable: Declared): Variable => ({ key: 'x', ...variable });
const parsed = (variable: Declared, input: unknown, locale = 'en-IE') =>
  valueType(variable.type).parse(input, whole(variable), { ...context, locale });
const problem = (variable: Declared, input: unknown): string => {
  const result = parsed(variable, input);
  return 'problem' in result ? result.problem : `taken: ${JSON.stringify(result.value)}`;
};
const value = (variable: Declared, input: unknown, locale?: string): unknown => {
  const result = parsed(variable, input, locale);
  return 'value' in result ? result.value : `refused: ${result.problem}`;
};
const GATE: Declared = {
  type: 'choice',
  options: [
    { key: 'north', label: 'North', wording: [{ type: 'text', text: 'the north gate' }] },
    { key: 'river', label: 'River' },
    { key: 'east' },
  ],
};
const DAYS: Declared = { ...GATE, type: 'choices' };
const TICKETS: Declared = {
  type: 'list',
  columns: [
    { key: 'item', type: 'text', required: true, label: 'Ticket' },
    { key: 'seats', type: 'number', default: '1' },
    { key: 'sum', type: 'number', value: 'seats * 2' },
  ],
};

describe('what is wrong is said in words', () => {
  it.each<[Declared, unknown, string]>([
    [{ type: 'number' }, 'many', 'This must be a number, such as 12 or 12.5.'],
    [{ type: 'number', min: 1, max: 60 }, 0, 'This must be 1 or more.'],
    [{ type: 'number', min: 1, max: 60 }, 61, 'This must be 60 or less.'],
    [{ type: 'number', step: 5, min: 10 }, 12, 'This must go in steps of 5.'],
    [{ type: 'money', currency: 'EUR', min: 5 }, '4.50', 'This must be 5 or more.'],
    [{ type: 'money', currency: 'EUR' }, 'a fortune', 'This must be an amount, such as 12 or 12.50.'],
    [{ type: 'yes-no' }, 'perhaps', 'This must be yes or no.'],
    [{ type: 'text', min_length: 3 }, 'ab', 'This must have 3 characters or more; it has 2.'],
    [{ type: 'text', max_length: 3 }, 'abcd', 'This must have 3 characters or fewer; it has 4.'],
    [
      { type: 'text', pattern: 'M-[0-9]{4}', example: 'M-1234' },
      'M-1',
      'This does not have the form that is asked for, such as “M-1234”.',
    ],
    [{ type: 'text' }, true, 'This must be text.'],
    [{ type: 'text' }, {}, 'This must be text.'],
    [{ type: 'email' }, 'ann at home', 'This must be one address, such as ann@larkmoor.example.'],
    [{ type: 'email', domains: ['larkmoor.example'] }, 'a@other.example', 'This must be at larkmoor.example.'],
    [
      { type: 'link', domains: ['a.example', 'b.example'] },
      'https://c.example',
      'This must be at a.example or b.example.',
    ],
    [GATE, 'south', '“south” is not one of the options: north, river, east.'],
    [GATE, ['north'], 'This must be one of the options.'],
    [DAYS, 7, 'This must be a list of options.'],
    [{ ...DAYS, least: 2 }, ['north'], 'At least 2 must be picked.'],
    [{ ...DAYS, most: 1 }, 'north, river', 'At most 1 may be picked.'],
    [TICKETS, 'rows', 'This must be a list of rows.'],
    [TICKETS, [7], 'Row 1 must have columns.'],
    [TICKETS, [{ item: 'a' }, { price: 3 }], 'Row 2 has a column “price”, which the list has not.'],
    [TICKETS, [{ item: 'a', seats: 'x' }], 'Row 1, Seats: This must be a number, such as 12 or 12.5.'],
    [TICKETS, [{ seats: 2 }], 'Row 1, Ticket: this must be filled.'],
    [{ ...TICKETS, most: 1 }, [{ item: 'a' }, { item: 'b' }], 'There may be 1 rows at most; there are 2.'],
    [{ ...TICKETS, least: 2 }, [{ item: 'a' }], 'There must be 2 rows or more; there are 1.'],
  ])('of %j for %j', (variable, input, words) => expect(problem(variable, input)).toBe(words));

  it('names a dozen options at most', () => {
    const options = Array.from({ length: 30 }, (_, at) => ({ key: `o${at}` }));
    expect(problem({ type: 'choice', options }, 'x')).toMatch(/: o0, .*, o11 …\.$/);
  });
});

describe('what is taken', () => {
  it.each<[Declared, unknown, unknown]>([
    [{ type: 'number' }, ' 12.50 ', 12.5],
    [{ type: 'number' }, '−3', -3],
    [{ type: 'number' }, '.5', 0.5],
    [{ type: 'number' }, '1e3', 'refused'],
    [{ type: 'number' }, '1,000', 'refused'],
    [{ type: 'number' }, '0x10', 'refused'],
    [{ type: 'number', step: 0.1 }, 1.1, 1.1],
    [{ type: 'number', step: 5, min: 2 }, 12, 12],
    [{ type: 'money', currency: 'JPY' }, '1234.5', 1235],
    [{ type: 'money', currency: 'KWD' }, '1.2345', 1.235],
    [{ type: 'yes-no' }, ' YES ', true],
    [{ type: 'text' }, 'two\n  lines', 'two lines'],
    [{ type: 'paragraphs' }, 'two\r\nlines', 'two\nlines'],
    [{ type: 'text' }, 42, '42'],
    [{ type: 'text' }, 'a\u0007b', 'a\uFFFDb'],
    [{ type: 'text', max_length: 2 }, '👍👍', '👍👍'],
    [GATE, ' north ', 'north'],
    [{ ...GATE, other: true }, 'by\nboat', 'by boat'],
    [DAYS, 'river; north | river', ['north', 'river']],
    [{ ...DAYS, other: true }, ['later', 'east'], ['east', 'later']],
    [DAYS, [], []],
    [TICKETS, [{ item: 'a' }], [{ item: 'a', seats: 1 }]],
    [TICKETS, '[{"item":"a","seats":"2"}]', [{ item: 'a', seats: 2 }]],
    [TICKETS, [{ item: 'a', sum: 9 }], [{ item: 'a', seats: 1 }]],
    [{ type: 'email' }, ' ann.lee+visits@larkmoor.example ', 'ann.lee+visits@larkmoor.example'],
    [{ type: 'email' }, 'zoë@büro.example', 'zoë@büro.example'],
    [{ type: 'email', domains: ['larkmoor.example'] }, 'a@post.LARKMOOR.example', 'a@post.LARKMOOR.example'],
    [{ type: 'link' }, 'mailto:ann@x.example', 'mailto:ann@x.example'],
    [{ type: 'link', domains: ['x.example'] }, 'mailto:ann@x.example', 'mailto:ann@x.example'],
  ])('of %j for %j', (variable, input, expected) => {
    const result = value(variable, input);
    if (expected === 'refused') expect(result).toMatch(/^refused/);
    else expect(result).toEqual(expected);
  });
  it.each([
    ['en-IE', '020 910 0123', '+353209100123'],
    ['en-GB', '020 7946 0018', '+442079460018'],
    ['de-DE', '030 901820', '+4930901820'],
    ['en', '+1 202 555 0143', '+12025550143'],
  ])('telephone numbers have the country of the language: %s', (locale, input, number) =>
    expect(value({ type: 'phone' }, input, locale)).toBe(number),
  );
  it.each([
    '.a@x.example',
    'a.@x.example',
    'a..b@x.example',
    'a@x',
    'a@-x.example',
    'a b@x.example',
    'a@x.example,b@x.example',
  ])('no address: %s', (input) => expect(value({ type: 'email' }, input)).toMatch(/^refused/));
});

describe('declarations', () => {
  const declared = (variable: Declared): string[] =>
    valueType(variable.type)
      .declared(whole(variable), context)
      .map(({ attribute, message, code }) => `${attribute}: ${message}${code ? ` (${code})` : ''}`);
  it.each<[Declared, string[]]>([
    [{ type: 'number', min: 5, max: 2 }, ['max: “max” is below “min”.']],
    [{ type: 'number', step: 0 }, ['step: A step must be above 0.']],
    [{ type: 'number', step: -1 }, ['step: A step must be above 0.']],
    [
      { type: 'number', forms: { ordinal: { other: 'x' } } },
      ['forms: A form may not be called “ordinal”, which is a view. (reserved-key)'],
    ],
    [
      { type: 'number', forms: { Is: { other: 'x' } } },
      ["forms: A form's name has small letters, digits and underscores: “Is”. (bad-key)"],
    ],
    [{ type: 'money' }, ['currency: Money needs a currency: three letters, such as EUR.']],
    [{ type: 'money', currency: 'ABC' }, ['currency: Money needs a currency: three letters, such as EUR.']],
    [{ type: 'money', currency: 'EUR', min: 2, max: 1 }, ['max: “max” is below “min”.']],
    [{ type: 'text', min_length: 5, max_length: 2 }, ['max_length: “max_length” is below “min_length”.']],
    [{ type: 'text', pattern: '(' }, ['pattern: This is not a pattern (RE2 syntax).']],
    [{ type: 'text', pattern: '(a)\\1' }, ['pattern: This is not a pattern (RE2 syntax).']],
    [{ type: 'choice' }, ['options: There must be at least one option.']],
    [{ type: 'choice', options: [{ key: 'empty' }] }, ['options: An option may not be called “empty”. (reserved-key)']],
    [
      { type: 'choice', options: [{ key: 'a' }, { key: 'a' }] },
      ['options: There are two options “a”. (duplicate-key)'],
    ],
    [{ type: 'choices', options: [{ key: 'a' }], least: 2, most: 1 }, ['most: “most” is below “least”.']],
    [{ type: 'list' }, ['columns: A list needs at least one column.']],
    [
      { type: 'list', columns: [{ key: 'count', type: 'text' }] },
      ['columns: A column may not be called “count”. (reserved-key)'],
    ],
    [{ type: 'list', columns: [{ key: 'a', type: 'list' as never }] }, ['columns: A column may not be a list.']],
    [
      { type: 'list', columns: [{ key: 'a', type: 'number', min: 2, max: 1 }] },
      ['columns.a.max: “max” is below “min”.'],
    ],
    [
      { type: 'email', domains: ['not a domain'] },
      ['domains: “not a domain” is not a domain, such as larkmoor.example.'],
    ],
    [{ type: 'link', domains: ['x.example'] }, []],
    [{ type: 'yes-no' }, []],
    [GATE, []],
    [TICKETS, []],
  ])('%j', (variable, problems) => expect(declared(variable)).toEqual(problems));
});

describe('views', () => {
  const show = (variable: Declared, view: string, given: unknown, locale = 'en-IE'): string | undefined =>
    valueType(variable.type).formatter(whole(variable), view, locale)?.(given as Value);
  it.each<[Declared, string, unknown, string, string | undefined]>([
    [{ type: 'number' }, '', 1234567.891, 'de-DE', '1.234.567,891'],
    [{ type: 'number' }, '', 1234.5, 'fr-FR', '1\u202F234,5'],
    [{ type: 'number', unit: 'km' }, '', 5, 'en-IE', '5\u00A0km'],
    [{ type: 'number' }, 'ordinal', 1, 'en-IE', '1st'],
    [{ type: 'number' }, 'ordinal', 11, 'en-IE', '11th'],
    [{ type: 'number' }, 'ordinal', 3, 'de-DE', '3.'],
    [{ type: 'number' }, 'counted', 3, 'en-IE', undefined],
    [{ type: 'number', plural: { one: 'гость', few: 'гостя', other: 'гостей' } }, 'counted', 22, 'ru-RU', '22 гостя'],
    [{ type: 'money', currency: 'EUR' }, '', 12, 'de-DE', '12,00\u00A0€'],
    [{ type: 'money', currency: 'EUR' }, 'amount', 12, 'en-IE', '12.00'],
    [{ type: 'money', currency: 'KWD' }, 'amount', 1.5, 'en-IE', '1.500'],
    [{ type: 'yes-no' }, '', true, 'de-DE', 'ja'],
    [{ type: 'yes-no' }, '', false, 'ga-IE', 'níl'],
    [{ type: 'yes-no' }, '', false, 'sw-KE', 'no'],
    [{ type: 'yes-no' }, 'shout', true, 'en-IE', undefined],
    [{ type: 'text' }, 'upper', 'straße', 'de-DE', 'STRASSE'],
    [{ type: 'text' }, 'upper', 'istanbul', 'tr-TR', 'İSTANBUL'],
    [{ type: 'text' }, 'sentence', 'the geese', 'en-IE', 'The geese'],
    [{ type: 'text' }, 'title', 'mary-jane o’neill', 'en-IE', 'Mary-Jane O’neill'],
    [{ type: 'paragraphs' }, 'upper', 'x', 'en-IE', undefined],
    [GATE, '', 'north', 'en-IE', 'the north gate'],
    [GATE, 'label', 'north', 'en-IE', 'North'],
    [GATE, '', 'east', 'en-IE', 'East'],
    [GATE, '', 'by boat', 'en-IE', 'by boat'],
    [DAYS, '', ['north', 'river', 'east'], 'en-IE', 'the north gate, River and East'],
    [DAYS, 'labels', ['north', 'river'], 'de-DE', 'North und River'],
    [DAYS, 'count', ['north', 'river'], 'en-IE', '2'],
    [TICKETS, 'item', [{ item: 'a' }, {}, { item: 'b' }], 'en-IE', 'a and b'],
    [TICKETS, 'count', [{ item: 'a' }], 'en-IE', '1'],
    [TICKETS, 'price', [{ item: 'a' }], 'en-IE', undefined],
    [{ type: 'link' }, 'display', 'https://x.example/a/', 'en-IE', 'x.example/a'],
    [{ type: 'link' }, 'display', 'mailto:ann@x.example', 'en-IE', 'ann@x.example'],
  ])('%j as %j of %j in %s', (variable, view, given, locale, expected) =>
    expect(show(variable, view, given, locale)).toBe(expected),
  );
  it('are those that a type names, and no other', () => {
    for (const type of TYPE_NAMES) {
      const variable = whole({ type, options: GATE.options, columns: TICKETS.columns, currency: 'EUR' } as Declared);
      const names = valueType(type).views(variable);
      expect(new Set(names).size).toBe(names.length);
      for (const view of ['toString', '__proto__', 'constructor', 'nothing-such'])
        expect([type, view, valueType(type).formatter(variable, view, 'en-IE')]).toEqual([type, view, undefined]);
    }
  });
});

describe('inputs in their usual form', () => {
  const types: readonly Declared[] = [
    { type: 'text' },
    { type: 'paragraphs' },
    {
      type: 'list',
      columns: [
        { key: 'a', type: 'text', required: true },
        { key: 'b', type: 'text' },
      ],
    },
  ];
  it.each(types)('of $type are taken as parsing takes them, and are the HTML that rendering makes', (variable) => {
    const { asGiven } = valueType(variable.type);
    const take = asGiven?.(whole(variable));
    expect(take).toBeTypeOf('function');
    const word = fc.oneof(
      fc.string(),
      fc.string({ unit: 'grapheme' }),
      fc.constantFrom('a & b', '<b>', 'a\nb', '', ' x '),
    );
    const rows = fc.array(fc.oneof(fc.record({ a: word, b: word }), fc.record({ a: word }), fc.record({ c: word })), {
      maxLength: 4,
    });
    fc.assert(
      fc.property(
        variable.type === 'list' ? fc.oneof(rows, word) : fc.oneof(word, fc.double(), fc.constant(null)),
        (input) => {
          const html = take?.(input);
          if (html === undefined) return;
          const result = parsed(variable, input);
          expect('value' in result ? result.value : result.problem).toEqual(input);
          if (typeof html === 'string') expect(html).toBe(valueHtml(String(input), variable.type === 'paragraphs'));
        },
      ),
      { numRuns: 400 },
    );
  });
});

describe('cells of tables', () => {
  const ofCell = (variable: Declared, cell: string): unknown =>
    valueType(variable.type).fromCell?.(cell, whole(variable)) ?? cell;
  it.each<[Declared, string, unknown]>([
    [{ type: 'yes-no' }, 'Yes', true],
    [{ type: 'yes-no' }, '0', false],
    [{ type: 'yes-no' }, 'perhaps', 'perhaps'],
    [GATE, 'RIVER', 'river'],
    [GATE, 'north', 'north'],
    [GATE, 'by boat', 'by boat'],
    [DAYS, 'River; north', ['river', 'north']],
    [TICKETS, '[{"item":"a"}]', [{ item: 'a' }]],
    [{ type: 'number' }, '12', '12'],
  ])('of %j: %j', (variable, cell, expected) => expect(ofCell(variable, cell)).toEqual(expected));
  it('that are no rows are none', () => {
    expect(valueType('list').fromCell?.('{"item":"a"}', whole(TICKETS))).toBeUndefined();
    expect(valueType('list').fromCell?.('nonsense', whole(TICKETS))).toBeUndefined();
  });
});

describe('what is tried', () => {
  const made: Readonly<Record<TypeName, Declared>> = {
    ...(Object.fromEntries(TYPE_NAMES.map((type) => [type, { type, currency: 'EUR' }])) as Record<TypeName, Declared>),
    choice: GATE,
    choices: DAYS,
    list: { type: 'list', columns: [{ key: 'item', type: 'text' }] },
  };
  const trying = (variable: Declared, constants: readonly string[] = [], isCompared = constants.length > 0) => ({
    ...context,
    specimen: specimenOf(whole(variable), context) as unknown,
    constants,
    isCompared,
    none: variable.required ? [] : [undefined],
    accepted: (values: readonly unknown[]): unknown[] =>
      [...new Map(values.map((each) => [JSON.stringify(each), each])).values()].filter(
        (each) => isMissing(each) || 'value' in parsed(variable, each),
      ),
  });
  it.each(TYPE_NAMES.map((type) => [type]))('of %s is accepted by the type, or is nothing', (type) => {
    const variable = made[type];
    for (const each of valueType(type).tried?.(whole(variable), trying(variable)) ?? [])
      expect([each, isMissing(each) || 'value' in parsed(variable, each)]).toEqual([each, true]);
  });
  it('of numbers that are compared is around what they are compared with, and at their ends', () => {
    const variable: Declared = { type: 'number', min: 1, max: 60, required: true };
    const tried = valueType('number').tried?.(whole(variable), trying(variable, ['15'])) ?? [];
    expect(tried).toEqual(expect.arrayContaining([14, 15, 16, 1, 60]));
    expect(tried).not.toContain(0);
    expect(tried).not.toContain(undefined);
  });
  it('of lists is none, one, several, and as many as they are compared with', () => {
    const tried = (valueType('list').tried?.(whole(made.list), trying(made.list, ['5'])) ?? []) as unknown[][];
    expect(tried.map((rows) => rows.length).sort((a, b) => a - b)).toEqual([0, 1, 2, 4, 5, 6]);
  });
  it('tells outcomes apart: each option of choices, none and some of a list', () => {
    const [first] = valueType('choice').outcomes?.(whole(GATE)) ?? [];
    expect(first?.levels.map(({ key }) => key)).toEqual(['north', 'river', 'east', 'empty']);
    expect(['north', undefined, 'south'].map((each) => first?.levelOf(each))).toEqual([0, 3, -1]);
    expect(valueType('choice').outcomes?.(whole({ ...GATE, required: true }))[0]?.levels).toHaveLength(3);
    expect(
      valueType('choices')
        .outcomes?.(whole(DAYS))
        .map(({ levelOf }) => levelOf(['river'])),
    ).toEqual([1, 0, 1]);
    const [rows] = valueType('list').outcomes?.(whole(TICKETS)) ?? [];
    expect([undefined, [], [{}], [{}, {}, {}]].map((each) => rows?.levelOf(each as Value))).toEqual([0, 0, 1, 2]);
  });
  it('is hard where it is asked to be: the longest option, a very large number, much to say', () => {
    const hard = (variable: Declared, offer: object): unknown =>
      valueType(variable.type).hard?.(offer, whole(variable));
    expect(hard(GATE, { isLongest: true })).toBe('north');
    expect(hard(DAYS, { isLongest: true })).toEqual(['north', 'river', 'east']);
    expect(hard({ type: 'number' }, { isLarge: true })).toBe(1_234_567);
    expect(hard({ type: 'number', max: 60 }, { isLarge: true })).toBe(60);
    expect(hard({ type: 'number', min: -5 }, { number: -1 })).toBe(-5);
    expect(hard({ type: 'text', max_length: 4 }, { words: 'geese', isLongest: true })).toBe('gees');
    expect(String(hard({ type: 'paragraphs' }, { words: 'geese', isLongest: true })).length).toBeGreaterThan(400);
    expect(hard(GATE, {})).toBeUndefined();
  });
});
