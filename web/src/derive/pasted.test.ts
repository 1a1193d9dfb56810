import { describe, expect, it } from 'vitest';
import { pastedMails } from './pasted';

describe('pasted words', () => {
  it('without a head are one mail', () => {
    expect(pastedMails('Dear Ann,\r\n\r\nWelcome.', 3)).toEqual([
      { file: 'pasted 3', subject: '', to: [], text: 'Dear Ann,\n\nWelcome.' },
    ]);
    expect(pastedMails('  \n ', 1)).toEqual([]);
  });
  it('after words without a head are told from them, and a subject in the middle of words starts none', () => {
    const words = 'Dear Ann,\n\nWelcome.\nSubject: not a head\n\nMaeve\n\nSubject: Two\n\nDear Bo.';
    expect(pastedMails(words, 1).map(({ subject, text }) => [subject, text])).toEqual([
      ['', 'Dear Ann,\n\nWelcome.\nSubject: not a head\n\nMaeve'],
      ['Two', 'Dear Bo.'],
    ]);
  });
  it('with heads are as many mails', () => {
    const words = [
      'From: Maeve <maeve@larkmoor.example>\nTo: Ann Lee <ann@x.example>\nDate: 3 Nov 2026\nSubject: Your visit\n\nDear Ann,\n\nWelcome.',
      'Subject: Your visit\nTo: bo@x.example\n\nDear Bo,\n\nWelcome, too.',
    ].join('\n\n');
    expect(pastedMails(words, 1)).toEqual([
      {
        ...{ file: 'pasted 1', subject: 'Your visit', to: ['Ann Lee <ann@x.example>'], text: 'Dear Ann,\n\nWelcome.' },
        ...{ from: 'Maeve <maeve@larkmoor.example>', day: '2026-11-03' },
      },
      { file: 'pasted 2', subject: 'Your visit', to: ['bo@x.example'], text: 'Dear Bo,\n\nWelcome, too.' },
    ]);
  });
});
