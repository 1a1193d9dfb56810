/** Colours by published figures, facts by their days, and what differs between two states of a house. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { contrast, darkTint, ENOUGH_CONTRAST, isHex, mix, PAGE, tint, turned } from './colour.js';
import { houseDifferences } from './differences.js';
import { factValues, valueOn } from './facts.js';
import { FACT_TYPES, PLAIN_HOUSE, type Fact, type House } from './house.js';

const hex = fc
  .integer({ min: 0, max: 0xffffff })
  .map((value) => `#${value.toString(16).padStart(6, '0').toUpperCase()}`);
const channels = (colour: string): number[] => [1, 3, 5].map((at) => Number.parseInt(colour.slice(at, at + 2), 16));

describe('contrast', () => {
  // From the Web Content Accessibility Guidelines and its well-known borderline greys.
  it.each([
    ['#000000', '#FFFFFF', 21],
    ['#FFFFFF', '#FFFFFF', 1],
    ['#767676', '#FFFFFF', 4.54],
    ['#777777', '#FFFFFF', 4.48],
    ['#0000FF', '#FFFFFF', 8.59],
    ['#FF0000', '#FFFFFF', 4.0],
    ['#00FF00', '#FFFFFF', 1.37],
    ['#949494', '#FFFFFF', 3.03],
  ])('of %s on %s is %d', (a, b, expected) => {
    expect(contrast(a, b)).toBeCloseTo(expected, 2);
    expect(contrast(b, a)).toBe(contrast(a, b));
  });
  it('lies between 1 and 21', () => {
    fc.assert(
      fc.property(hex, hex, (a, b) => {
        expect(contrast(a, b)).toBeGreaterThanOrEqual(1);
        expect(contrast(a, b)).toBeLessThanOrEqual(21);
      }),
    );
  });
  it('of every named colour of the plain house is enough, on light pages, on dark ones, and on its own tint', () => {
    for (const [name, { light, dark }] of Object.entries(PLAIN_HOUSE.style.colours)) {
      expect([name, contrast(light, PAGE) >= ENOUGH_CONTRAST]).toEqual([name, true]);
      expect([name, contrast(light, tint(light)) >= ENOUGH_CONTRAST]).toEqual([name, true]);
      expect([name, contrast(dark, darkTint(dark)) >= ENOUGH_CONTRAST]).toEqual([name, true]);
    }
  });
});

describe('colours', () => {
  it.each([
    ['#3B6B2E', true],
    ['#3b6b2e', true],
    ['#FFF', false],
    ['3B6B2E', false],
    ['#3B6B2G', false],
    ['#3B6B2E80', false],
    ['red', false],
    ['', false],
  ])('%j is a hex value: %s', (text, is) => expect(isHex(text)).toBe(is));
  it('are mixed channel by channel: not at all, half, and whole', () => {
    expect(mix('#000000', '#FFFFFF', 0)).toBe('#000000');
    expect(mix('#000000', '#FFFFFF', 0.5)).toBe('#808080');
    expect(mix('#102030', '#FFFFFF', 1)).toBe('#FFFFFF');
    expect(mix('#FF0000', '#0000FF', 0.25)).toBe('#BF0040');
  });
  it('stay between the two that are mixed', () => {
    fc.assert(
      fc.property(hex, hex, fc.double({ min: 0, max: 1, noNaN: true }), (a, b, share) => {
        const [from, to, mixed] = [channels(a), channels(b), channels(mix(a, b, share))];
        for (const [at, channel] of mixed.entries()) {
          expect(channel).toBeGreaterThanOrEqual(Math.min(from[at] ?? 0, to[at] ?? 0));
          expect(channel).toBeLessThanOrEqual(Math.max(from[at] ?? 0, to[at] ?? 0));
        }
      }),
    );
  });
  it('turned twice are themselves; white turns black, and a hue stays', () => {
    expect(turned('#FFFFFF')).toBe('#000000');
    expect(turned('#FF0000')).toBe('#FF0000');
    expect(turned('#3B6B2E')).toBe('#A1D194');
    fc.assert(
      fc.property(hex, (colour) => {
        expect(isHex(turned(colour))).toBe(true);
        expect(turned(turned(colour))).toBe(colour);
        const order = (of: string): number[] =>
          channels(of).map((channel, at, all) => channel - (all[(at + 1) % 3] ?? 0));
        // The channels keep their distances, so the hue does.
        expect(order(turned(colour))).toEqual(order(colour));
      }),
    );
  });
});

const context = { today: '2026-11-24', locale: 'en-IE' };
const fee = (value: string, changes: Fact['changes'] = []): Fact => ({
  variable: { key: 'fee', type: 'money', currency: 'EUR', label: 'Entry fee' },
  value,
  changes,
});

describe('a fact', () => {
  const values = factValues(
    fee('4.50', [
      { date: '2027-04-01', value: '5' },
      { date: '2027-01-01', value: '4.80' },
    ]),
    context,
  );
  it.each([
    ['2020-01-01', 4.5],
    ['2026-12-31', 4.5],
    ['2027-01-01', 4.8],
    ['2027-03-31', 4.8],
    ['2027-04-01', 5],
    ['2099-01-01', 5],
  ])('is worth on %s what holds from the last day before: %d', (day, worth) =>
    expect(valueOn(values, day)).toBe(worth),
  );
  it('that is empty, or does not fit its type from a day on, is worth nothing then', () => {
    const odd = factValues(
      fee('', [
        { date: '2027-01-01', value: 'four' },
        { date: '2027-02-01', value: '4' },
      ]),
      context,
    );
    expect(['2026-12-31', '2027-01-15', '2027-02-01'].map((day) => valueOn(odd, day))).toEqual([
      undefined,
      undefined,
      4,
    ]);
  });
  it('of every type that facts may have can be read', () => {
    const written: Record<(typeof FACT_TYPES)[number], string> = {
      ...{ text: 'words', paragraphs: 'a\n\nb', number: '3', money: '3.50', date: '2027-05-11', time: '09:30' },
      ...{ datetime: '2027-05-11T09:30', 'yes-no': 'yes', email: 'a@x.example', phone: '+353209100123' },
      ...{ link: 'https://x.example/', image: 'assets/map.png' },
    };
    for (const type of FACT_TYPES) {
      const fact: Fact = { variable: { key: 'x', type, currency: 'EUR' }, value: written[type], changes: [] };
      expect([type, valueOn(factValues(fact, context), '2026-11-24')]).toEqual([type, expect.anything()]);
    }
  });
});

describe('two states of a house', () => {
  const house = (more: Partial<House>): House => ({ ...PLAIN_HOUSE, ...more });
  it('that are the same have no difference, in whatever order their parts stand', () => {
    const [a, b] = [fee('4.50'), { ...fee('1'), variable: { key: 'desk', type: 'phone' as const } }];
    expect(houseDifferences(house({ facts: { a, b } }), house({ facts: { b, a } }))).toEqual([]);
    expect(
      houseDifferences(
        house({ holidays: ['2026-12-25', '2026-12-26'] }),
        house({ holidays: ['2026-12-26', '2026-12-25'] }),
      ),
    ).toEqual([]);
  });
  it('differ in facts by their labels, with what holds from when', () => {
    const before = house({ facts: { fee: fee('4.50') } });
    const after = house({ facts: { fee: fee('4.50', [{ date: '2027-01-01', value: '5' }]) } });
    expect(houseDifferences(before, after)).toEqual([
      {
        ...{ in: 'facts', name: 'Entry fee', before: '4.50 · money · currency EUR' },
        after: '4.50 · from 2027-01-01 5 · money · currency EUR',
      },
    ]);
    expect(houseDifferences(house({}), before)).toMatchObject([{ name: 'Entry fee', before: undefined }]);
    expect(houseDifferences(before, house({}))).toMatchObject([{ name: 'Entry fee', after: undefined }]);
  });
  it('differ in the style by the path of each part, in holidays and in language', () => {
    const style = { ...PLAIN_HOUSE.style, button: { ...PLAIN_HOUSE.style.button, corners: 8 }, header: 'letterhead' };
    expect(houseDifferences(house({}), house({ style, holidays: ['2026-12-25'], locale: 'de-DE' }))).toEqual([
      { in: 'style', name: 'button.corners', before: '3', after: '8' },
      { in: 'style', name: 'header', before: undefined, after: 'letterhead' },
      { in: 'holidays', name: 'holidays', before: undefined, after: '2026-12-25' },
      { in: 'language', name: 'language', before: 'en-GB', after: 'de-DE' },
    ]);
  });
  it('have the same differences from either side, with before and after changed round', () => {
    const other = house({
      style: { ...PLAIN_HOUSE.style, size: 17, colours: { moss: { light: '#000000', dark: '#FFFFFF' } } },
      facts: { fee: fee('9') },
    });
    const there = houseDifferences(PLAIN_HOUSE, other);
    const back = houseDifferences(other, PLAIN_HOUSE);
    expect(back).toHaveLength(there.length);
    for (const each of there) expect(back).toContainEqual({ ...each, before: each.after, after: each.before });
  });
});
