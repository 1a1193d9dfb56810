import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { writeText } from '../formats/markdown/index.js';
import { readPlain } from '../formats/plain/index.js';
import { derive, type Derived, type PastMail, type Settlement } from './index.js';
import { CORPORA, mailsOf } from './testing/corpus.js';

const PLACES = ['the river gate', 'the moor gate', 'the north gate'];
const DAYS = ['4 March', '5 April', '16 May', '27 June', '8 July', '19 August'];
/** Mails with a day, a number and a place; most come to the river gate. */
const MAILS = Array.from({ length: 12 }, (_, at): PastMail => ({
  ...{ file: `${at}.eml`, subject: 'Your visit', to: [`p${at}@x.example`], day: '2026-11-01' },
  body: readPlain(
    `Dear all,\n\nyou come on ${DAYS[at % 6]} 2027 with ${10 + at} people. Come to ${PLACES[at < 8 ? 0 : at % 3]}.\n\nWe wait at ${PLACES[at < 8 ? 0 : at % 3]} on that day.`,
  ),
}));
const with_ = (...settled: Settlement[]): Derived => derive(MAILS, { locale: 'en-IE', settled });
const keyOf = (derived: Derived, type: string): string => {
  const found = derived.variables.find((each) => each.type === type);
  if (!found) throw new Error(`nothing of the type ${type}`);
  return found.key;
};
const source = ({ template }: Derived): string => writeText(template);

describe('a derived question', () => {
  const plain = with_();
  it('all of them come out word for word before anything is said', () => {
    expect(plain.exact).toBe(12);
    expect(plain.variables.map(({ type }) => type).sort()).toEqual(['date', 'number', 'text']);
  });
  it('that is refused becomes what most mails say, and the score says what that costs', () => {
    const key = keyOf(plain, 'text');
    const derived = with_({ how: 'refuse', key });
    expect(derived.variables.map((each) => each.key)).not.toContain(key);
    expect(source(derived)).toContain('the river gate');
    expect(source(derived)).not.toContain(`{{${key}`);
    const river = MAILS.filter((_, at) => at < 8 || at % 3 === 0).length;
    expect(derived.exact).toBe(river);
  });
  it('is asked of what one mail alone has, lacks or says otherwise, once that is taken in', () => {
    const odd = (at: number): string =>
      at === 3
        ? 'Dear all,\n\nyou come soon. Bring a coat, please.\n\nThe gate is open.\n\nWe wait there.'
        : at === 5
          ? 'Dear all,\n\nyou come soon.\n\nThe gate is open.'
          : at === 7
            ? 'Dear all,\n\nyou come soon.\n\nThe gate is locked.\n\nWe wait there.'
            : at === 9
              ? 'Dear all,\n\nyou come soon.\n\nThe gate is open.\n\nThe geese say hello.\n\nWe wait there.'
              : 'Dear all,\n\nyou come soon.\n\nThe gate is open.\n\nWe wait there.';
    const mails = Array.from({ length: 20 }, (_, at): PastMail => ({
      ...{ file: `${at}.eml`, subject: 'Your visit', to: [`p${at}@x.example`], day: '2026-11-01' },
      body: readPlain(odd(at)),
    }));
    const first = derive(mails, { locale: 'en-IE' });
    expect([first.exact, first.oddities.map(({ file }) => file).sort()]).toEqual([
      16,
      ['3.eml', '5.eml', '7.eml', '9.eml'],
    ]);
    let settled: Settlement[] = [];
    for (const { file, words } of first.oddities) {
      const before = derive(mails, { locale: 'en-IE', settled }).exact;
      settled = [...settled, { how: 'take', words }];
      const after = derive(mails, { locale: 'en-IE', settled });
      expect([file, after.exact]).toEqual([file, before + 1]);
      expect(after.oddities.map((each) => each.words)).not.toContain(words);
    }
    expect(derive(mails, { locale: 'en-IE', settled }).oddities).toEqual([]);
  });
  it('that is a number can be words, or one of some', () => {
    const key = keyOf(plain, 'number');
    const text = with_({ how: 'retype', key, type: 'text' });
    expect(text.variables.find((each) => each.key === key)?.type).toBe('text');
    expect(text.exact).toBe(12);
    const choice = with_({ how: 'retype', key, type: 'choice' });
    expect(choice.template.attrs.variables.find((each) => each.key === key)?.options).toHaveLength(12);
    expect(choice.exact).toBe(12);
    const place = with_({ how: 'retype', key: keyOf(plain, 'text'), type: 'choice' });
    expect(place.template.attrs.variables.find(({ type }) => type === 'choice')?.options).toHaveLength(3);
    expect(place.exact).toBe(12);
  });
  it('is not of a type that its values are not of', () => {
    const key = keyOf(plain, 'text');
    const derived = with_({ how: 'retype', key, type: 'date' });
    expect(derived.variables.find((each) => each.key === key)?.type).toBe('text');
  });
  it('that is another one goes by that one’s values', () => {
    const [number, date] = [keyOf(plain, 'number'), keyOf(plain, 'date')];
    const unlike = with_({ how: 'merge', key: number, into: date });
    expect(unlike.variables).toHaveLength(3);
    const words = with_({ how: 'retype', key: number, type: 'text' }, { how: 'retype', key: date, type: 'text' });
    expect(words.exact).toBeGreaterThan(0);
    const derived = with_(
      { how: 'retype', key: number, type: 'text' },
      { how: 'retype', key: date, type: 'text' },
      { how: 'merge', key: number, into: date },
    );
    expect(derived.variables.map((each) => each.key)).toEqual(
      plain.variables.map((each) => each.key).filter((key) => key !== number),
    );
    expect(derived.exact).toBe(0);
  });
  it('that is not there changes nothing', () => {
    expect(source(with_({ how: 'refuse', key: 'nobody' }))).toBe(source(plain));
  });
});

describe('whatever is said', () => {
  it('nothing throws, every mail is rendered, and the order of the mails does not matter', () => {
    for (const corpus of Object.values(CORPORA)) {
      const mails = mailsOf(corpus, 10, 5);
      const { variables } = derive(mails, { locale: corpus.locale });
      const keys = [...variables.map(({ key }) => key), 'nobody'];
      const key = fc.constantFrom(...keys);
      const settlement: fc.Arbitrary<Settlement> = fc.oneof(
        fc.record({ how: fc.constant('refuse' as const), key }),
        fc.record({ how: fc.constant('take' as const), words: fc.constantFrom('the moor gate', 'Dear all,', 'x') }),
        fc.record({ how: fc.constant('merge' as const), key, into: key }),
        fc.record({
          how: fc.constant('retype' as const),
          key,
          type: fc.constantFrom('text', 'choice', 'date', 'number'),
        }),
      );
      fc.assert(
        fc.property(fc.array(settlement, { maxLength: 4 }), (settled) => {
          const one = derive(mails, { locale: corpus.locale, settled });
          const other = derive(mails.toReversed(), { locale: corpus.locale, settled });
          expect(one.mails).toHaveLength(10);
          expect(writeText(other.template)).toBe(writeText(one.template));
          expect(other.exact).toBe(one.exact);
        }),
        { numRuns: 6 },
      );
    }
  }, 120_000);
});
