import { Decimal } from 'decimal.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Variable } from '../template/variable.js';
import { valueType } from './index.js';
import { roundMoney, sumMoney } from './money.js';

const context = { today: '2026-11-24', locale: 'en-IE' };
const parse = (variable: Partial<Variable> & Pick<Variable, 'type'>, input: unknown): unknown => {
  const parsed = valueType(variable.type).parse(input, { key: 'x', ...variable }, context);
  return 'value' in parsed ? parsed.value : 'no';
};
const show = (
  variable: Partial<Variable> & Pick<Variable, 'type'>,
  view: string,
  value: never,
  locale = 'en-IE',
): string | undefined => valueType(variable.type).formatter({ key: 'x', ...variable }, view, locale)?.(value);

describe('money', () => {
  it('rounds to 15 digits and then half away from zero, as a decimal library does', () => {
    fc.assert(
      fc.property(fc.double({ noNaN: true, min: -1e11, max: 1e11 }), fc.constantFrom(0, 2, 3), (value, digits) => {
        const expected = new Decimal(value)
          .toSignificantDigits(15, Decimal.ROUND_HALF_UP)
          .toDecimalPlaces(digits, Decimal.ROUND_HALF_UP)
          .toNumber();
        expect(roundMoney(value, digits)).toBe(expected === 0 ? 0 : expected);
      }),
      { numRuns: 2000 },
    );
    expect([roundMoney(1.005, 2), roundMoney(-1.005, 2), roundMoney(2.675, 2), roundMoney(0.615 * 3, 2)]).toEqual([
      1.01, -1.01, 2.68, 1.85,
    ]);
  });
  it('adds minor units', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: -1e9, max: 1e9 })), (cents) => {
        expect(
          sumMoney(
            cents.map((each) => each / 100),
            2,
          ),
        ).toBe(cents.reduce((a, b) => a + b, 0) / 100);
      }),
    );
  });
  it('takes decimal strings and shows symbols', () => {
    expect(parse({ type: 'money', currency: 'EUR' }, '12.345')).toBe(12.35);
    expect(show({ type: 'money', currency: 'EUR' }, '', 67.5 as never)).toBe('€67.50');
    expect(show({ type: 'money', currency: 'JPY' }, 'amount', 1234 as never)).toBe('1,234');
  });
});

describe('what is taken and what is refused', () => {
  it.each([
    [{ type: 'number' }, 'abc', 'no'],
    [{ type: 'number' }, '12.5', 12.5],
    [{ type: 'number', min: 1, max: 60 }, 61, 'no'],
    [{ type: 'number', step: 0.1 }, 0.3, 0.3],
    [{ type: 'number', step: 0.5 }, 0.3, 'no'],
    [{ type: 'number' }, Infinity, 'no'],
    [{ type: 'number' }, true, 'no'],
    [{ type: 'date' }, '2027-02-31', 'no'],
    [{ type: 'date' }, '2028-02-29', '2028-02-29'],
    [{ type: 'date' }, '11/05/2027', 'no'],
    [{ type: 'date', earliest: 'today' }, '2026-11-23', 'no'],
    [{ type: 'date', latest: 'today+14' }, '2026-12-08', '2026-12-08'],
    [{ type: 'date', weekdays: ['mon'] }, '2027-05-11', 'no'],
    [{ type: 'yes-no' }, 'true', true],
    [{ type: 'yes-no' }, 1, 'no'],
    [{ type: 'choice', options: [{ key: 'a' }] }, 'a', 'a'],
    [{ type: 'choice', options: [{ key: 'a' }] }, 'b', 'no'],
    [{ type: 'choice', options: [{ key: 'a' }], other: true }, 'b', 'b'],
    [{ type: 'choices', options: [{ key: 'a' }, { key: 'b' }], most: 1 }, ['a', 'b'], 'no'],
    [{ type: 'email' }, 'a@b.example', 'a@b.example'],
    [{ type: 'email' }, 'a@b.example\nBcc: c@d.example', 'no'],
    [{ type: 'email', domains: ['larkmoor.example'] }, 'a@b.example', 'no'],
    [{ type: 'phone' }, '+353 20 910 0123', '+353209100123'],
    [{ type: 'phone' }, 'call me', 'no'],
    [{ type: 'link' }, 'https://larkmoor.example/a', 'https://larkmoor.example/a'],
    [{ type: 'link' }, 'javascript:alert(1)', 'no'],
    [{ type: 'link' }, 'larkmoor.example', 'no'],
    [{ type: 'text', max_length: 2 }, '👩‍🌾x', 'no'],
    [{ type: 'text', pattern: '[A-Z]{2}\\d+' }, 'AB12', 'AB12'],
    [{ type: 'text', pattern: '[A-Z]{2}\\d+' }, 'AB12x', 'no'],
    [{ type: 'text' }, 'x'.repeat(100_001), 'no'],
    [{ type: 'list', columns: [{ key: 'a', type: 'number' }] }, [{ a: 'x' }], 'no'],
    [{ type: 'list', columns: [{ key: 'a', type: 'number' }] }, Array(1001).fill({ a: 1 }), 'no'],
  ] as const)('%j %j', (variable, input, expected) => expect(parse(variable as never, input)).toEqual(expected));

  it('a pattern made to hang takes no time', () => {
    const start = performance.now();
    parse({ type: 'text', pattern: '(a+)+$' }, `${'a'.repeat(5000)}!`);
    expect(performance.now() - start).toBeLessThan(5000);
  });
});

describe('views', () => {
  it.each([
    [{ type: 'number', plural: { one: 'ticket', other: 'tickets' } }, 'counted', 1, '1 ticket'],
    [{ type: 'number', plural: { one: 'ticket', other: 'tickets' } }, 'counted', 12, '12 tickets'],
    [{ type: 'number' }, 'ordinal', 22, '22nd'],
    [{ type: 'number' }, '', 1234.5, '1,234.5'],
    [{ type: 'number', grouping: false, decimals: 2 }, '', 1234.5, '1234.50'],
    [{ type: 'number', forms: { is: { one: 'is', other: 'are' } } }, 'is', 1, 'is'],
    [{ type: 'date' }, '', '2027-05-11', '11 May 2027'],
    [{ type: 'date' }, 'full', '2027-05-11', 'Tuesday 11 May 2027'],
    [{ type: 'date' }, 'weekday', '2027-05-11', 'Tuesday'],
    [{ type: 'date' }, 'iso', '2027-05-11', '2027-05-11'],
    [{ type: 'text' }, 'title', 'mary mcAuley', 'Mary McAuley'],
    [{ type: 'yes-no' }, '', true, 'yes'],
    [{ type: 'yes-no', words: { no: 'not yet' } }, '', false, 'not yet'],
    [{ type: 'link' }, 'display', 'https://x.example/', 'x.example'],
    [{ type: 'phone' }, '', '+353209100123', '+353 20 910 0123'],
    [{ type: 'text' }, 'toString', 'a', undefined],
    [{ type: 'date' }, 'constructor', '2027-05-11', undefined],
  ] as const)('%j %s', (variable, view, value, expected) =>
    expect(show(variable as never, view, value as never)).toBe(expected),
  );
  it('ordinals exist only for languages that have a table', () => {
    expect(show({ type: 'number' }, 'ordinal', 1 as never, 'fr')).toBe('1er');
    expect(show({ type: 'number' }, 'ordinal', 1 as never, 'ja')).toBeUndefined();
  });
});
