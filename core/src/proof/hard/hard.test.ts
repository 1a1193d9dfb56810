import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compile } from '../../compile/compile.js';
import { render } from '../../render/render.js';
import { documents } from '../../testing/arbitrary.js';
import { program } from '../../testing/build.js';
import { hardCases } from './hard.js';

const TODAY = '2026-11-24';
const VARIABLES = [
  'first_name: { type: text, from: recipient.first_name, required: true }',
  'party: { type: number, min: 1, max: 60, required: true }',
  'day: { type: date, earliest: today, required: true }',
  'gate: { type: choice, required: true, options: { north: {}, river: { wording: "the river gate, which is a long way off" } } }',
  'remark: { type: text, max_length: 40 }',
  'tickets: { type: list, columns: { what: { type: text }, price: { type: number } } }',
].join('\n');
const compiled = program({
  body: 'Dear {{first_name}} {{recipient.last_name}}, {{party}} on {{day}} at {{gate}}. {{remark}}\n\n{{#tickets}}\n{{tickets.what}}\n{{/tickets}}',
  variables: VARIABLES,
});
const cases = hardCases(compiled, { today: TODAY });
const keys = cases.map(({ key }) => key);
const of = (key: string) => cases.find((each) => each.key === key)?.filling;
const text = (key: string): string => render(compiled, { ...of(key), today: TODAY }).text;

describe('hard cases', () => {
  it('leave out every optional field in turn, and then all', () => {
    expect(keys.filter((key) => key.startsWith('empty'))).toEqual([
      'empty last_name',
      'empty remark',
      'empty tickets',
      'empty',
    ]);
    expect(of('empty last_name')?.recipient).not.toHaveProperty('last_name');
    expect(text('empty')).toBe(`Dear Ada, 1 on 27 November 2026 at North.\n`);
  });
  it('say what each is there to provoke, and give nothing that is refused', () => {
    for (const { label, provokes, filling } of cases) {
      expect(label && provokes).toBeTruthy();
      const { findings, blanks } = render(compiled, { ...filling, today: TODAY });
      expect(findings.filter(({ code }) => code === 'bad-value')).toEqual([]);
      expect(blanks).toEqual([]);
    }
  });
  it('keep to what variables allow: a party of none and a day that is over are no cases', () => {
    expect(keys).toEqual(
      expect.arrayContaining(['number-1', 'number-2', 'number-21', 'today', 'year-end', 'leap-day']),
    );
    expect(keys).not.toContain('number-0');
    expect(keys).not.toContain('past');
    expect(of('number-large')?.answers.party).toBe(60);
    expect(String(of('longest')?.answers.remark).length).toBeLessThanOrEqual(40);
    expect(of('leap-day')?.answers.day).toBe('2028-02-29');
  });
  it('reach names by the part of the name that is meant, wherever they come from', () => {
    expect(of('apostrophes')?.recipient).toMatchObject({ first_name: 'Jean-Luc', last_name: "O'Neill-D’Arcy" });
    expect(text('markup')).toContain('Dear <b>Ann</b> *&amp;* {{x}}, ');
    expect(text('rows-40').split('\n\n').length).toBeGreaterThan(40);
    expect(text('longest')).toContain('a long way off');
  });
  it('are all different, and the same from one making to the next', () => {
    expect(new Set(cases.map(({ filling }) => JSON.stringify(filling))).size).toBe(cases.length);
    expect(hardCases(compiled, { today: TODAY })).toEqual(cases);
  });
  it('take what is usual from a row', () => {
    const given = hardCases(compiled, { today: TODAY, usual: { first_name: 'Zoë', party: '7' } });
    const { recipient, answers } = given.find(({ key }) => key === 'today')?.filling ?? {};
    expect([recipient?.first_name, answers?.party]).toEqual(['Zoë', '7']);
  });
  it('can be made of any document, and render', () => {
    fc.assert(
      fc.property(documents, (document) => {
        const any = compile({ name: 'a', document }, { library: { get: () => undefined } });
        for (const { filling } of hardCases(any, { today: TODAY })) {
          const { findings } = render(any, { ...filling, today: TODAY });
          expect(findings.filter(({ code }) => code === 'bad-value')).toEqual([]);
        }
      }),
      { numRuns: 60 },
    );
  });
});
