import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plainWords, type Inline } from '../template/document.js';
import { normaliseInline } from '../template/normalise.js';
import {
  activeTime,
  answeredBy,
  bounceOf,
  fatesOf,
  fingerprintOf,
  isAutomatic,
  isSameSentence,
  joinPieces,
  median,
  sameReplacements,
  sentencePieces,
  sentencesOf,
  withSentence,
  type ReceivedMail,
  type SentMessage,
} from './index.js';

const line = (words: string): Inline[] =>
  words
    .split(/(\[[a-z_]+\])/)
    .flatMap((part): Inline[] =>
      part === ''
        ? []
        : [
            part.startsWith('[')
              ? { type: 'placeholder', attrs: { name: part.slice(1, -1), view: '' } }
              : { type: 'text', text: part },
          ],
    );
const fates = (before: string, after: string | null) =>
  fatesOf(line(before), after === null ? null : line(after), 'en-GB');
const kinds = (found: ReturnType<typeof fates>): string[] => found.sentences.map(({ fate }) => fate.kind);

describe('what became of the sentences of a line', () => {
  const before = 'We look forward to seeing you on [day]. Please come to the north gate. Dogs stay at home.';
  it('is told for each: kept, reworded, taken out', () => {
    const found = fates(before, 'We look forward to seeing you on [day]. Please come to the river gate.');
    expect(kinds(found)).toEqual(['kept', 'reworded', 'taken out']);
    expect(found.sentences[1]?.fate).toEqual({ kind: 'reworded', words: 'Please come to the river gate.' });
    expect(found.added).toEqual([]);
  });
  it('tells what was written besides', () => {
    expect(fates(before, `${before} Thank you for your patience.`)).toMatchObject({
      sentences: [{ fate: { kind: 'kept' } }, { fate: { kind: 'kept' } }, { fate: { kind: 'kept' } }],
      added: [{ words: 'Thank you for your patience.', after: 2 }],
    });
  });
  it('tells where it was written', () => {
    const added = (after: string) => fates(before, after).added.map(({ after: at }) => at);
    expect(added(`Hello all. ${before}`)).toEqual([-1]);
    expect(
      added(
        'We look forward to seeing you on [day]. Please come to the north gate. Mind the geese. Dogs stay at home.',
      ),
    ).toEqual([1]);
  });
  it('of words like none of the old ones says whose place they take', () => {
    expect(fates(before, 'See you soon! Please come to the north gate. Dogs stay at home.').sentences[0]?.fate).toEqual(
      {
        kind: 'reworded',
        words: 'See you soon!',
      },
    );
  });
  it('of a line that was taken out is taken out', () => {
    expect(kinds(fates(before, null))).toEqual(['taken out', 'taken out', 'taken out']);
  });
  it('finds sentences that changed places', () => {
    const found = fates('One thing is here. Another stands there.', 'Another stands there. One thing is here.');
    expect(kinds(found)).toEqual(['kept', 'kept']);
    expect(found.added).toEqual([]);
  });
});

describe('a line with a sentence in other words', () => {
  /** Whether lines are the same, however their text is cut into nodes. */
  const same = (found: readonly Inline[], expected: readonly Inline[]): void =>
    expect(normaliseInline(found)).toEqual(normaliseInline(expected));
  const bold: Inline = { type: 'text', text: 'Bring rugs; all of you.', marks: [{ type: 'bold' }] };
  it('keeps what stands before and behind it, with its marks', () => {
    const before: Inline[] = [{ type: 'text', text: 'Come on time. ' }, bold, { type: 'text', text: ' Dogs stay.' }];
    same(withSentence(before, 1, 'Please bring rugs.', 'en-GB'), [
      { type: 'text', text: 'Come on time. ' },
      { type: 'text', text: 'Please bring rugs.' },
      { type: 'text', text: ' Dogs stay.' },
    ]);
    same(withSentence(before, 2, 'No dogs.', 'en-GB'), [
      ...before.slice(0, 2),
      { type: 'text', text: ' ' },
      { type: 'text', text: 'No dogs.' },
    ]);
  });
  it('keeps placeholders placeholders, and leaves alone what it does not have', () => {
    const before = line('The fee comes to [fee]. Pay it by [day].');
    same(withSentence(before, 0, 'Together that is [fee], [please].', 'en-GB'), [
      ...line('Together that is [fee], ').slice(0, 2),
      { type: 'text', text: ', ' },
      { type: 'text', text: '[please]' },
      { type: 'text', text: '.' },
      { type: 'text', text: ' Pay it by ' },
      ...line('[day].'),
    ]);
    expect(withSentence(before, 9, 'nothing', 'en-GB')).toBe(before);
  });
});

describe('a line in pieces', () => {
  it('is the line again when they are joined', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom('One thing. ', '[day]', 'Another?', ' ', 'and [gate].')), (parts) => {
        const whole = line(parts.join(''));
        const pieces = sentencePieces(whole, 'en-GB');
        expect(normaliseInline(joinPieces(pieces))).toEqual(normaliseInline(whole));
        expect(pieces.sentences.map((each) => plainWords(each))).toEqual(sentencesOf(whole, 'en-GB'));
      }),
    );
  });
});

describe('a sentence', () => {
  it('is found again by its words, whatever its placeholders are called', () => {
    expect(fingerprintOf('Come on [visit_date], please!')).toBe('come on [] please');
    expect(fingerprintOf('Come on [day], PLEASE')).toBe('come on [] please');
  });
  it('is the same from four fifths of its words on, in the same order', () => {
    expect(isSameSentence('one two three four five', 'one two three four other')).toBe(true);
    expect(isSameSentence('one two three four five', 'one two three other another')).toBe(false);
    expect(isSameSentence('one two three four five', 'five four three two one')).toBe(false);
  });
});

describe('replacements', () => {
  it('are grouped when they say the same, most frequent first, whatever their order', () => {
    const list = [
      'Come to the river gate.',
      'come to the River gate',
      'Ring when you are here.',
      'Come to the river gate.',
    ];
    const groups = sameReplacements(list);
    expect(groups.map(({ words, count }) => [words, count])).toEqual([
      ['Come to the river gate.', 3],
      ['Ring when you are here.', 1],
    ]);
    expect(sameReplacements(list.toReversed())).toEqual(groups);
  });
  it('differ in values and are the same', () => {
    expect(sameReplacements(['Come on [day].', 'Come on [visit_date].'])).toHaveLength(1);
  });
});

describe('time', () => {
  it('counts what lies between moments of work, and no breaks', () => {
    const minute = 60_000;
    expect(activeTime([0, minute, 3 * minute, 20 * minute, 21 * minute])).toBe(4 * minute);
    expect(activeTime([3 * minute, 0])).toBe(3 * minute);
    expect(activeTime([])).toBe(0);
  });
  it('has a middle', () => {
    expect([median([]), median([3]), median([4, 1]), median([9, 1, 5])]).toEqual([undefined, 3, 2.5, 5]);
  });
});

describe('which mail is an answer', () => {
  const ours = (id: string, more: Partial<SentMessage> = {}): SentMessage => ({
    ...{ id, messageId: `<${id}@larkmoor.example>`, address: 'una@quillmere.example', subject: 'Your visit' },
    ...{ at: '2026-06-01T10:00:00.000Z', ...more },
  });
  const mail = (more: Partial<ReceivedMail> = {}): ReceivedMail => ({
    ...{ from: 'Una <una@quillmere.example>', subject: 'Re: Your visit', at: '2026-06-03T10:00:00.000Z', headers: {} },
    ...more,
  });
  it('is told by its thread first', () => {
    const sent = [ours('a'), ours('b', { at: '2026-06-02T10:00:00.000Z' })];
    expect(answeredBy(mail({ inReplyTo: '<a@larkmoor.example>', subject: 'Something else' }), sent)).toBe('a');
    expect(answeredBy(mail({ references: ['<x@y>', '<a@larkmoor.example>'] }), sent)).toBe('a');
  });
  it('is told by sender and subject within fourteen days, the latest of several', () => {
    const sent = [ours('a'), ours('b', { at: '2026-06-02T10:00:00.000Z' })];
    expect(answeredBy(mail({ subject: 'AW: Re: your visit' }), sent)).toBe('b');
    expect(answeredBy(mail({ at: '2026-06-20T10:00:00.000Z' }), sent)).toBeUndefined();
    expect(answeredBy(mail({ from: 'other@quillmere.example' }), sent)).toBeUndefined();
    expect(answeredBy(mail({ at: '2026-05-30T10:00:00.000Z' }), sent)).toBeUndefined();
  });
  it.each([
    [{ 'auto-submitted': 'auto-replied' }, 'Re: Your visit', true],
    [{ 'auto-submitted': 'no' }, 'Re: Your visit', false],
    [{ precedence: 'bulk' }, 'Re: Your visit', true],
    [{ 'list-id': '<friends.quillmere.example>' }, 'Re: Your visit', true],
    [{}, 'Out of office: Your visit', true],
    [{}, 'Abwesenheit: Ihr Besuch', true],
    [{}, 'Re: Your visit', false],
  ])('with headers %o and subject %s is automatic: %s', (headers, subject, automatic) => {
    const given = mail({ headers: headers as Record<string, string>, subject, inReplyTo: '<a@larkmoor.example>' });
    expect(isAutomatic(given)).toBe(automatic);
    expect(answeredBy(given, [ours('a')])).toBe(automatic ? undefined : 'a');
  });
  it('that could not be delivered bounced, for good or for now', () => {
    expect(['5.1.1', '4.2.2', '2.0.0', 'nonsense'].map(bounceOf)).toEqual(['hard', 'soft', undefined, undefined]);
  });
});
