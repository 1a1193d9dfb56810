import { describe, expect, it } from 'vitest';
import { readPlain } from '../formats/plain/index.js';
import type { Block } from '../template/document.js';
import { mailContent, pastMailOf, sentences } from './mail.js';
import { textOf, tokensOfText } from './tokens.js';

const content = (body: readonly Block[]) =>
  mailContent({ file: 'a.eml', subject: 'Hello', to: ['Ann Marie Lee <ann@x.example>'], body }, 'en-IE');
const texts = (body: readonly Block[]): string[] => content(body).units.map(({ tokens }) => textOf(tokens));
const quote = (text: string): Block => ({ type: 'blockquote', content: readPlain(text) });

describe('what is set aside', () => {
  it('is a quoted original with its introduction, in several languages', () => {
    for (const introduction of [
      'On Tue, 3 Nov 2026, Ann Lee wrote:',
      'Am 3. November 2026 schrieb Ann Lee:',
      'Le 3 novembre 2026, Ann Lee a écrit :',
      '-----Original Message-----',
    ]) {
      const { units, setAside } = content(readPlain(`Yes.\n\n${introduction}\n\n> Are you open?\n> Ann`));
      expect(units).toHaveLength(1);
      expect(setAside[0]).toBe(introduction);
    }
  });
  it('is a signature below its line, and a quotation at the end', () => {
    expect(texts(readPlain('Yes.\n\n-- \nMaeve\nGarden'))).toEqual(['Yes.']);
    expect(texts([...readPlain('Yes.'), quote('Are you open?'), quote('Ann')])).toEqual(['Yes.']);
  });
  it('is a disclaimer at the end, and no sentence of the mail that only uses its words', () => {
    const words =
      'This message and its attachments are confidential and intended only for the person to whom they are addressed; others may not use them.';
    expect(texts(readPlain(`Yes.\n\n${words}`))).toEqual(['Yes.']);
    expect(texts(readPlain(`Yes.\n\n-- \nMaeve\n\n${words}`))).toEqual(['Yes.']);
    expect(texts(readPlain('Yes.\n\nPlease keep this confidential.'))).toHaveLength(2);
    expect(texts(readPlain(`${words}\n\nYes.`))).toHaveLength(2);
  });
  it('has the signature by itself, without what stands below it', () => {
    const of = (text: string) => content(readPlain(text)).signature;
    expect(of('Yes.\n\n-- \nMaeve\nGarden')).toEqual(['Maeve', 'Garden']);
    expect(of('Yes.\n\n-- \nMaeve\n\nOn Tue, 3 Nov 2026, Ann Lee wrote:\n\n> Are you open?')).toEqual(['Maeve']);
    expect(of('Yes.\n\n> Are you open?')).toEqual([]);
  });
  it('is what the application itself puts around its messages', () => {
    const frame = [
      { what: 'header', lines: ['Larkmoor'] },
      { what: 'footer', lines: ['Quarry Lane', 'Open daily'] },
      { what: 'signature', lines: ['With good wishes,', 'Maeve'] },
    ] as const;
    const of = (text: string) => mailContent({ file: '', subject: '', to: [], body: readPlain(text) }, 'en-IE', frame);
    const own = ({ units }: ReturnType<typeof of>) => units.map(({ tokens }) => textOf(tokens));
    const whole = of('Larkmoor\n\nDear Ann\n\nWith good wishes,\nMaeve\n\nQuarry Lane\n\nOpen  daily');
    expect([own(whole), whole.signature]).toEqual([['Dear Ann'], ['With good wishes,', 'Maeve']]);
    expect(own(of('Dear Ann\n\nWith good wishes,\nMaeve'))).toEqual(['Dear Ann']);
    // What only looks like it is the mail's own.
    expect(own(of('Larkmoor is open\n\nDear Ann\n\nWith good wishes,\nTomasz'))).toHaveLength(3);
    expect(own(of('Dear Ann, Larkmoor'))).toEqual(['Dear Ann, Larkmoor']);
  });
  it('is no quotation within the mail, and no sentence that only begins like an introduction', () => {
    expect(texts([...readPlain('You wrote this:'), quote('Are you open?'), ...readPlain('We are.')])).toEqual([
      'You wrote this:',
      'Are you open?',
      'We are.',
    ]);
    expect(texts(readPlain('On Monday your colleague wrote: please come.\n\nSo we come.'))).toHaveLength(2);
  });
});

describe('units', () => {
  it('are paragraphs, headings, items and rows', () => {
    const blocks: Block[] = [
      { type: 'heading', attrs: { level: 2 }, content: [{ type: 'text', text: 'Plan' }] },
      {
        type: 'bulletList',
        content: ['one', 'two'].map((text) => ({
          type: 'listItem' as const,
          attrs: { when: [] },
          content: [{ type: 'paragraph' as const, content: [{ type: 'text' as const, text }] }],
        })),
      },
      { type: 'horizontalRule' },
    ];
    const { units } = content(blocks);
    expect(units.map(({ shape }) => shape)).toEqual(['heading 2', 'bullet', 'bullet', 'horizontalRule']);
    expect(units[3]?.block).toEqual({ type: 'horizontalRule' });
  });
  it('of a table have their alignment, and no bold in their head', () => {
    const { units } = content(readPlain('a\tb\nc\td'));
    expect(units.map(({ shape, tokens }) => [shape, textOf(tokens)])).toEqual([
      ['row 2 ,', 'a | b'],
      ['row 2 ,', 'c | d'],
    ]);
  });
  it('beyond what is compared are counted', () => {
    const many = readPlain(Array.from({ length: 450 }, (_, at) => `Paragraph ${at}.`).join('\n\n'));
    expect([content(many).units.length, content(many).beyond]).toEqual([400, 50]);
    // A very long paragraph is compared as a whole.
    expect(content(readPlain('word '.repeat(4000))).units[0]?.block).toBeDefined();
  });
});

describe('people', () => {
  it('have the fields that their mailbox gives', () => {
    expect(content([]).recipient).toEqual({
      ...{ email: 'ann@x.example', name: 'Ann Marie Lee', first_name: 'Ann', last_name: 'Marie Lee' },
    });
    expect(mailContent({ file: 'a', subject: '', to: [], body: [] }, 'en-IE').recipient).toEqual({});
    expect(mailContent({ file: 'a', subject: '', to: ['bo@x.example'], body: [] }, 'en-IE').recipient).toEqual({
      email: 'bo@x.example',
    });
  });
});

it('sentences are cut so that the space between two goes with the second', () => {
  const cut = (text: string): string[] => sentences(tokensOfText(text, [], 'en-IE'), 'en-IE').map(textOf);
  expect(cut('One is here. Two is there! Three?')).toEqual(['One is here.', ' Two is there!', ' Three?']);
  expect(cut('Kind regards\nMaeve')).toEqual(['Kind regards', '\nMaeve']);
  expect(cut('Only one')).toEqual(['Only one']);
  expect(cut('')).toEqual([]);
});

it('a body is read from HTML before text, and is empty if it is too long', () => {
  const head = { file: 'a', subject: '', to: [] };
  expect(pastMailOf({ ...head, html: '<p>Rich</p>', text: 'Plain' }).body).toEqual(
    pastMailOf({ ...head, text: 'Rich' }).body,
  );
  expect(pastMailOf({ ...head, html: 'x'.repeat(2_000_001) }).body).toEqual([]);
});
