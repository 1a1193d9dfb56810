/** Whom a message goes to: a name is never an address. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compile } from '../compile/compile.js';
import { readText } from '../formats/markdown/index.js';
import { render } from '../render/render.js';
import { readMailbox, writtenMailbox } from './mailbox.js';

const program = (to: string) =>
  compile(
    {
      name: 'visit',
      document: readText(
        `---\nvocabula: 1\nkind: message\ntitle: Visit\nsubject: Hello\nto: '${to}'\nvariables:\n  n: { type: text }\n---\nDear all\n`,
      ).document,
    },
    { library: { get: () => undefined } },
  );
const sent = (to: string, n: string, email = 'ann@x.example') => {
  const { to: mailboxes, findings } = render(program(to), {
    recipient: { email },
    sender: {},
    answers: { n },
    today: '2027-01-01',
  });
  return { to: mailboxes, codes: findings.map(({ code }) => code) };
};
const NAMED = '{{n}} <{{recipient.email}}>';

describe('an address line', () => {
  it.each([
    ['x@y.example, z@w.example', 'x@y.example, z@w.example'],
    ['a"', 'a"'],
    ['Team: Visits', 'Team: Visits'],
    ['Ann <eve@x.example>', 'Ann <eve@x.example>'],
    ['Łukasz 王', 'Łukasz 王'],
    ['', ''],
  ])('with the name %s is for one person', (n, name) => {
    expect(sent(NAMED, n)).toEqual({ to: [{ name, address: 'ann@x.example' }], codes: [] });
  });
  it('keeps every name a name', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 60 }), (n) => {
        const { to } = sent(NAMED, n);
        expect(to.map(({ address }) => address)).toEqual(['ann@x.example']);
      }),
    );
  });
  it('takes an address, or one mailbox, as a value, and refuses what is more', () => {
    expect(sent('{{recipient.email}}', '').to).toEqual([{ name: '', address: 'ann@x.example' }]);
    expect(sent('{{recipient.email}}', '', 'Ann Lee <ann@x.example>').to).toEqual([
      { name: 'Ann Lee', address: 'ann@x.example' },
    ]);
    for (const wrong of [
      'a@x.example, b@x.example',
      'a@x.example\nBcc: b@x.example',
      'ann',
      'A <a@x.example> <b@x.example>',
    ])
      expect([wrong, sent('{{recipient.email}}', '', wrong).codes]).toEqual([wrong, ['bad-address']]);
    expect(sent('Visits <visits@x.example> and more', '').codes).toEqual(['bad-address']);
    expect(sent(NAMED, 'Ann', 'a@x.example> <b@x.example').codes).toEqual(['bad-address']);
  });
});

describe('a mailbox', () => {
  it('is read as it is written', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 40 }), (words) => {
        const name = words.replace(/[\s\p{Cc}<>]+/gu, ' ').trim();
        fc.pre(!(name.startsWith('"') && name.endsWith('"')));
        expect(readMailbox(writtenMailbox({ name, address: 'a@x.example' }))).toEqual({ name, address: 'a@x.example' });
      }),
    );
  });
});
