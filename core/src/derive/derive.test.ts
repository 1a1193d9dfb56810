import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compileBundle } from '../bundle/bundle.js';
import { readPlain } from '../formats/plain/index.js';
import { writeText } from '../formats/markdown/index.js';
import { PLAIN_HOUSE } from '../house/house.js';
import { render } from '../render/render.js';
import { pastMailOf } from './mail.js';
import type { Variable } from '../template/variable.js';
import { derive, type Derived, type PastMail } from './index.js';
import { CORPORA, mailsOf, type Corpus } from './testing/corpus.js';

const of = (corpus: Corpus, count = 24, seed = 1): Derived =>
  derive(mailsOf(corpus, count, seed), { locale: corpus.locale });
const source = ({ template }: Derived): string => writeText(template);
const variables = ({ template }: Derived): readonly Variable[] => template.attrs.variables;
const failures = ({ mails }: Derived): unknown[] =>
  mails.filter(({ exact }) => !exact).map(({ differences }) => differences);
const plain = (file: string, text: string, more: Partial<PastMail> = {}): PastMail => ({
  ...{ file, subject: 'Hello', to: ['ann@x.example'], day: '2026-11-27', body: readPlain(text), ...more },
});

describe('every kind of mail comes out word for word', () => {
  it.each(Object.entries(CORPORA))('%s', (_name, corpus) => {
    for (const seed of [1, 2, 3]) {
      const derived = of(corpus, 24, seed);
      expect(failures(derived)).toEqual([]);
      expect(derived.exact).toBe(24);
      expect(derived.oddities).toEqual([]);
    }
  });
});

describe('what is found', () => {
  it('is a day in several views, a choice, an optional phrase', () => {
    const derived = of(CORPORA.visits);
    const types = Object.fromEntries(variables(derived).map(({ type, key }) => [type, key]));
    expect(
      variables(derived)
        .map(({ type }) => type)
        .sort(),
    ).toEqual(['choice', 'date', 'yes-no']);
    expect(source(derived)).toContain(`{{${types.date}.day}} {{${types.date}.month}}`);
    expect(source(derived)).toContain(`**{{${types.date}.full}}**`);
    expect(source(derived)).toContain('Dear {{recipient.first_name}},');
    expect(source(derived)).toMatch(/\{\{#(\w+)\}\}, where your guide will meet you\{\{\/\1\}\}/);
  });
  it('is a number with the words that agree with it', () => {
    const [tickets] = variables(of(CORPORA.tickets)).filter(({ type }) => type === 'number');
    expect(tickets?.forms).toEqual({
      tickets: { one: 'ticket', other: 'tickets' },
      are: { one: 'is', other: 'are' },
    });
  });
  it('is one question for all that goes together', () => {
    const derived = of(CORPORA.replies);
    const [choice] = variables(derived).filter(({ type }) => type === 'choice');
    expect(choice?.options).toHaveLength(2);
    expect(variables(derived).filter(({ type }) => type === 'yes-no')).toHaveLength(1);
    expect(source(derived).match(new RegExp(`\\{\\{#${choice?.key}\\.`, 'g'))).toHaveLength(3);
  });
  it('is a list of rows', () => {
    const derived = of(CORPORA.plans);
    const [list] = variables(derived).filter(({ type }) => type === 'list');
    // When, what, and with whom.
    expect(list?.columns).toHaveLength(3);
    expect(derived.mails[0]?.answers[list?.key ?? '']).toEqual(
      expect.arrayContaining([
        expect.objectContaining({ [list?.columns?.[0]?.key ?? '']: expect.stringMatching(/^\d+:\d\d$/) }),
      ]),
    );
  });
  it('is what follows from a value: a threshold, a multiple, a day before', () => {
    const derived = of(CORPORA.fees, 40);
    const [party] = variables(derived).filter(({ type, value }) => type === 'number' && value === undefined);
    const [visit] = variables(derived).filter(({ type, value }) => type === 'date' && value === undefined);
    const rules = variables(derived).flatMap(({ value }) => (value === undefined ? [] : [value]));
    expect(rules).toHaveLength(3);
    expect(rules).toContain(`${party?.key} * 4.5`);
    expect(rules).toContain(`addDays(${visit?.key}, -7)`);
    // The threshold is somewhere between the largest group without the lawn and the smallest with it.
    expect(rules.find((rule) => rule.includes('>='))).toMatch(new RegExp(`^${party?.key} >= 1[5-9]$`));
  });
});

describe('mails touched by hand', () => {
  it('are told with what is odd in them, and change nothing of the template', () => {
    const clean = mailsOf(CORPORA.visits, 20);
    const touched = clean.map((mail, at): PastMail => {
      if (at === 3) return { ...mail, body: [...mail.body, ...readPlain('P.S. The geese send their regards.')] };
      if (at === 7) return { ...mail, body: mail.body.slice(0, -1) };
      return mail;
    });
    const [before, after] = [derive(clean, { locale: 'en-IE' }), derive(touched, { locale: 'en-IE' })];
    expect(source(after)).toBe(source(before));
    expect(after.exact).toBe(18);
    expect(after.mails.filter(({ exact }) => !exact).map(({ file }) => file)).toEqual(['mail-004.eml', 'mail-008.eml']);
    expect(after.oddities).toEqual([
      { file: 'mail-004.eml', words: 'P.S. The geese send their regards.' },
      { file: 'mail-008.eml', words: 'without: Kind regards, Maeve Aldous' },
    ]);
    expect(after.mails[3]?.differences).toEqual([{ was: 'P.S. The geese send their regards.', now: '' }]);
  });
  it('differ in form too, which is told where the words are the same', () => {
    const mails = mailsOf(CORPORA.visits, 12);
    const [first] = mails;
    const bold = mails.with(0, {
      ...(first as PastMail),
      body: (first?.body ?? []).map((block, at) =>
        at === 2 && block.type === 'paragraph'
          ? { ...block, content: block.content?.map((node) => ({ ...node, marks: [{ type: 'bold' as const }] })) ?? [] }
          : block,
      ),
    });
    const { mails: scored, exact } = derive(bold, { locale: 'en-IE' });
    expect(exact).toBe(11);
    const [difference] = scored[0]?.differences ?? [];
    expect(difference?.was).toMatch(/^Paths may be icy .* \(paragraph, bold\)$/);
    expect(difference?.now).toMatch(/^Paths may be icy .* \(paragraph\)$/);
  });
  it('have what they quote and sign set aside', () => {
    const quoted = (who: string): PastMail =>
      plain(
        `${who}.eml`,
        `Dear ${who},\n\nWe are open from ten.\n\n-- \nMaeve Aldous\nLarkmoor Garden\n\nOn Tue, 3 Nov 2026, ${who} wrote:\n\n> When are you open?`,
        { to: [`${who} Lee <${who.toLowerCase()}@x.example>`] },
      );
    const derived = derive(['Ann', 'Bo', 'Una'].map(quoted));
    expect(derived.exact).toBe(3);
    expect(source(derived)).not.toContain('Larkmoor');
    expect(derived.mails[0]?.setAside).toContain('Larkmoor Garden');
  });
});

describe('whatever the mails', () => {
  it('their order does not matter', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...Object.values(CORPORA)),
        fc.integer({ min: 1, max: 50 }),
        fc.infiniteStream(fc.double({ min: 0, max: 1, noNaN: true })),
        (corpus, seed, random) => {
          const mails = mailsOf(corpus, 9, seed);
          const ranks = new Map(mails.map((mail) => [mail, random.next().value as number]));
          const shuffled = mails.toSorted((a, b) => (ranks.get(a) ?? 0) - (ranks.get(b) ?? 0));
          const [straight, other] = [
            derive(mails, { locale: corpus.locale }),
            derive(shuffled, { locale: corpus.locale }),
          ];
          expect(source(other)).toBe(source(straight));
          for (const mail of straight.mails) expect(other.mails.find(({ file }) => file === mail.file)).toEqual(mail);
        },
      ),
      { numRuns: 20 },
    );
  }, 60_000);
  it('the score is that of a rendering made anew, and answers leave no findings', () => {
    for (const corpus of Object.values(CORPORA)) {
      const mails = mailsOf(corpus, 16, 5);
      const derived = derive(mails, { locale: corpus.locale });
      const text = { name: 'anew', document: derived.template };
      const program = compileBundle({ text, texts: [text], house: PLAIN_HOUSE });
      expect(program.findings.filter(({ level }) => level !== 'note')).toEqual([]);
      for (const [at, { answers, exact }] of derived.mails.entries()) {
        const fields = { email: `person${at}@quillmere.example`, ...derived.mails[at]?.recipient };
        const message = render(program, { recipient: fields, answers: answers as never, today: '2026-11-27' });
        expect(message.findings.filter(({ level }) => level === 'error')).toEqual([]);
        expect(message.blanks).toEqual([]);
        if (exact) expect(message.subject).toBe(mails[at]?.subject);
      }
    }
  });
  it('the rows of the sample set alone make them', () => {
    for (const corpus of Object.values(CORPORA)) {
      const derived = of(corpus);
      const text = { name: 'anew', document: derived.template };
      const program = compileBundle({ text, texts: [text], house: PLAIN_HOUSE });
      for (const { recipient, answers } of derived.mails)
        expect(render(program, { recipient, today: '2026-11-27' }).html).toBe(
          render(program, { recipient, answers: answers as never, today: '2026-11-27' }).html,
        );
    }
  });
  it('a signature that nearly all of them have is the sender’s, and not part of the template', () => {
    const mail = (name: string, signature: string) =>
      pastMailOf({ file: name, subject: 'Hello', to: [], text: `Dear ${name},\n\nyou are welcome.\n\n${signature}` });
    const signed = ['Ann', 'Bo', 'Cy', 'Di', 'Ed'].map((name) => mail(name, '-- \nMaeve Aldous\nLarkmoor'));
    expect(derive(signed).signature).toEqual(['Maeve Aldous', 'Larkmoor']);
    expect(JSON.stringify(derive(signed).template)).not.toContain('Aldous');
    const two = [...signed.slice(0, 3), mail('Fi', '-- \nTomasz'), mail('Gus', '')];
    expect(derive(two).signature).toEqual([]);
    expect(derive([mail('Ann', ''), mail('Bo', '')]).signature).toEqual([]);
  });
  it('nothing throws: words, signs and emptiness in any form', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.string({ maxLength: 30 }), fc.string({ unit: 'grapheme', maxLength: 120 })), {
          minLength: 2,
          maxLength: 6,
        }),
        (given) => {
          const mails = given.map(([subject, text], at) => plain(`m${at}`, text, { subject }));
          const derived = derive(mails);
          expect(derived.mails).toHaveLength(mails.length);
          expect(derived.exact).toBe(derived.mails.filter(({ exact }) => exact).length);
        },
      ),
      { numRuns: 150 },
    );
  }, 60_000);
  it('mails of two kinds are told apart', () => {
    const mixed = [
      ...mailsOf(CORPORA.visits, 6),
      ...mailsOf(CORPORA.tickets, 4).map((mail) => ({ ...mail, file: `other-${mail.file}` })),
    ];
    const { groups } = derive(mixed, { locale: 'en-IE' });
    expect(groups.map(({ length }) => length)).toEqual([6, 4]);
  });
  it('too few and too many are refused, and progress can stop it', () => {
    expect(() => derive([plain('a', 'x')])).toThrow(RangeError);
    const shares: number[] = [];
    derive(mailsOf(CORPORA.visits, 6), { locale: 'en-IE', onProgress: (share) => shares.push(share) });
    expect(shares).toEqual(shares.toSorted((a, b) => a - b));
    expect(shares.at(-1)).toBe(1);
    expect(() =>
      derive(mailsOf(CORPORA.visits, 6), {
        onProgress: () => {
          throw new Error('stopped');
        },
      }),
    ).toThrow('stopped');
  });
});
