import { writtenEnvelope } from '../values/mailbox.js';
import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compile } from '../compile/compile.js';
import { documents, answers } from '../testing/arbitrary.js';
import { codesOf, documentOf, program, rendered, textOf } from '../testing/build.js';
import { LAYOUT_END } from './styles.js';
import { render, renderHtml } from './render.js';

const example = (name: string): string =>
  readFileSync(new URL(`../../fixtures/example/${name}`, import.meta.url), 'utf8');

describe('the example', () => {
  const library = {
    get: (name: string) => (name === 'opening-hours' ? documentOf(example('opening-hours.md')) : undefined),
  };
  const compiled = compile({ name: 'visit', document: documentOf(example('visit.md')) }, { library });
  const rows = [
    { first_name: 'Róisín', email: 'roisin@school.example' },
    { first_name: 'Tomás <b>', email: 'tomas@club.example' },
    { first_name: '', email: 'nobody@club.example' },
  ];
  it.each(
    JSON.parse(example('expected.json')) as {
      recipient: number;
      textStartsWith?: string;
      htmlContains?: string;
      [key: string]: unknown;
    }[],
  )('renders recipient $recipient as expected', ({ recipient, textStartsWith, htmlContains, ...rest }) => {
    const message = render(compiled, {
      recipient: rows[recipient - 1] ?? {},
      answers: JSON.parse(example('answers.json')),
      today: '2026-11-24',
    });
    expect({ ...message, ...writtenEnvelope(message) }).toMatchObject(rest);
    if (textStartsWith) expect(message.text.startsWith(textStartsWith)).toBe(true);
    if (htmlContains) expect(message.html).toContain(htmlContains);
  });
});

const X = 'x: { type: yes-no }\ny: { type: yes-no }\nn: { type: text }\nr: { type: text, label: Name, required: true }';
const join = (body: string, given: Record<string, unknown> = {}): string => textOf({ body, variables: X }, given);

describe('clean joins', () => {
  it.each([
    ['a{{#x}}, b{{/x}}.', 'a.'],
    ['a {{#x}}b{{/x}} c', 'a c'],
    ['a {{#x}}b{{/x}}, c', 'a, c'],
    ['{{#x}}b {{/x}}c', 'c'],
    ['a {{#x}}b{{/x}}', 'a'],
    ['a {{#x}}b{{/x}} {{#y}}c{{/y}} d', 'a d'],
    ['a{{#x}} b {{/x}}c', 'ac'],
    ['Dear {{n}}, hello', 'Dear, hello'],
    ['a  b {{#x}}c{{/x}} d', 'a  b d'],
    ['one\\\n{{#x}}two{{/x}}\\\nthree', 'one\nthree'],
    ['{{#x}}two{{/x}}\\\nthree', 'three'],
    ['one\\\n{{#x}}two{{/x}}', 'one'],
    ['one\\\n\\\ntwo', 'one\n\ntwo'],
    ['a {{#x}}b{{/x}} **c**', 'a c'],
    ['5&nbsp;{{n}} long', '5 long'],
    ['{{r}} {{n}} {{r}}', '[Name] [Name]'],
    ['{{r}} {{#x}}a{{/x}} {{r}}, {{n}} {{r}}', '[Name] [Name], [Name]'],
  ])('%s', (body, expected) => expect(join(body)).toBe(expected));

  it('keep everything the author wrote elsewhere', () => {
    expect(join('a  b {{#x}}c{{/x}}  d', { x: true })).toBe('a  b c  d');
    expect(join('a\n\n<p></p>\n\nb')).toBe('a\n\n\n\nb');
    expect(join('{{#x}}\na\n{{/x}}\n\nb')).toBe('b');
  });

  it('take away what leaving out has emptied', () => {
    expect(join('- {{#x}}a{{/x}}\n- b')).toBe('- b');
    expect(join('- {{#x}}a{{/x}}')).toBe('');
    expect(join('> {{#x}}a{{/x}}\n\nb')).toBe('b');
    expect(join('| h |\n|---|\n| {{#x}}a{{/x}} |\n| b |')).toBe('h\n-\nb');
    expect(join('| h |\n|---|\n{{#x}}\n| a |\n{{/x}}\n\nend')).toBe('end');
    expect(rendered({ body: '{{#x}}a{{/x}}\n\nb', variables: X }).html).not.toContain(
      '<p style="margin:0 0 14px"></p>',
    );
  });

  it('leave the space that a language sets before its marks', () => {
    const french = { front: 'kind: message\nsubject: S\nlocale: fr-FR', variables: 'n: { type: text }' };
    expect(textOf({ ...french, body: 'Bonjour {{n}}&nbsp;!' })).toBe('Bonjour\u00A0!');
    expect(textOf({ ...french, body: 'Bonjour {{n}} , oui' })).toBe('Bonjour, oui');
  });

  it('show no trace of a passage that is left out', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('a', 'Dear friend', 'x.'),
        fc.constantFrom(', b', ' b', ' and more'),
        fc.constantFrom('.', ', yes', ' c'),
        (before, inside, after) => {
          expect(join(`${before}{{#x}}${inside}{{/x}}${after}`)).toBe(before + after);
        },
      ),
    );
  });
});

describe('values', () => {
  const line = (value: string): string => textOf({ body: 'v: {{n}}.', variables: X }, { n: value });
  it('never become structure', () => {
    for (const value of ['<b>', '*Ann*', '{{x}}', '=1+1', '# h', '[a](b)', '&amp;']) {
      expect(line(value)).toBe(`v: ${value}.`);
      const { html } = rendered({ body: 'v: {{n}}.', variables: X }, { n: value });
      expect(html).not.toMatch(/<b>|<em>|<h1/);
    }
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), (value) => {
        const { html, fragment } = rendered({ body: '{{r}}', variables: X }, { r: value });
        expect(fragment.match(/</g)?.length).toBe(2);
        expect(html.endsWith(`</p>${LAYOUT_END}</body></html>`)).toBe(true);
      }),
      { numRuns: 300 },
    );
  });

  it('stay in their line', () => {
    const message = rendered(
      { body: '{{p}}', variables: 'p: { type: paragraphs }', front: 'kind: message\nsubject: "S {{p}}"' },
      { p: 'one\ntwo' },
    );
    expect(message.subject).toBe('S one two');
    expect(message.text).toBe('one\ntwo\n');
    expect(message.fragment).toContain('one<br>two');
    expect(
      rendered(
        { body: 'b', front: 'kind: message\nsubject: "S {{recipient.x}}"' },
        {},
        {},
        { recipient: { x: 'a\r\nBcc: b' } },
      ).subject,
    ).toBe('S a Bcc: b');
  });

  it('close the directions they open', () => expect(line('\u202Eabc')).toBe('v: \u202Eabc\u202C.'));

  it('are blanks, fallbacks or seams when they are missing', () => {
    const message = rendered({
      body: 'Dear {{r}}, {{f}}{{n}}.',
      variables: `${X}\nf: { type: text, fallback: friend }`,
    });
    expect(message).toMatchObject({ text: 'Dear [Name], friend.\n', blanks: ['r'], ready: false });
  });

  it('that do not fit are findings and count as missing', () => {
    const message = rendered(
      { body: '{{d}}', variables: 'd: { type: date, label: Day, required: true }' },
      { d: '2027-02-31' },
    );
    expect(message).toMatchObject({ blanks: ['d'], ready: false, text: '[Day]\n' });
    expect(message.findings.map((finding) => finding.code)).toEqual(['bad-value']);
  });
});

describe('worked-out values', () => {
  const variables =
    'party: { type: number, label: Party, required: true }\nfee: { type: money, currency: EUR, value: "party * 4.5" }\nbig: { type: yes-no, value: "party >= 15" }';
  it('show as a blank and name the input they wait for', () =>
    expect(rendered({ body: 'It is {{fee}}.', variables })).toMatchObject({
      text: 'It is [Fee].\n',
      blanks: ['party'],
    }));
  it('that govern are in blanks without a mark', () =>
    expect(rendered({ body: 'a{{#big}} b{{/big}}', variables })).toMatchObject({ text: 'a\n', blanks: ['party'] }));
  it('see short circuits', () =>
    expect(
      textOf(
        {
          body: '{{#c}}yes{{/c}}',
          variables: 'a: { type: yes-no }\nb: { type: yes-no }\nc: { type: yes-no, value: "a || b" }',
        },
        { a: true },
      ),
    ).toBe('yes'));
  it('that wait for each other are reported', () =>
    expect(
      codesOf({ body: '{{a}}', variables: 'a: { type: number, value: "b + 1" }\nb: { type: number, value: "a + 1" }' }),
    ).toEqual(['value-loop']));
  it('are undecided where they divide by zero', () =>
    expect(
      textOf({ body: 'a {{q}} b', variables: 'p: { type: number }\nq: { type: number, value: "1 / p" }' }, { p: 0 }),
    ).toBe('a b'));
});

describe('repeats', () => {
  const variables =
    'tickets: { type: list, columns: { item: { type: text }, price: { type: money, currency: EUR }, twice: { type: money, currency: EUR, value: "price * 2" } } }\ntotal: { type: money, currency: EUR, value: "sum(tickets.twice)" }';
  const rows = {
    tickets: [
      { item: 'Tour', price: 0.1 },
      { item: 'Tea', price: '0.20' },
    ],
  };
  it('go through rows, items and blocks, with totals after', () => {
    expect(
      textOf(
        {
          body: '| Item | Price |\n|---|--:|\n{{#tickets}}\n| {{item}} | {{twice}} |\n{{/tickets}}\n\nTotal {{total}}',
          variables,
        },
        rows,
      ),
    ).toBe('Item  Price\n----  -----\nTour  €0.20\nTea   €0.40\n\nTotal €0.60');
    expect(textOf({ body: '{{#tickets}}\n- {{item}}\n- costs {{price}}\n{{/tickets}}', variables }, rows)).toBe(
      '- Tour\n- costs €0.10\n- Tea\n- costs €0.20',
    );
    expect(textOf({ body: '{{^tickets}}\nnone\n{{/tickets}}', variables }, { tickets: [] })).toBe('none');
  });
  it('join columns inside a line, and do not repeat there', () => {
    expect(textOf({ body: '{{tickets.item}}, {{tickets.count}}', variables }, rows)).toBe('Tour and Tea, 2');
    expect(codesOf({ body: 'a {{#tickets}}b{{/tickets}}', variables })).toEqual(['repeat-in-line']);
  });
  it('shadow variables, in included blocks too', () => {
    const block = {
      body: '{{item}} for {{each}}',
      variables:
        'item: { type: text }\nprice: { type: money, currency: EUR }\neach: { type: money, currency: EUR, value: "price * 10" }',
    };
    expect(textOf({ body: '{{#tickets}}\n{{> row}}\n{{/tickets}}', variables }, rows, { row: block })).toBe(
      'Tour for €1.00\n\nTea for €2.00',
    );
  });
});

describe('blocks', () => {
  it('loops, depth and names without a text are errors with their path', () => {
    const loop = program({ body: '{{> a}}' }, { a: { body: '{{> b}}' }, b: { body: '{{> a}}' } });
    expect(loop.findings).toMatchObject([{ code: 'block-loop', message: expect.stringContaining('a → b → a') }]);
    expect(codesOf({ body: '{{> nope}}' })).toEqual(['unknown-block']);
    const deep = Object.fromEntries(Array.from({ length: 20 }, (_, i) => [`b${i}`, { body: `x {{> b${i + 1}}}` }]));
    expect(codesOf({ body: '{{> b0}}' }, deep)).toContain('too-deep');
  });
  it('cannot be grown without bound', () => {
    const wide = Object.fromEntries(
      Array.from({ length: 12 }, (_, i) => [
        `b${i}`,
        {
          body: Array(8)
            .fill(`{{> b${i + 1}}}`)
            .join('\n\n'),
        },
      ]),
    );
    expect(codesOf({ body: '{{> b0}}' }, wide)).toContain('too-deep');
  });
  it('share questions of equal key and type, and clash otherwise', () => {
    expect(
      codesOf(
        { body: '{{n}}{{> a}}', variables: 'n: { type: text }' },
        { a: { body: '{{n}}', variables: 'n: { type: number }' } },
      ),
    ).toEqual(['type-clash']);
    const both = program(
      { body: '{{n}}\n\n{{> a}}', variables: 'n: { type: number, max: 9 }' },
      { a: { body: '{{n}}', variables: 'n: { type: number, min: 3 }' } },
    );
    expect(render(both, { answers: { n: 2 }, today: '2026-11-24' }).findings).toMatchObject([{ code: 'bad-value' }]);
  });
  it('inside a line come out as one paragraph', () => {
    expect(textOf({ body: 'Open {{> a}}.' }, {}, { a: { body: 'daily' } })).toBe('Open daily.');
    expect(codesOf({ body: 'Open {{> a}}.' }, { a: { body: 'one\n\ntwo' } })).toEqual(['block-in-line']);
    expect(
      codesOf(
        { body: 'Open {{> a}}.' },
        { a: { body: '{{#x}}\none\n{{/x}}\n\n{{^x}}\ntwo\n{{/x}}', variables: 'x: { type: yes-no }' } },
      ),
    ).toEqual([]);
  });
  it('are marked where their language differs', () => {
    const message = rendered(
      { body: '{{> a}}', front: 'kind: message\nsubject: S\nlocale: en-IE' },
      {},
      { a: { body: 'Fáilte', front: 'kind: block\nlocale: ga-IE' } },
    );
    expect(message.fragment).toContain('<div lang="ga-IE" dir="ltr">');
  });
  it('sign once', () => {
    const sign = { s: { body: 'Maeve', front: 'kind: signature' }, t: { body: 'Tom', front: 'kind: signature' } };
    const twice = rendered({ body: 'a\n\n{{> s}}\n\n{{> t}}' }, {}, sign);
    expect(twice.text).toBe('a\n\nMaeve\n');
    expect(codesOf({ body: 'a\n\n{{> s}}\n\n{{> t}}' }, sign)).toEqual(['two-signatures']);
    expect(textOf({ body: 'a', front: 'kind: message\nsubject: S\nsignature: s' }, {}, sign)).toBe('a\n\nMaeve');
    expect(render(program({ body: 'a' }, sign, { senderSignature: 's' }), { today: '2026-11-24' }).text).toBe(
      'a\n\nMaeve\n',
    );
    expect(
      render(program({ body: 'a\n\n{{> t}}' }, sign, { senderSignature: 's' }), { today: '2026-11-24' }).text,
    ).toBe('a\n\nTom\n');
  });
});

describe('links', () => {
  it('escape values for where they land', () => {
    const { fragment, text } = rendered({ body: '[book](https://x.example/?q={{n}})', variables: X }, { n: 'a b&c"' });
    expect(fragment).toContain('href="https://x.example/?q=a%20b%26c%22"');
    expect(text).toBe('book (https://x.example/?q=a%20b%26c%22)\n');
  });
  it('never lead where a value says, unless it is an address', () => {
    expect(rendered({ body: '[a]({{n}})', variables: X }, { n: 'javascript:alert(1)' })).toMatchObject({
      findings: [{ code: 'unsafe-link' }],
      fragment: expect.not.stringContaining('javascript'),
    });
    expect(codesOf({ body: '[a](javascript:alert(1))' })).toEqual(['unsafe-link']);
  });
});

describe('notes', () => {
  const text = {
    body: 'Hello{{! say it loud }} all\n\n{{! only in summer }}\n\n- one{{! first }}\n\n> {{! nothing else }}\n\n{{#y}}\n{{! never }}\n{{/y}}',
    variables: 'y: { type: yes-no }',
  };
  it('stand in proofs behind what they are about, and in no message', () => {
    const proof = rendered(text, {}, {}, { proof: true }).fragment;
    expect([...proof.matchAll(/<aside class="vx-note"[^>]*>([^<]*)/g)].map((found) => found[1])).toEqual([
      'say it loud',
      'only in summer',
      'first',
    ]);
    expect(proof).not.toContain('<blockquote');
    const message = rendered(text);
    expect(message.html + message.text).not.toMatch(/loud|summer|first|nothing|never/);
    // A note beside its words leaves an item as tight as it was.
    expect(message.fragment).toMatch(/<li[^>]*>one<\/li>/);
  });
});

describe('rendering as such', () => {
  it('never throws, whatever the document and the answers', () => {
    fc.assert(
      fc.property(documents, answers, (document, given) => {
        const compiled = compile({ name: 'a', document }, { library: { get: () => undefined } });
        const input = { answers: given, today: '2026-11-24', recipient: { email: 'a@b.example' } };
        const message = render(compiled, input, { trace: true });
        expect(renderHtml(compiled, input)).toBe(message.html);
        expect(render(compiled, input)).toEqual({ ...message, trace: undefined, subjectTrace: undefined });
        const proof = render(compiled, input, { proof: true });
        expect(proof.text).toBe(message.text);
        // Every character of the words has exactly one origin: what stands between the stretches is tags.
        let last = 0;
        let between = '';
        for (const { from, to } of message.trace ?? []) {
          expect(from >= last && to > from && to <= message.fragment.length).toBe(true);
          between += message.fragment.slice(last, from);
          last = to;
        }
        between += message.fragment.slice(last);
        expect(between.replace(/<[^>]*>/g, '')).toBe('');
        expect(message.subjectTrace?.map(({ from, to }) => message.subject.slice(from, to)).join('')).toBe(
          message.subject,
        );
      }),
      { numRuns: 300 },
    );
  });
  it('compares a written weekday with the date behind it', () => {
    const variables = 'd: { type: date }';
    expect(rendered({ body: 'on Monday {{d}}', variables }, { d: '2027-06-14' }).findings).toEqual([]);
    expect(
      rendered({ body: 'on Sunday {{d}}', variables }, { d: '2027-06-14' }).findings.map((finding) => finding.code),
    ).toEqual(['weekday-mismatch']);
  });
});
