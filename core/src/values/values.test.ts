import { Decimal } from 'decimal.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { TYPE_NAMES, type TypeName, type Variable } from '../template/variable.js';
import { specimenOf, valueType } from './index.js';
import { roundMoney, sumMoney } from './money.js';
import { instantOf, offsetInWords, wallAt } from './zone.js';

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

describe('moments', () => {
  const moment = { type: 'datetime', zone: 'Europe/Dublin' } as const;
  it('are taken as the zone’s wall clock, and brought to it from an offset', () => {
    expect(parse(moment, '2027-05-11T14:30')).toBe('2027-05-11T14:30');
    expect(parse(moment, '2027-05-11 14:30:00')).toBe('2027-05-11T14:30');
    expect(parse(moment, '2027-05-11T14:30Z')).toBe('2027-05-11T15:30');
    expect(parse(moment, '2027-01-11T00:30+0200')).toBe('2027-01-10T22:30');
    expect(parse(moment, '2027-02-31T14:30')).toBe('no');
    expect(parse(moment, '2027-02-28T24:30')).toBe('no');
  });
  it('are the first of two where clocks go back, and later where they go forward', () => {
    expect(offsetInWords('2027-10-31T01:30', 'Europe/Dublin')).toBe('+01:00');
    expect(wallAt(instantOf('2027-03-28T01:30', 'Europe/Dublin'), 'Europe/Dublin')).toBe('2027-03-28T02:30');
    fc.assert(
      fc.property(
        fc.date({ min: new Date('1990-01-01'), max: new Date('2040-01-01'), noInvalidDate: true }),
        fc.constantFrom('Europe/Dublin', 'Pacific/Auckland', 'America/St_Johns', 'UTC'),
        (date, zone) => {
          const wall = wallAt(date.getTime(), zone);
          expect(wallAt(instantOf(wall, zone), zone)).toBe(wall);
        },
      ),
    );
  });
  it('show themselves in their views', () => {
    const views = ['', 'short', 'date', 'time', 'iso'].map((view) => show(moment, view, '2027-05-11T14:30' as never));
    expect(views).toEqual([
      '11 May 2027 at 14:30',
      '11/05/2027, 14:30',
      '11 May 2027',
      '14:30',
      '2027-05-11T14:30+01:00',
    ]);
  });
  it('keep their limits, which may be days', () => {
    const limited = { ...moment, earliest: 'today', latest: '2027-05-11T15:00', weekdays: ['tue'] } as const;
    expect(
      ['2026-11-24T00:00', '2026-11-23T23:59', '2027-05-11T15:01', '2026-11-25T10:00'].map((each) =>
        parse(limited, each),
      ),
    ).toEqual(['2026-11-24T00:00', 'no', 'no', 'no']);
  });
});

describe('times of day', () => {
  it.each([
    ['9:30', 'no'],
    ['09:30', '09:30'],
    ['09:30:00', '09:30'],
    ['23:59:59', '23:59:59'],
    ['24:00', 'no'],
  ])('%s', (given, expected) => expect(parse({ type: 'time' }, given)).toBe(expected));
  it('show themselves, and keep their limits', () => {
    expect(['', 'long', 'iso'].map((view) => show({ type: 'time' }, view, '09:30' as never, 'en-US'))).toEqual([
      '9:30 AM',
      '9:30:00 AM',
      '09:30',
    ]);
    expect(parse({ type: 'time', earliest: '10:00' }, '09:59')).toBe('no');
  });
});

describe('images', () => {
  it('are a file of the library or an address, with words for those who do not see them', () => {
    expect(parse({ type: 'image' }, 'assets/map.png  The garden’s map')).toEqual({
      src: 'assets/map.png',
      alt: 'The garden’s map',
    });
    expect(parse({ type: 'image' }, { src: 'https://x.example/a.png' })).toEqual({
      src: 'https://x.example/a.png',
      alt: '',
    });
    for (const bad of ['../a.png', '/etc/passwd', 'javascript:alert(1)', 'data:image/png;base64,AA', '', 7, { src: 1 }])
      expect(parse({ type: 'image' }, bad)).toBe('no');
  });
});

it('every type has a specimen that all its views show', () => {
  const context = { today: '2026-11-24', locale: 'en-GB' };
  const more: Partial<Record<TypeName, Partial<Variable>>> = {
    number: { plural: { one: 'guest', other: 'guests' }, forms: { is: { one: 'is', other: 'are' } }, max: 5 },
    money: { currency: 'EUR' },
    choice: { options: [{ key: 'a' }] },
    choices: { options: [{ key: 'a' }, { key: 'b' }] },
    list: { columns: [{ key: 'item', type: 'text' }] },
  };
  for (const type of TYPE_NAMES) {
    const variable: Variable = { key: 'x', type, ...more[type] };
    const { views, formatter } = valueType(type);
    for (const view of [...(type === 'list' ? [] : ['']), ...views(variable)]) {
      const shown = formatter(variable, view, 'en-GB')?.(specimenOf(variable, context));
      expect([type, view, shown]).toEqual([type, view, expect.stringMatching(/./)]);
    }
  }
  expect(specimenOf({ key: 'n', type: 'number', example: '40', max: 50 }, context)).toBe(40);
  expect(specimenOf({ key: 'n', type: 'number', example: 'forty', max: 9 }, context)).toBe(9);
});
