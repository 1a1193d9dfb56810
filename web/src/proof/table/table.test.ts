// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest';
import { PLAIN_HOUSE, type TextDocument } from '@vocabula/core';
import { readText } from '@vocabula/core/markdown';
import { arranged, matches, varying } from './filter';
import { groupFindings } from './findings';
import { numbersIn } from './numbers';
import { Proofing } from './proofing';
import type { ProofingReply, SentSheet, Series } from './protocol';
import { writeReport } from './report';

const document = (body: string): TextDocument =>
  readText(
    `---\nvocabula: 1\nkind: message\ntitle: Visit\nlocale: en-IE\nsubject: "Hello {{name}}"\nvariables:\n  name: { type: text, required: true, from: recipient.first_name }\n  late: { type: yes-no }\n---\n${body}\n`,
  ).document;
const BODY = 'Dear {{name}},\n\n{{#late}}\nYou are late.\n{{/late}}\n\nIt is a {{name}}.';
const ROWS = [
  { first_name: 'Rose', late: 'true' },
  { first_name: 'Orchid', late: '' },
  { first_name: '', late: 'yes' },
];

/** A worker’s work, gone through at once. */
class Bench {
  readonly replies: ProofingReply[] = [];
  readonly proofing = new Proofing((reply) => this.replies.push(structuredClone(reply)));

  run(request: Parameters<Proofing['handle']>[0]): this {
    const work = this.proofing.handle(request);
    if (work) while (!work.next().done);
    return this;
  }
  open(body: string): this {
    return this.run({
      what: 'template',
      parts: {
        text: { name: 'visit', document: document(body) },
        library: [],
        house: PLAIN_HOUSE,
        signature: null,
        sender: {},
        today: '2026-11-24',
        zone: 'UTC',
      },
    });
  }
  last<T extends ProofingReply['what']>(what: T): Extract<ProofingReply, { what: T }> {
    const found = this.replies.filter((reply) => reply.what === what).at(-1);
    if (!found) throw new Error(what);
    return found as Extract<ProofingReply, { what: T }>;
  }
  sheets(series: Series): SentSheet[] {
    const all: SentSheet[] = [];
    for (const reply of this.replies)
      if (reply.what === 'sheets' && reply.series === series)
        reply.sheets.forEach((sheet, at) => void (all[reply.from + at] = sheet));
    return all;
  }
}
const opened = (): Bench => new Bench().open(BODY).run({ what: 'recipients', rows: ROWS });

describe('how a message arrives', () => {
  it('is counted for every family, and whole for those that are looked at', () => {
    const bench = opened().run({
      what: 'arrivals',
      id: 7,
      which: { series: 'recipients', at: 0 },
      families: ['inline', 'aloud'],
    });
    const { id, shown } = bench.last('arrivals');
    expect(id).toBe(7);
    expect(shown?.losses).toMatchObject({ page: 0, inline: 1, plain: 0 });
    expect(shown?.arrivals.map(({ family }) => family)).toEqual(['inline', 'aloud']);
    expect(shown?.arrivals[1]?.spoken?.map(({ words }) => words)).toEqual([
      'Dear Rose,',
      'You are late.',
      'It is a Rose.',
    ]);
    expect(shown?.arrivals[0]?.html).not.toContain('<style');
  });
  it('is nothing where there is no such message', () => {
    const bench = opened().run({ what: 'arrivals', id: 8, which: { series: 'recipients', at: 99 }, families: [] });
    expect(bench.last('arrivals').shown).toBeUndefined();
  });
});

describe('the proofing table', () => {
  it('proofs recipients, hard cases and every pairing', () => {
    const bench = opened();
    expect(bench.sheets('recipients').map(({ subject, kept, blanks }) => [subject, kept, blanks])).toEqual([
      ['Hello Rose', '1', []],
      ['Hello Orchid', '0', []],
      ['Hello [Name]', '1', ['name']],
    ]);
    const cases = bench.replies.filter((reply) => reply.what === 'cases').at(-1);
    expect(cases?.series === 'pairing' && cases.pairing?.covered).toBeGreaterThan(0);
    expect(bench.sheets('hard').length).toBeGreaterThan(5);
    expect(bench.last('progress').over).toBe(true);
  });

  it('after an edit renders only what the edit touches', () => {
    const bench = opened();
    const all = (['recipients', 'hard', 'pairing'] as const).reduce((sum, each) => sum + bench.sheets(each).length, 0);
    bench.open(BODY.replace('You are late.', 'You are very late.'));
    const touched = bench.last('progress').fresh;
    expect(touched).toBeGreaterThan(0);
    expect(touched).toBeLessThan(all);
    const [late, , empty] = bench.sheets('recipients');
    const lines = new Map<number, string>();
    for (const reply of bench.replies)
      if (reply.what === 'sheets') reply.lines.forEach((line, at) => lines.set(reply.linesFrom + at, line));
    for (const sheet of [late, empty])
      expect(sheet?.lines.map((line) => lines.get(line))).toContain('You are very late.');
    bench.open(BODY.replace('Dear', 'Good day'));
    expect(bench.last('progress').fresh).toBe(all);
  });

  it('answers about one message: its stretches, its blanks, and where words come from', () => {
    const bench = opened().run({ what: 'message', id: 1, which: { series: 'recipients', at: 2 } });
    const { message } = bench.last('message');
    expect(message?.blankStretches.map((at) => message.stretches[at]?.variable)).toEqual(['name', 'name']);
    expect(message?.subjectPieces.join('')).toBe('Hello [Name]');
    const at = message?.stretches.findIndex(({ tags }) => tags.length > 0) ?? -1;
    bench.run({ what: 'explain', id: 2, which: { series: 'recipients', at: 2 }, part: 'body', stretch: at });
    expect(bench.last('explain').explanation?.conditions[0]).toMatchObject({
      label: 'Late',
      because: [{ words: 'yes', source: 'answered' }],
    });
    bench.run({ what: 'message', id: 3, which: { series: 'recipients', at: 99 } });
    expect(bench.last('message').message).toBeUndefined();
  });

  it('with no recipients proofs for nobody, and with values that look like formulas gives them as they are', () => {
    const bench = new Bench().open(BODY).run({ what: 'recipients', rows: [] });
    bench.run({ what: 'message', id: 1, which: { series: 'recipients', at: 0 } });
    expect(bench.last('message').message?.subject).toBe('Hello [Name]');
    bench.run({ what: 'recipients', rows: [{ first_name: '=1+1 <b>{{x}}' }] });
    expect(bench.sheets('recipients')[0]?.subject).toBe('Hello =1+1 <b>{{x}}');
  });

  it('compares two recipients, and another text with this one', () => {
    const bench = opened().run({
      what: 'compare',
      id: 1,
      left: { series: 'recipients', at: 0 },
      right: { series: 'recipients', at: 1 },
    });
    expect(bench.last('compare').paragraphs.map(({ left, right }) => [left, right])).toContainEqual([
      'You are late.',
      undefined,
    ]);
    bench.run({ what: 'other', name: 'other', document: document('Dear {{name}},'), library: [] });
    bench.run({
      what: 'compare',
      id: 2,
      left: { series: 'recipients', at: 0 },
      right: { series: 'recipients', at: 0, other: 'other' },
    });
    expect(bench.last('compare').paragraphs.filter(({ changes }) => changes.length > 0)).toHaveLength(2);
  });
});

describe('findings over everything', () => {
  const groups = (body: string, reasons: string[] = []) => {
    const bench = new Bench().open(body).run({ what: 'recipients', rows: ROWS });
    const sources = {
      name: 'visit',
      texts: [{ name: 'visit', document: document(body) }],
      template: bench.last('template').findings,
      sheets: { recipients: bench.sheets('recipients'), hard: [], pairing: [] },
      labelOf: () => 'Name',
    };
    const found = groupFindings({ ...sources, setAside: [] });
    const aside = found
      .filter(({ finding }) => reasons.includes(finding.code))
      .map(({ fingerprint, finding: { code, message } }) => ({
        fingerprint,
        code,
        message,
        reason: 'meant',
        who: 'Maeve',
        at: '',
      }));
    return { found, aside, again: (setAside: typeof aside) => groupFindings({ ...sources, setAside }) };
  };
  it('are each there once, with for whom; blanks among them', () => {
    const { found } = groups(`${BODY}\n\nA apple.`);
    expect(found.map(({ finding, always, in: within }) => [finding.code, always, within.recipients])).toEqual([
      ['bad-value', false, [2]],
      ['a-or-an', true, []],
      ['a-or-an', false, [1]],
    ]);
  });
  it('stay set aside while their words are the same, and come back when those change', () => {
    const body = `${BODY}\n\nA apple.`;
    const { aside } = groups(body, ['a-or-an']);
    const open = (text: string): string[] =>
      groups(text)
        .again(aside)
        .flatMap(({ finding, aside: gone }) => (gone ? [] : [finding.code]));
    expect(open(body)).toEqual(['bad-value']);
    expect(open(`A first line.\n\n${body}`)).toEqual(['bad-value']);
    expect(open(body.replace('A apple.', 'A apple a day.'))).toEqual(['bad-value', 'a-or-an']);
  });
});

describe('which messages are shown', () => {
  const sheets = opened().sheets('recipients');
  const shown = (
    condition: string,
    order: Parameters<typeof arranged>[1]['order'] = 'as they are',
    words = '',
  ): number[] => arranged(sheets, { condition, order, words }, (at) => ROWS[at]?.first_name ?? '');
  it('are those with a blank, a finding, a passage or a value', () => {
    expect([shown(''), shown('blank'), shown('finding a-or-an')]).toEqual([[0, 1, 2], [2], [1]]);
    expect([shown('kept 0'), shown('gone 0'), shown('value 0 Rose')]).toEqual([[0, 2], [1], [0]]);
    expect(shown('', 'as they are', 'orch')).toEqual([1]);
    expect(matches(sheets[0] as SentSheet, 'any')).toBe(false);
  });
  it('in order of length, findings or unlikeness', () => {
    expect(shown('', 'findings')).toEqual([2, 1, 0]);
    expect(shown('', 'length').at(-1)).toBe(1);
    expect(shown('', 'unlikeness')).toHaveLength(3);
  });
  it('and the columns that tell them apart', () => {
    expect(varying(sheets, 2, 1)).toEqual({ values: [0, 1], passages: [0] });
    expect(varying(sheets.slice(0, 1), 2, 1)).toEqual({ values: [], passages: [] });
  });
});

describe('numbers of messages', () => {
  it.each([
    ['1', [0]],
    ['1-3, 7', [0, 1, 2, 6]],
    ['3 1;2-2', [0, 1, 2]],
    ['', []],
    ['0', undefined],
    ['9', undefined],
    ['3-1', undefined],
    ['x', undefined],
  ])('%j are %j', (typed, expected) => expect(numbersIn(typed, 8)).toEqual(expected));
});

describe('the report', () => {
  it('says what was proofed, what is open, what was set aside by whom, and shows the chosen messages', () => {
    const { aside, again } = groupsOf();
    const html = writeReport({
      title: 'Visit <confirmed>',
      revision: 4,
      set: 'Spring groups',
      by: 'Maeve Aldous',
      at: '2026-11-25T10:00:00.000Z',
      recipients: 3,
      ready: 2,
      hard: 9,
      pairing: { strength: 2, covered: 5, impossible: [{ because: '“Late” does not come up', count: 1 }], notFound: 0 },
      pairs: 3,
      lookedAt: 2,
      findings: again(aside),
      sheets: [
        {
          label: 'Late & more',
          detail: 'new: late',
          subject: 'Hello <Rose>',
          to: ['a@x.example'],
          fragment: '<p>Dear Rose,</p>',
          blanks: [],
          looked: { who: 'Maeve Aldous', at: '2026-11-25T09:00:00.000Z' },
        },
      ],
      bodyStyle: 'color:#20262E',
      lang: 'en-IE',
    });
    const page = new DOMParser().parseFromString(html, 'text/html');
    const text = page.body.textContent ?? '';
    expect(text).toContain('3 messages show 5 pairs of options; 1 cannot happen');
    expect(text).toContain('Visit <confirmed>');
    expect(text).toContain('“Late” does not come up');
    expect(page.querySelectorAll('h2 + table')[1]?.textContent).toContain('meant');
    expect(page.querySelector('article p')?.textContent).toBe('Dear Rose,');
    expect(text).toContain('Looked at by Maeve Aldous');
    expect(page.querySelector('script, link, img')).toBeNull();
  });
  const groupsOf = () => {
    const body = `${BODY}\n\nA apple.`;
    const bench = new Bench().open(body).run({ what: 'recipients', rows: ROWS });
    const sources = {
      name: 'visit',
      texts: [{ name: 'visit', document: document(body) }],
      template: bench.last('template').findings,
      sheets: { recipients: bench.sheets('recipients'), hard: [], pairing: [] },
      labelOf: () => 'Name',
    };
    const [, second] = groupFindings({ ...sources, setAside: [] });
    const aside = second
      ? [
          {
            fingerprint: second.fingerprint,
            code: 'a-or-an',
            message: 'x',
            reason: 'meant',
            who: 'Maeve',
            at: '2026-11-25T09:00:00.000Z',
          },
        ]
      : [];
    return { aside, again: (setAside: typeof aside) => groupFindings({ ...sources, setAside }) };
  };
});
