import { describe, expect, it } from 'vitest';
import { advice, ADVICE_CODES, distinct, error, ERROR_CODES, placeInWords, sentenceOf } from './finding.js';

describe('a finding', () => {
  it('keeps what was found as fields beside its sentence', () => {
    expect(error({ code: 'unknown-block', why: 'missing', name: 'arrival' }, { path: [1] })).toEqual({
      code: 'unknown-block',
      why: 'missing',
      name: 'arrival',
      level: 'error',
      message: 'There is no block “arrival”.',
      place: { path: [1] },
    });
    expect(advice({ code: 'doubled-space', count: 3 }, {}, 'note')).toMatchObject({ level: 'note', count: 3 });
  });

  it('has another sentence in each case of its code', () => {
    const at = { key: 'size', attribute: 'type', other: 'stay' };
    expect(sentenceOf({ code: 'type-clash', why: 'texts', ...at, one: 'visit' })).toBe(
      '“size” differs in its type between visit and stay.',
    );
    expect(sentenceOf({ code: 'type-clash', why: 'column', ...at })).toBe(
      '“size” differs in its type between the list it repeats over and stay.',
    );
    expect(sentenceOf({ code: 'unknown-attribute', why: 'declared', what: 'option', name: 'hue' })).toBe(
      'An option has no attribute “hue”.',
    );
    expect(sentenceOf({ code: 'bad-file', why: 'no-entries', name: 'facts' })).toBe('“facts” must have entries.');
  });

  it('shows no more than the beginning of what a file or a person gave', () => {
    const found = error({ code: 'unsafe-link', why: 'filled', href: `javascript:${'x'.repeat(100_000)}` });
    expect(found.message.length).toBeLessThan(100);
    expect(JSON.stringify(found).length).toBeLessThan(600);
  });

  it('has one code only, as an error or as advice', () => {
    expect(ERROR_CODES.filter((code) => (ADVICE_CODES as readonly string[]).includes(code))).toEqual([]);
    for (const code of [...ERROR_CODES, ...ADVICE_CODES]) expect(code).toMatch(/^[a-z]+(-[a-z]+)*$/);
  });

  it('is listed once for one place, and again for another', () => {
    const [here, there] = [error({ code: 'no-subject' }, { line: 1 }), error({ code: 'no-subject' }, { line: 2 })];
    expect(distinct([here, here, there])).toEqual([here, there]);
    expect(placeInWords({ line: 4, variable: 'size', attribute: 'value', offset: 2 })).toBe(
      'line 4, variable size (value), character 3',
    );
  });
});
