/** Names and keys: what may be called what, and what becomes of any label. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { closingTag, compareConditions, condition, conditionName, openingTag, sameCondition } from './condition.js';
import { columnKey, isKey, isName, isReserved, keyFromLabel, labelFromKey, nameFromTitle, unusual } from './keys.js';

const label = fc.string({ unit: 'grapheme', maxLength: 120 });

describe('a key', () => {
  it.each([
    ['party', true],
    ['p2', true],
    ['a'.repeat(40), true],
    ['a'.repeat(41), false],
    ['2p', false],
    ['_p', false],
    ['Party', false],
    ['par-ty', false],
    ['größe', false],
    ['', false],
    ['constructor', true],
  ])('%j is one: %s', (text, is) => expect(isKey(text)).toBe(is));
  it.each(['size', 'recipient', 'sender', 'house', 'true', 'in', 'map'])('%s has a meaning of its own', (text) =>
    expect(isReserved(text)).toBe(true),
  );
  it.each([
    ['First name', 'first_name'],
    ['  Größe (cm) ', 'gro_e_cm'],
    ['Size', 'size_'],
    ['24 hours', 'v_24_hours'],
    ['日本語', 'value'],
    ['', 'value'],
    ['a__b--c', 'a_b_c'],
    ['Ein sehr langes Etikett, das niemand je lesen wird', 'ein_sehr_langes_etikett_das_niemand'],
  ])('of the label %j is %s', (text, key) => expect(keyFromLabel(text)).toBe(key));
  it('of any label is valid, free, and not reserved', () => {
    fc.assert(
      fc.property(fc.array(label, { maxLength: 12 }), (labels) => {
        const taken = new Set<string>();
        for (const each of labels) {
          const key = keyFromLabel(each, taken);
          expect([each, isKey(key), isReserved(key), taken.has(key)]).toEqual([each, true, false, false]);
          taken.add(key);
        }
      }),
    );
  });
  it('of a column is valid, cut to 40, and added to those that are taken', () => {
    const taken = new Set<string>();
    expect(columnKey('Email', 0, taken)).toBe('email');
    expect(columnKey('E-mail!', 1, taken)).toBe('e_mail');
    expect(columnKey('EMAIL', 2, taken)).toBe('email_2');
    expect(columnKey('', 3, taken)).toBe('column_4');
    expect(columnKey('2nd visit', 4, taken)).toBe('c_2nd_visit');
    expect(columnKey('size', 5, taken)).toBe('size_');
    expect(columnKey('x'.repeat(60), 6, taken)).toHaveLength(40);
    expect(columnKey('x'.repeat(60), 7, taken)).toMatch(/^x{38}_2$/);
    expect(taken.size).toBe(8);
  });
  it('of any row of headers is its own', () => {
    fc.assert(
      fc.property(fc.array(label, { maxLength: 40 }), (headers) => {
        const taken = new Set<string>();
        const keys = headers.map((header, at) => columnKey(header, at, taken));
        expect(new Set(keys).size).toBe(headers.length);
        for (const key of keys) expect([key, isKey(key)]).toEqual([key, true]);
      }),
    );
  });
  it('has a label: spaces and a capital', () => {
    expect([labelFromKey('first_name'), labelFromKey('party'), labelFromKey('a__b_'), labelFromKey('')]).toEqual([
      ...['First name', 'Party', 'A b', ''],
    ]);
  });
});

describe('a name of a text', () => {
  it.each([
    ['visit', true],
    ['2-visits', true],
    ['a'.repeat(80), true],
    ['a'.repeat(81), false],
    ['-visit', false],
    ['Visit', false],
    ['a_b', false],
    ['a.b', false],
    ['', false],
  ])('%j is one: %s', (text, is) => expect(isName(text)).toBe(is));
  it.each([
    ['Group visit confirmed', 'group-visit-confirmed'],
    ['Élodie’s “note”!', 'elodie-s-note'],
    ['ありがとう', 'text'],
    ['--', 'text'],
  ])('of the title %j is %s', (title, name) => expect(nameFromTitle(title)).toBe(name));
  it('of any title is one, and free', () => {
    fc.assert(
      fc.property(fc.array(label, { maxLength: 8 }), (titles) => {
        const taken = new Set<string>();
        for (const title of titles) {
          const name = nameFromTitle(title, taken);
          expect([title, isName(name), taken.has(name)]).toEqual([title, true, false]);
          taken.add(name);
        }
      }),
    );
  });
  it('has the first free number behind it where it is taken', () => {
    expect(unusual('visit', new Set(), '-')).toBe('visit');
    expect(unusual('visit', new Set(['visit']), '-')).toBe('visit-2');
    expect(unusual('visit', new Set(['visit', 'visit-2', 'visit-4']), '-')).toBe('visit-3');
  });
});

describe('a condition', () => {
  it.each([
    [condition('guide'), 'guide', '{{#guide}}', '{{/guide}}'],
    [condition('guide', [], true), 'guide', '{{^guide}}', '{{/guide}}'],
    [condition('gate', ['north', 'river']), 'gate.north|river', '{{#gate.north|river}}', '{{/gate.north|river}}'],
    [condition('gate', ['north'], true, 2), 'gate.north', '{{^gate.north}}', '{{/gate.north}}'],
  ])('%j is written with its tags', (each, name, opening, closing) => {
    expect([conditionName(each), openingTag(each), closingTag(each)]).toEqual([name, opening, closing]);
    expect(sameCondition(each, { ...each, is: [...each.is] })).toBe(true);
    expect(compareConditions(each, { ...each })).toBe(0);
  });
  it.each([
    [condition('guide'), condition('guide', [], true)],
    [condition('guide'), condition('gate')],
    [condition('rows'), condition('rows', [], false, 1)],
    [condition('gate', ['north']), condition('gate', ['river'])],
    [condition('gate', ['north', 'river']), condition('gate', ['river', 'north'])],
    [condition('gate'), condition('gate', ['north'])],
  ])('%j is another one than %j', (a, b) => {
    expect(sameCondition(a, b)).toBe(false);
    expect(sameCondition(b, a)).toBe(false);
    expect(Math.sign(compareConditions(a, b))).toBe(-Math.sign(compareConditions(b, a)));
    expect(compareConditions(a, b)).not.toBe(0);
  });
});
