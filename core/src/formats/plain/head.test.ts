import { describe, expect, it } from 'vitest';
import { emptyDocument, plainWords, type TextDocument } from '../../template/document.js';
import { writeText } from '../markdown/index.js';
import { pastedHead, withPastedHead } from './head.js';
import { readPlain } from './read.js';

const headOf = (text: string) => {
  const head = pastedHead(readPlain(text));
  return (
    head && {
      subject: plainWords(head.subject),
      ...Object.fromEntries(Object.entries(head.addresses).map(([name, all]) => [name, all?.map(plainWords)])),
      rest: head.rest.length,
    }
  );
};

describe('the head of a pasted letter', () => {
  it.each<[string, unknown]>([
    ['Subject: Your visit on [date]\n\nDear all', { subject: 'Your visit on [date]', rest: 1 }],
    [
      'To: ann@x.example; Bo <bo@x.example>\nCc: [office]\nSubject: Hello\n\nDear all',
      { subject: 'Hello', to: ['ann@x.example', 'Bo <bo@x.example>'], cc: ['[office]'], rest: 1 },
    ],
    ['From: Me <me@x.example>\nSent: Monday\nSubject: Hello\n\nDear all', { subject: 'Hello', rest: 1 }],
    [
      'To: "Lee, Ann" <ann@x.example>\n\nSubject: Hello',
      { subject: 'Hello', to: ['"Lee, Ann" <ann@x.example>'], rest: 0 },
    ],
    ['Betreff: Ihr Besuch\nAn: [Adresse]\n\nGuten Tag', { subject: 'Ihr Besuch', to: ['[Adresse]'], rest: 1 }],
    ['To: whom it may concern\nSubject: Hello', undefined],
    ['Dear all,\n\nSubject: Hello', undefined],
    ['Subject:\n\nDear all', undefined],
    ['Subject: Hello\nand more of the paragraph', undefined],
    ['', undefined],
  ])('%j', (text, expected) => expect(headOf(text)).toEqual(expected));

  it('goes to the envelope of the text that is started from it', () => {
    const empty = emptyDocument({ kind: 'message', title: 'T' });
    const pasted: TextDocument = {
      ...empty,
      content: empty.content.map((part) =>
        part.type === 'body'
          ? { ...part, content: readPlain('Subject: Hi [name]\nTo: a@x.example\n\nDear you') }
          : part,
      ) as TextDocument['content'],
    };
    const written = writeText(withPastedHead(pasted));
    expect(written).toContain('subject: "Hi [name]"');
    expect(written).toContain('a@x.example');
    expect(written).toMatch(/---\nDear you\n$/);
  });
});
