/** Form beyond Markdown, and the house: what it looks like in a message, rich and plain. */
import { describe, expect, it } from 'vitest';
import { readHouse } from '../formats/house/index.js';
import { program, rendered, textOf, type Source } from '../testing/build.js';
import { render } from './render.js';

const html = (body: string, variables = ''): string => rendered({ body, variables }).fragment;
const X = 'x: { type: yes-no }';

describe('form', () => {
  it('of lines stands across the page', () => {
    expect(html('<p align="center" data-indent="2">a **b**</p>')).toMatch(
      /^<p style="margin:0 0 14px;[^"]*;text-align:center;margin-left:56px">a <strong>b<\/strong><\/p>$/,
    );
    expect(html('<h2 align="right">a</h2>')).toContain(';text-align:right">a</h2>');
    expect(
      rendered({ body: '<p data-indent="1">א</p>', front: 'kind: message\nsubject: S\nlocale: he' }).fragment,
    ).toContain('margin-right:28px');
  });

  it('of words is a colour of the house, or none', () => {
    expect(html('<span data-colour="moss">a</span>')).toContain('<span class="c-moss" style="color:#3B6B2E">a</span>');
    expect(html('<mark data-colour="ochre">a</mark>')).toContain('<span class="h-ochre" style="background-color:#');
    expect(html('<span data-colour="nowhere">a</span>')).toBe(html('a'));
    expect(html('<span lang="ga">Fáilte</span>')).toContain('<span lang="ga">Fáilte</span>');
  });

  it('of buttons leads where a link may', () => {
    const button = (href: string, words = 'Book'): Source => ({
      body: `<a data-button href="${href}">${words}</a>`,
      variables: 'n: { type: text, required: true }\nx: { type: yes-no }',
    });
    expect(rendered(button('https://x.example/{{n}}'), { n: 'a b' }).fragment).toContain(
      'href="https://x.example/a%20b"',
    );
    expect(textOf(button('https://x.example/{{n}}'), { n: 'a' })).toBe('Book (https://x.example/a)');
    expect(rendered(button('https://x.example/{{n}}'))).toMatchObject({ blanks: ['n'], text: 'Book\n' });
    expect(program(button('javascript:alert(1)')).findings).toMatchObject([{ code: 'unsafe-link' }]);
    expect(rendered(button('https://x.example', '{{#x}}Book{{/x}}')).fragment).toBe('');
  });

  it('of panels lies under whole blocks, and goes with them', () => {
    const body = 'a\n\n<div data-panel="moss">\nb\n\n- c\n</div>\n\nd';
    expect(html(body)).toMatch(/<table role="presentation".*<td class="p-moss".*>b<\/p><ul.*<\/table><p/s);
    expect(textOf({ body })).toBe('a\n\nb\n\n- c\n\nd');
    expect(html('<div data-panel>\n{{#x}}\nb\n{{/x}}\n</div>', X)).toBe('');
  });

  it('of images has the width that is asked for', () => {
    expect(html('a <img src="assets/m.png" alt="Map of {{x}}" width="120">', X)).toContain(
      '<img src="assets/m.png" alt="Map of" width="120"',
    );
    expect(
      rendered(
        { body: '{{photo}}', variables: 'photo: { type: image, max_width: 90 }' },
        { photo: { src: 'assets/a.png', alt: 'A "fern"' } },
      ),
    ).toMatchObject({ fragment: expect.stringContaining('alt="A &quot;fern&quot;"'), text: 'A "fern"\n' });
  });

  it('of merged cells spans columns and rows, which stay together', () => {
    const body =
      '| a | b | c |\n|---|---|---|\n| <td colspan="2">wide |  | 1 |\n| <td rowspan="2">tall | 2 | {{#x}}3{{/x}} |\n|  | {{#x}}4{{/x}} |  |';
    const fragment = html(body, X);
    expect(fragment).toMatch(/<td colspan="2"[^>]*>wide<\/td><td[^>]*>1<\/td>/);
    expect(fragment).toMatch(/<td rowspan="2"[^>]*>tall<\/td>/);
    expect(fragment.match(/<tr/g)).toHaveLength(4);
    expect(textOf({ body, variables: X })).toBe('a     b  c\n----  -  -\nwide     1\ntall  2\n');
  });
});

const HOUSE = `vocabula: 1
style:
  font: "Georgia, serif"
  colours:
    fern: { light: "#225533", dark: "#99CCAA" }
  button: { colour: fern, corners: 0 }
  table: { head: fern, lines: all }
  header: letterhead
  footer: small-print
facts:
  fee: { type: money, label: Entry fee, currency: EUR, value: "4.50", from: [{ date: 2027-01-01, value: "5" }] }
  desk: { type: phone, value: "+353209100123" }
  open: { type: yes-no, value: true }
holidays: [2026-12-25]
`;

describe('the house', () => {
  const { house } = readHouse(HOUSE);
  const blocks = {
    letterhead: { body: '# Larkmoor', front: 'kind: block' },
    'small-print': { body: 'Fees are {{house.fee}}.', front: 'kind: block' },
  };
  const message = (text: Partial<Source>, today = '2026-11-24') =>
    render(program({ body: 'a', ...text }, blocks, { house }), { today });

  it('stands around every message', () => {
    expect(message({}).text).toBe('Larkmoor\n\na\n\nFees are €4.50.\n');
    expect(message({}).html).toContain('font-family:Georgia, serif');
    expect(program({ body: 'a', front: 'kind: block' }, blocks, { house }).texts).toEqual(['main']);
  });

  it('gives facts the value of the day, in messages and in expressions', () => {
    const text = {
      body: '{{house.fee}} {{house.fee.amount}} {{two}} {{house.desk}} {{big}}',
      variables:
        'two: { type: money, currency: EUR, value: "house.fee * 2" }\nbig: { type: yes-no, value: "house.open && house.fee > 4.9" }',
    };
    expect(message(text, '2026-12-31').text).toContain('€4.50 4.50 €9.00 +353 20 910 0123 no');
    expect(message(text, '2027-01-01').text).toContain('€5.00 5.00 €10.00 +353 20 910 0123 yes');
  });

  it('turns to its dark partners where a mail program asks for them', () => {
    const { html: page } = message({ body: '<span data-colour="fern">a</span>' });
    expect(page).toContain('@media (prefers-color-scheme:dark)');
    expect(page).toContain('.c-fern{color:#99CCAA!important}');
    expect(message({}).html).not.toContain('.c-fern');
  });

  it('counts its holidays', () => {
    const variables = 'd: { type: date, value: "addWorkingDays(\\"2026-12-24\\", 1)" }';
    expect(message({ body: '{{d.iso}}', variables }).text).toContain('2026-12-28');
  });

  it('is told what it names and the library lacks', () => {
    expect(program({ body: 'a' }, {}, { house }).findings.map(({ code }) => code)).toEqual([
      'unknown-block',
      'unknown-block',
    ]);
  });
});
