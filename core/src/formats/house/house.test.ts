import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { PLAIN_HOUSE, type Fact, type House } from '../../house/house.js';
import { readHouse, writeHouse } from './index.js';

const hex = fc.stringMatching(/^#[0-9A-F]{6}$/);
const colour = fc.record({ light: hex, dark: hex });
const key = fc
  .stringMatching(/^[a-z][a-z0-9_]{0,8}$/)
  .filter((text) => !['in', 'as', 'if', 'all', 'map', 'for', 'let', 'int', 'has', 'var'].includes(text));
const words = fc.constantFrom('4.50', '007', 'yes: no', '# not a comment', '{{x}}', ' spaced ', '“quoted” \\ "x"', 'é');
const facts: fc.Arbitrary<Fact> = fc
  .record({
    key,
    value: words,
    label: fc.option(words, { nil: undefined }),
    changes: fc.uniqueArray(
      fc.record({ date: fc.constantFrom('2027-01-01', '2028-02-29', '2027-06-30'), value: words }),
      {
        selector: ({ date }) => date,
      },
    ),
  })
  .map(({ key: name, value, label, changes }) => ({
    variable: { key: name, type: 'text', ...(label === undefined ? {} : { label }) },
    value,
    changes: changes.sort((a, b) => (a.date < b.date ? -1 : 1)),
  }));
const houses: fc.Arbitrary<House> = fc
  .record({
    style: fc.record(
      {
        font: fc.constantFrom("Georgia, 'Times New Roman', serif", 'Verdana, sans-serif'),
        headingFont: fc.constant('Georgia, serif'),
        size: fc.integer({ min: 8, max: 40 }),
        ink: colour,
        link: colour,
        rule: colour,
        colours: fc.dictionary(key, colour, { minKeys: 1, maxKeys: 4, noNullPrototype: true }),
        header: fc.constant('letterhead'),
        footer: fc.constant('small-print'),
        lineHeight: fc.integer({ min: 8, max: 80 }),
        width: fc.integer({ min: 320, max: 1200 }),
        lines: fc.constantFrom('rows' as const, 'all' as const, 'none' as const),
        corners: fc.integer({ min: 0, max: 40 }),
      },
      { requiredKeys: ['colours', 'lines', 'corners'] },
    ),
    facts: fc.array(facts, { maxLength: 4 }),
    holidays: fc.uniqueArray(fc.constantFrom('2026-12-25', '2026-12-26', '2027-01-01')),
    locale: fc.constantFrom('en-GB', 'ga-IE'),
  })
  .map(({ style: { lines, corners, ...style }, facts: all, holidays, locale }) => {
    const [first = 'ink'] = Object.keys(style.colours);
    return {
      style: {
        ...PLAIN_HOUSE.style,
        ...style,
        button: { colour: first, words: '#FFFFFF', corners },
        table: { head: first, lines },
      },
      facts: Object.fromEntries(all.map((fact) => [fact.variable.key, fact])),
      holidays: holidays.sort(),
      locale,
    };
  });

describe('house.yaml', () => {
  it('reads back what was written, and writes the same again', () => {
    fc.assert(
      fc.property(houses, (house) => {
        const written = writeHouse(house);
        const { house: read, findings } = readHouse(written);
        expect(findings).toEqual([]);
        expect(read).toEqual(house);
        expect(writeHouse(read)).toBe(written);
      }),
      { numRuns: 300 },
    );
  });

  it('is the plain house where it says nothing', () => {
    expect(readHouse('vocabula: 1\n')).toEqual({ house: PLAIN_HOUSE, findings: [] });
  });

  it.each([
    ['style: { font: "x; } body { display: none" }', 'bad-value'],
    ['style: { colours: { moss: green } }', 'bad-value'],
    ['style: { colours: { Moss: "#00FF00" } }', 'bad-key'],
    ['style: { button: { colour: nowhere } }', 'bad-value'],
    ['style: { table: { lines: some } }', 'bad-value'],
    ['style: { header: "../x" }', 'bad-value'],
    ['style: { shadow: yes }', 'unknown-attribute'],
    ['facts: { fee: { type: money, currency: EUR, value: cheap } }', 'bad-value'],
    ['facts: { fee: { type: money, currency: EUR, from: [{ date: 2027-02-31, value: 5 }] } }', 'bad-value'],
    ['facts: { gate: { type: choice, options: { a: {} } } }', 'bad-value'],
    ['facts: { fee: { type: colour } }', 'unknown-type'],
    ['facts: { fee: { type: text, value: a }, fee: { type: text } }', 'duplicate-key'],
    ['holidays: [2026-12-32]', 'bad-value'],
    ['places: {}', 'unknown-attribute'],
    ['style: [', 'bad-file'],
  ])('%s is %s, with its line', (text, code) => {
    const { findings } = readHouse(`vocabula: 1\n${text}\n`);
    expect(findings.map((finding) => finding.code)).toContain(code);
    expect(findings.every(({ place }) => (place.line ?? 0) >= 2)).toBe(true);
  });
});
