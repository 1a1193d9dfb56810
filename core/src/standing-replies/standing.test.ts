/** Standing replies: what their conditions see, where their answers come from, and whom they never write to. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isKey, isReserved } from '../template/keys.js';
import type { Variable } from '../template/variable.js';
import {
  answersFrom,
  decideOn,
  factsOf,
  holdsFor,
  mailCondition,
  MAIL_VARIABLES,
  valuesInMail,
  type IncomingMail,
  type MailRule,
  type Surroundings,
  type ValueSource,
} from './index.js';

const mail = (more: Partial<IncomingMail> = {}): IncomingMail => {
  const { subject, words, ...others } = { ...MAIL, ...more };
  return { ...others, subject, words, values: valuesInMail(subject, words, '2026-11-20') };
};
const MAIL: Omit<IncomingMail, 'values'> = {
  from: 'Siobhán Ní Bhriain <siobhan@school.example>',
  to: ['Maeve <maeve@garden.example>'],
  replyTo: [],
  subject: 'Our Visit in June',
  words: 'We are 24, and come on 14 June 2027 at 10:30.\nGate: the River gate\nPeople:\n\n  27\nParking? Yes.',
  files: ['plan.pdf'],
  headers: {},
  isReport: false,
};
const AT = '2026-11-20T09:00:00.000Z';
const known = (more: Partial<Surroundings> = {}): Surroundings => ({
  today: '2026-11-20',
  answersOurs: false,
  at: AT,
  own: new Set(['maeve@garden.example']),
  refused: () => false,
  lastTo: () => undefined,
  sentOn: () => 0,
  ...more,
});
const rule = (when: string, more: Partial<MailRule> = {}): MailRule => ({
  id: 'visits',
  condition: mailCondition(when),
  does: 'send',
  everyDays: 7,
  mostADay: 20,
  ...more,
});

describe('a condition', () => {
  const holds = (when: string, more: Partial<IncomingMail> = {}): boolean =>
    holdsFor(mailCondition(when), factsOf(mail(more), known()), '2026-11-20');
  it.each([
    ['subject.contains("visit")', true],
    ['subject.contains("VISIT IN JUNE")', true],
    ['subject.contains("membership")', false],
    ['sender_name.contains("Niall") || sender_name.contains("Siobhan")', true],
    ['sender_address.endsWith("@school.example")', true],
    ['written_to.contains("maeve@")', true],
    ['words.contains("parking? yes")', true],
    ['a_day > today()', true],
    ['a_day < addDays(today(), 30)', false],
    ['a_time >= "10:00"', true],
    ['a_number == 24.0', true],
    ['files > 0', true],
    ['file_names.contains("PLAN")', true],
    ['filled(a_phone)', false],
    ['!answers_ours', true],
    ['subject.contains("visit") && a_number >= 20', true],
  ])('%s', (when, expected) => {
    expect(mailCondition(when).problems).toEqual([]);
    expect(holds(when)).toBe(expected);
  });
  it('that cannot be told, for want of a value, does not hold', () => {
    expect(holds('a_sum > 10')).toBe(false);
    expect(holds('a_day > today()', { words: 'no day', subject: '' })).toBe(false);
  });
  it.each(['', '   ', 'subject.contains(', 'nobody == "x"', 'a_number', 'subject'])(
    'that is none holds for nothing, and says why: %j',
    (when) => {
      expect(mailCondition(when).problems.length).toBeGreaterThan(0);
      expect(holds(when)).toBe(false);
    },
  );
});

describe('answers', () => {
  const variable = (key: string, more: Partial<Variable>): Variable => ({ key, type: 'text', ...more });
  const gate = variable('gate', {
    type: 'choice',
    options: [
      { key: 'river', label: 'River gate' },
      { key: 'moor', label: 'Moor gate' },
    ],
  });
  const from = (source: ValueSource, asked: Variable): string | undefined =>
    answersFrom({ it: source }, [{ id: 'it', variable: asked }], mail(), '2026-11-20')['it'];
  it.each<[string, ValueSource, Variable, string | undefined]>([
    ['the same for all', { from: 'fixed', value: 'river' }, gate, 'river'],
    ['a day in the mail', { from: 'found', nth: 1 }, variable('d', { type: 'date' }), '2027-06-14'],
    ['the second number', { from: 'found', nth: 2 }, variable('n', { type: 'number' }), '27'],
    ['what is not there', { from: 'found', nth: 1 }, variable('p', { type: 'phone' }), undefined],
    ['an option by its label', { from: 'behind', words: 'GATE' }, gate, 'river'],
    [
      'a number on the next line that says something',
      { from: 'behind', words: 'people' },
      variable('n', { type: 'number' }),
      '27',
    ],
    ['yes', { from: 'behind', words: 'parking?' }, variable('y', { type: 'yes-no' }), 'yes'],
    ['words behind words', { from: 'behind', words: 'Gate' }, variable('t', {}), 'the River gate'],
    ['no such words', { from: 'behind', words: 'Bus:' }, variable('t', {}), undefined],
    ['the sender’s name', { from: 'name' }, variable('t', {}), 'Siobhán Ní Bhriain'],
    ['the sender’s address', { from: 'address' }, variable('e', { type: 'email' }), 'siobhan@school.example'],
    ['the subject', { from: 'subject' }, variable('t', {}), 'Our Visit in June'],
  ])('%s', (_what, source, asked, expected) => {
    expect(from(source, asked)).toBe(expected);
  });
  it('are none for a question without a source, nor for keys that objects have of themselves', () => {
    const asked = [{ id: 'constructor', variable: variable('constructor', {}) }];
    expect(answersFrom({}, asked, mail(), '2026-11-20')).toEqual({});
  });
});

describe('a mail is never answered', () => {
  const decided = (more: Partial<IncomingMail>, rules = [rule('subject.contains("visit")')]) =>
    decideOn(mail(more), rules, known());
  it.each<[string, Partial<IncomingMail>]>([
    ['that says it is automatic', { headers: { 'auto-submitted': 'auto-replied' } }],
    ['of a list', { headers: { 'list-id': '<seeds.garden.example>' } }],
    ['in bulk', { headers: { precedence: 'bulk' } }],
    ['of nobody', { headers: { 'return-path': '<>' } }],
    ['that reports', { isReport: true }],
    ['of a mailer', { from: 'mailer-daemon@school.example' }],
    ['of the owner of a list', { from: 'owner-seeds@school.example' }],
    ['of oneself', { from: 'Maeve <Maeve@garden.example>' }],
    ['without a sender', { from: '' }],
    ['that says somebody is away', { subject: 'Automatic reply: Our visit' }],
  ])('%s', (_what, more) => {
    for (const does of ['send', 'draft', 'suggest'] as const)
      expect(decided(more, [rule('subject.contains("visit")', { does })])).toMatchObject({ what: 'nothing' });
  });
  it('to somebody whom nobody may write to', () => {
    const answer = decideOn(
      mail(),
      [rule('files > 0')],
      known({ refused: (each) => each === 'siobhan@school.example' }),
    );
    expect(answer).toEqual({ what: 'nothing', rule: 'visits', why: 'its sender is on the do-not-write list' });
  });
  it('twice in the period, whichever rule it was; once more behind it', () => {
    const last = (lastTo: string) => decideOn(mail(), [rule('files > 0')], known({ lastTo: () => lastTo }));
    expect(last('2026-11-14T09:00:00.000Z')).toMatchObject({
      what: 'nothing',
      why: expect.stringContaining('2026-11-14'),
    });
    expect(last('2026-11-13T09:00:00.000Z')).toMatchObject({ what: 'send' });
  });
  it('beyond the most of a day: that switches the rule off', () => {
    expect(decideOn(mail(), [rule('files > 0')], known({ sentOn: () => 20 }))).toMatchObject({
      what: 'nothing',
      ceiling: true,
    });
  });
});

describe('a reply that would go by itself is offered instead', () => {
  it.each<[string, Partial<IncomingMail>]>([
    ['where the mail does not name its reader', { to: ['all@garden.example'] }],
    ['where the answer is wanted elsewhere', { replyTo: ['office@school.example'] }],
    ['where it came from elsewhere', { headers: { 'return-path': '<x@relay.example>' } }],
    ['where the mail is old', { written: '2026-11-01T09:00:00.000Z' }],
  ])('%s', (_what, more) => {
    const decision = decideOn(mail(more), [rule('files > 0')], known());
    expect(decision).toMatchObject({ what: 'suggest', rule: 'visits' });
    expect(decision.why).not.toBe('');
  });
});

describe('of several rules', () => {
  it('the first whose condition holds answers, even where it must not', () => {
    const rules = [
      rule('subject.contains("none")', { id: 'a' }),
      rule('files > 0', { id: 'b' }),
      rule('files > 0', { id: 'c' }),
    ];
    expect(decideOn(mail(), rules, known())).toMatchObject({ what: 'send', rule: 'b' });
    expect(decideOn(mail(), rules, known({ lastTo: () => AT }))).toMatchObject({ what: 'nothing', rule: 'b' });
  });
});

describe('two who answer each other', () => {
  it('stop after one, even where every sign that they are programs is lost on the way', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 40 }), fc.boolean(), (everyDays, keepsHeaders) => {
        const people = ['ann@a.example', 'bo@b.example'] as const;
        const last = new Map<string, string>();
        let sent = 0;
        let [writes, reads] = [0, 1];
        let headers: Record<string, string> = {};
        for (let turn = 0; turn < 30; turn += 1) {
          const [from, to] = [people[writes] as string, people[reads] as string];
          const at = new Date(Date.parse(AT) + turn * 60_000).toISOString();
          const decision = decideOn(mail({ from, to: [to], headers }), [rule('files > 0', { everyDays })], {
            ...known({ at, own: new Set([to]) }),
            lastTo: (address) => last.get(`${to}>${address}`),
          });
          if (decision.what !== 'send') break;
          last.set(`${to}>${from}`, at);
          sent += 1;
          headers = keepsHeaders ? { 'auto-submitted': 'auto-replied' } : {};
          [writes, reads] = [reads, writes];
        }
        expect(sent).toBe(keepsHeaders ? 1 : 2);
      }),
    );
  });
});

describe('the names of a condition', () => {
  it('are such as variables may have', () => {
    for (const { key } of MAIL_VARIABLES) expect([key, isKey(key), isReserved(key)]).toEqual([key, true, false]);
  });
});
