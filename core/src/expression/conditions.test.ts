import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { PLAIN_HOUSE } from '../house/house.js';
import { compile } from '../compile/compile.js';
import type { TypeName, Variable } from '../template/variable.js';
import { documentOf } from '../testing/build.js';
import { comparisonsOf, familyOf, takesValue, type ComparisonName } from './comparisons.js';
import { isGroup, readConditions, writeConditions, type Comparison, type ConditionTree } from './conditions.js';
import { sayConditions } from './say.js';

const VARIABLES: readonly Variable[] = [
  { key: 'party', type: 'number', label: 'Party' },
  { key: 'fee', type: 'money', currency: 'EUR' },
  { key: 'day', type: 'date', label: 'Visit date' },
  { key: 'hour', type: 'time' },
  { key: 'city', type: 'text' },
  { key: 'rain', type: 'yes-no', label: 'Rain plan' },
  {
    key: 'gate',
    type: 'choice',
    options: [
      { key: 'north', label: 'North' },
      { key: 'river', label: 'River' },
    ],
  },
  { key: 'extras', type: 'choices', options: [{ key: 'tea' }, { key: 'boat' }] },
  { key: 'tickets', type: 'list', columns: [{ key: 'price', type: 'money', currency: 'EUR' }] },
];
const variableOf = (name: string): Variable | undefined =>
  name === 'recipient.city' ? { key: 'city', type: 'text' } : VARIABLES.find(({ key }) => key === name);
const typeOf = (name: string): TypeName | undefined => variableOf(name)?.type;

function values(type: TypeName, how: ComparisonName): fc.Arbitrary<string> {
  if (!takesValue(how)) return fc.constant('');
  if (how === 'weekday') return fc.constantFrom('mon', 'sun');
  if (how === 'one-of') return fc.constantFrom('north', 'north|river');
  if (type === 'choice') return fc.constantFrom('north', 'river');
  if (type === 'choices') return fc.constantFrom('tea', 'boat');
  if (type === 'date') return fc.constantFrom('2027-05-11', 'today', 'today+14', 'today-3');
  if (type === 'time') return fc.constantFrom('09:30', '14:00');
  if (type === 'list') return fc.integer({ min: 1, max: 40 }).map(String);
  if (type === 'number' || type === 'money') return fc.constantFrom('0', '15', '-3', '2.5', '1200');
  return fc.string({ minLength: 1, maxLength: 12 });
}
const comparisons: fc.Arbitrary<Comparison> = fc
  .constantFrom('recipient.city', ...VARIABLES.map(({ key }) => key))
  .chain((of) => {
    const type = typeOf(of) as TypeName;
    return fc
      .constantFrom(...comparisonsOf(familyOf(type)))
      .chain((how) => values(type, how).map((value): Comparison => ({ of, how, value })));
  });
/** Trees as they are read: a group has several parts, and none of its own kind directly inside. */
const trees = (depth: number, around?: 'all' | 'any'): fc.Arbitrary<ConditionTree> =>
  depth === 0
    ? comparisons
    : fc.oneof(
        comparisons,
        fc.tuple(fc.constantFrom('all' as const, 'any' as const), fc.boolean()).chain(([join, not]) => {
          const kind = !not && join === around ? (join === 'all' ? 'any' : 'all') : join;
          return fc
            .array(trees(depth - 1, kind), { minLength: 2, maxLength: 3 })
            .map((parts): ConditionTree => ({ join: kind, not, parts }));
        }),
      );

describe('conditions', () => {
  it('read back as they were built, and are expressions of a yes-no', () => {
    const declared = [
      'party: { type: number }',
      'fee: { type: money, currency: EUR }',
      'day: { type: date }',
      'hour: { type: time }',
      'city: { type: text }',
      'rain: { type: yes-no }',
      'gate: { type: choice, options: { north: {}, river: {} } }',
      'extras: { type: choices, options: { tea: {}, boat: {} } }',
      'tickets: { type: list, columns: { price: { type: money, currency: EUR } } }',
    ].join('\n');
    const document = documentOf({ variables: declared, body: 'x' });
    fc.assert(
      fc.property(trees(3), (tree) => {
        const source = writeConditions(tree, typeOf);
        expect(readConditions(source, typeOf)).toEqual(tree);
        const { attrs } = document;
        const variables = [...attrs.variables, { key: 'so', type: 'yes-no' as const, value: source }];
        const program = compile(
          { name: 'main', document: { ...document, attrs: { ...attrs, variables } } },
          { library: { get: () => undefined }, house: PLAIN_HOUSE },
        );
        expect(program.findings.filter(({ level }) => level === 'error')).toEqual([]);
      }),
    );
  });

  it('are written with brackets where they are needed', () => {
    const write = (tree: ConditionTree) => writeConditions(tree, typeOf);
    const big: Comparison = { of: 'party', how: 'at-least', value: '15' };
    const river: Comparison = { of: 'gate', how: 'is', value: 'river' };
    const rain: Comparison = { of: 'rain', how: 'no', value: '' };
    expect(write({ join: 'all', not: false, parts: [big, { join: 'any', not: false, parts: [river, rain] }] })).toBe(
      'party >= 15 && (gate == "river" || !rain)',
    );
    expect(write({ join: 'any', not: true, parts: [big, river] })).toBe('!(party >= 15 || gate == "river")');
    expect(write({ of: 'day', how: 'less', value: 'today+14' })).toBe('day < addDays(today(), 14)');
    // What is not whole yet is left out.
    expect(write({ join: 'all', not: false, parts: [{ ...big, value: '' }, river] })).toBe('gate == "river"');
    expect(write({ of: '', how: 'is', value: '' })).toBe('');
  });

  it('reads only what can be built', () => {
    const read = (source: string) => readConditions(source, typeOf);
    expect(read('party >= 15 && (rain && gate == "river")')).toMatchObject({ join: 'all', parts: [{}, {}, {}] });
    expect(read('!filled(city)')).toEqual({ of: 'city', how: 'empty', value: '' });
    expect(read('size(tickets) >= 2')).toEqual({ of: 'tickets', how: 'at-least', value: '2' });
    for (const beyond of [
      'party * 2 > 3',
      'party > fee',
      'tickets.exists(t, t.price > 3)',
      'rain ? true : false',
      'party >',
      'day >= "today"',
      'nobody == 1',
      'city >= "x"',
    ])
      expect([beyond, read(beyond)]).toEqual([beyond, undefined]);
  });

  it('are said in words', () => {
    const say = (source: string) => {
      const tree = readConditions(source, typeOf);
      return tree && sayConditions(tree, { variableOf, locale: 'en-GB' });
    };
    expect(say('party >= 15 && (gate == "river" || !rain)')).toBe(
      'Party is at least 15 and (Gate is River or Rain plan is no)',
    );
    expect(say('day >= "2027-05-11"')).toBe('Visit date is on or after 11 May 2027');
    expect(say('day < addDays(today(), 1)')).toBe('Visit date is before 1 day after today');
    expect(say('weekday(day) == "sun"')).toBe('Visit date falls on a Sunday');
    expect(say('!(recipient.city == "Cork" || gate in ["north", "river"])')).toBe(
      'not (City is “Cork” or Gate is one of North or River)',
    );
    expect(sayConditions({ join: 'all', not: false, parts: [] }, { variableOf, locale: 'en-GB' })).toBe('…');
    expect(isGroup({ of: 'a', how: 'is', value: '' })).toBe(false);
  });
});
