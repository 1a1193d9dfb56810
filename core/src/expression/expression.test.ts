import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Variable } from '../template/variable.js';
import type { Value } from '../values/index.js';
import { ExpressionCompiler, ExpressionProblem } from './expression.js';

const variables: readonly Variable[] = [
  { key: 'party', type: 'number' },
  { key: 'fee', type: 'money', currency: 'EUR' },
  { key: 'name', type: 'text' },
  { key: 'day', type: 'date' },
  { key: 'late', type: 'yes-no' },
  { key: 'remark', type: 'text' },
  { key: 'gate', type: 'choice', options: [{ key: 'north' }, { key: 'river' }] },
  { key: 'extras', type: 'choices', options: [{ key: 'tea' }, { key: 'boat' }] },
  {
    key: 'tickets',
    type: 'list',
    columns: [
      { key: 'item', type: 'text' },
      { key: 'price', type: 'money', currency: 'EUR' },
    ],
  },
];
const compiler = new ExpressionCompiler(
  {
    lookup: (key) => variables.find((variable) => variable.key === key),
    keys: variables.map((variable) => variable.key),
    facts: new Map([['fee_each', 'number' as const]]),
  },
  new Set(['2026-12-25']),
);
const RUN = { today: '2026-11-24', locale: 'en-IE' };
const context = {
  party: 15,
  fee: 4.5,
  name: 'Róisín',
  day: '2027-05-11',
  late: true,
  gate: 'north',
  extras: ['tea'],
  tickets: [
    { item: 'adult', price: 4.5 },
    { item: 'child', price: 2.1 },
  ],
  recipient: { city: 'Cork' },
  sender: {},
  house__fee_each: 3,
};
const worked = (source: string, type: Variable['type'], given: object = context): Value | undefined =>
  compiler
    .compile(source, { key: 'x', type, ...(type === 'money' ? { currency: 'EUR' } : {}) })
    .evaluate({ ...given }, RUN);
const problem = (source: string, type: Variable['type'] = 'number'): ExpressionProblem => {
  try {
    compiler.compile(source, { key: 'x', type });
  } catch (error) {
    if (error instanceof ExpressionProblem) return error;
    throw error;
  }
  throw new Error(`${source} was taken`);
};

describe('an expression', () => {
  it.each<[source: string, type: Variable['type'], value: Value | undefined]>([
    ['party * 4.5', 'money', 67.5],
    ['party + 1 == 16', 'yes-no', true],
    ['party / 2', 'number', 7.5],
    ['-party + 1', 'number', -14],
    ['party in [10, 15]', 'yes-no', true],
    ['party >= 15 ? 10 : 2.5', 'number', 10],
    ['house.fee_each * party', 'number', 45],
    ['size(tickets)', 'number', 2],
    ['size(tickets) + 0.5', 'number', 2.5],
    ['sum(tickets.price)', 'number', 6.6],
    ['max(tickets.price) - min(tickets.price)', 'number', 2.4],
    ['tickets.exists(t, t.price > 4)', 'yes-no', true],
    ['tickets.all(t, t.price > 4)', 'yes-no', false],
    ['size(tickets.filter(t, t.price < 4))', 'number', 1],
    ['join(tickets.map(t, upper(t.item)), " and ")', 'text', 'ADULT and CHILD'],
    ['round(2.345, 2)', 'number', 2.35],
    ['addDays(day, 14)', 'date', '2027-05-25'],
    ['addWorkingDays("2026-12-24", 1)', 'date', '2026-12-28'],
    ['addWorkingDays("2026-12-28", -1)', 'date', '2026-12-24'],
    ['daysBetween(today(), day)', 'number', 168],
    ['weekday(day) == "tue"', 'yes-no', true],
    ['day > today()', 'yes-no', true],
    ['filled(name) && !filled(remark)', 'yes-no', true],
    ['name.startsWith("R") && name.endsWith("n") && name.contains("is")', 'yes-no', true],
    ['gate == "north" && "tea" in extras', 'yes-no', true],
    ['recipient.city == "Cork"', 'yes-no', true],
    ['has(recipient.nickname)', 'yes-no', false],
    ['recipient.nickname == "x"', 'yes-no', undefined],
    ['party / 0', 'number', undefined],
    ['late || recipient.nickname == "x"', 'yes-no', true],
    ['addDays("2027-02-31", 1)', 'date', undefined],
    ['min([])', 'number', undefined],
  ])('%s is %j', (source, type, value) => {
    expect(worked(source, type)).toEqual(value);
  });

  it('without what it needs is undecided, except where a short circuit spares it', () => {
    expect(worked('party + 1', 'number', {})).toBeUndefined();
    expect(worked('late && party > 3', 'yes-no', { late: false })).toBe(false);
    expect(worked('late && party > 3', 'yes-no', { late: true })).toBeUndefined();
  });

  it('says what it reads, once each, in order', () => {
    const { references, fields } = compiler.compile('party > 3 && recipient.city == name && party < 9', {
      key: 'x',
      type: 'yes-no',
    });
    expect([references, fields]).toEqual([['party', 'name'], ['recipient.city']]);
  });
});

describe('what is not taken', () => {
  it.each<[source: string, type: Variable['type'], at: number, length: number]>([
    ['party + nobody', 'number', 8, 6],
    ['party + ', 'number', 8, 1],
    ['name.matches("(a+)+$")', 'yes-no', 0, 0],
    ['party + name', 'number', 0, 0],
    ['tickets[0]', 'text', 0, 0],
    ['{"a": 1}', 'number', 0, 0],
    ['house.nothing', 'number', 0, 0],
    ['timestamp("2026-01-01")', 'text', 0, 0],
    ['party > 3', 'number', 0, 9],
    ['__proto__', 'number', 0, 0],
    ['constructor', 'number', 0, 0],
  ])('%s', (source, type, at, length) => {
    const found = problem(source, type);
    expect(found.message).not.toBe('');
    if (length > 0) expect([found.offset, found.length]).toEqual([at, length]);
    expect(found.offset).toBeLessThanOrEqual(source.length);
  });

  it('is told at its place in the author’s own text, behind other rewritten parts', () => {
    const source = 'size(tickets) + 1 + nobody * 2';
    const {
      offset,
      length,
      data: { code },
    } = problem(source);
    expect([source.slice(offset, offset + length), code]).toEqual(['nobody', 'unknown-variable']);
  });

  it('nests two macros at most, and grows neither in time nor in depth', () => {
    const nested = (inner: string): string => `tickets.exists(t, ${inner})`;
    expect(() => compiler.compile(nested(nested('t.price > 1')), { key: 'x', type: 'yes-no' })).not.toThrow();
    expect(problem(nested(nested(nested('t.price > 1'))), 'yes-no').message).toMatch(/deep/);
    expect(problem('('.repeat(1900) + '1' + ')'.repeat(1900)).message).not.toBe('');
    expect(problem(`${'1+'.repeat(1999)}1`).message).not.toBe('');
    expect(problem('1'.repeat(5000)).message).toMatch(/4000/);
  });

  it('never gets past as anything but words, whatever is typed', () => {
    const piece = fc.constantFrom(
      'party',
      'name',
      '(',
      ')',
      '+',
      '&&',
      '"a"',
      '1',
      '.',
      'map',
      'in',
      '[',
      '?',
      ':',
      'size(',
      'x,',
    );
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string(),
          fc.array(piece).map((pieces) => pieces.join(' ')),
        ),
        (source) => {
          try {
            compiler.compile(source, { key: 'x', type: 'number' }).evaluate(context, RUN);
          } catch (error) {
            expect(error).toBeInstanceOf(ExpressionProblem);
          }
        },
      ),
      { numRuns: 500 },
    );
  });
});
