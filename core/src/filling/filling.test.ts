import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compile } from '../compile/compile.js';
import { questions } from '../questions/questions.js';
import { render, type RenderInput } from '../render/render.js';
import { bodyOf, type Inline } from '../template/document.js';
import { nodeAt, visit } from '../template/walk.js';
import { answers as someAnswers, documents } from '../testing/arbitrary.js';
import { documentOf, program } from '../testing/build.js';
import {
  changedSince,
  composed,
  difference,
  fitting,
  foundValues,
  inlineOf,
  memoryOf,
  ownPath,
  readEdited,
  saidTwice,
  unconfirmed,
  valuesInWords,
  writtenOver,
  type EditedRun,
  type Rewording,
} from './index.js';

const TODAY = '2026-11-24';
const VARIABLES = 'party: { type: number }\nguide: { type: yes-no }\nnote: { type: text }';
const BODY = 'Dear Ann,\n\nWe expect **{{party}}** of you{{#guide}}, with a guide{{/guide}}.\n\nSee you.';
const main = { name: 'main', document: documentOf({ body: BODY, variables: VARIABLES }) };
const block = {
  name: 'more',
  document: documentOf({
    body: 'Hello again,\n\nBring {{party}} rugs.\n\nKind regards\n',
    variables: 'party: { type: number }',
    front: 'kind: block',
  }),
};
const bodyAt = main.document.content.findIndex((part) => part.type === 'body');
const line: readonly Inline[] = inlineOf(bodyOf(main.document)[1] as never);
const texts = [main, block];
const read = (all: readonly (typeof main)[], answers: Record<string, unknown> = {}): string =>
  render(
    compile(all[0] as typeof main, { library: { get: (name) => all.find((each) => each.name === name)?.document } }),
    { answers, today: TODAY },
  ).text.trim();
const reworded = (after: readonly Inline[] | null, over: Record<string, string> = {}): Rewording => ({
  text: 'main',
  path: [bodyAt, 1],
  before: line,
  after,
  over,
});
const runs = (answers: Record<string, unknown>): EditedRun[] => {
  const { fragment } = render(
    compile(main, { library: { get: () => undefined } }),
    { answers, today: TODAY },
    { proof: true, editing: true },
  );
  const html = fragment.split('</p>')[1] ?? '';
  return [...html.matchAll(/<span data-i="(\d+)">([^<]*)<\/span>/g)].map(([, of, words = '']) => ({
    of: Number(of),
    words,
  }));
};

describe('a line changed by typing', () => {
  it('keeps its placeholders, so that an answer that changes later still comes through', () => {
    const shown = runs({ party: 12 });
    const edited = shown.map((run) => (run.words === 'We expect' ? { ...run, words: 'We look forward to' } : run));
    const after = readEdited(line, shown, edited);
    const changes = { parts: [], reworded: [reworded(after)] };
    expect(read(composed(texts, changes), { party: 12 })).toContain('We look forward to 12 of you.');
    expect(read(composed(texts, changes), { party: 30, guide: true })).toContain(
      'We look forward to 30 of you, with a guide.',
    );
    expect(read(texts)).toContain('We expect');
  });

  it('takes words over a value for words, and asks again when that value changes', () => {
    const shown = runs({ party: 12 });
    const after = readEdited(
      line,
      shown,
      shown.map((run) => (run.words === '12' ? { ...run, words: 'a dozen' } : run)),
    );
    expect(writtenOver(line, after)).toEqual(['party']);
    const compiled = compile(main, { library: { get: () => undefined } });
    const input = (party: number): RenderInput => ({ answers: { party }, today: TODAY });
    const change = reworded(after, valuesInWords(compiled, input(12), ['party']));
    expect(read(composed(texts, { parts: [], reworded: [change] }), { party: 30 })).toContain('a dozen of you');
    expect(changedSince(change, compiled, input(12))).toEqual([]);
    expect(changedSince(change, compiled, input(30))).toEqual([{ name: 'party', was: '12', now: '30' }]);
  });

  it('keeps words typed between, and breaks', () => {
    const shown: EditedRun[] = [{ of: 0, words: 'We expect ' }];
    const after = readEdited([{ type: 'text', text: 'We expect ' }], shown, [
      ...shown,
      { of: undefined, words: 'you\nall' },
    ]);
    expect(after.map((node) => node.type)).toEqual(['text', 'hardBreak', 'text']);
  });

  it('is what it was when nothing was typed, whatever the text and the answers', () => {
    fc.assert(
      fc.property(documents, someAnswers, (document, answers) => {
        const compiled = compile({ name: 'a', document }, { library: { get: () => undefined } });
        const { fragment } = render(compiled, { answers, today: TODAY }, { proof: true, editing: true });
        for (const [, path = '', inner = ''] of fragment.matchAll(
          /<(?:p|h[1-3]|li|t[dh])[^>]*? data-l="a:([\d.]+)">(.*?)<\/(?:p|h[1-3]|li|t[dh])>/gs,
        )) {
          const node = nodeAt(document, path.split('.').map(Number));
          const before = node ? inlineOf(node) : [];
          const shown = [...inner.matchAll(/<span data-i="(\d+)">(.*?)<\/span>/gs)].map(([, of, words = '']) => ({
            of: Number(of),
            words,
          }));
          expect(JSON.stringify(readEdited(before, shown, shown))).toBe(JSON.stringify(before));
        }
      }),
      { numRuns: 200 },
    );
  });

  it('says the same as without its marks for editing', () => {
    const words = (html: string): string => html.replace(/<[^>]*>/g, '');
    fc.assert(
      fc.property(documents, someAnswers, (document, answers) => {
        const compiled = compile({ name: 'a', document }, { library: { get: () => undefined } });
        const input = { answers, today: TODAY };
        const [plain, marked] = [{ proof: true }, { proof: true, editing: true }].map((options) =>
          render(compiled, input, options),
        );
        expect(words(marked?.fragment ?? '')).toBe(words(plain?.fragment ?? ''));
      }),
      { numRuns: 200 },
    );
  });

  it('is passed over where the text says something else by now', () => {
    const changes = { parts: [], reworded: [{ ...reworded([]), before: [{ type: 'text' as const, text: 'other' }] }] };
    expect(composed(texts, changes)[0]).toBe(main);
  });
});

describe('stitching', () => {
  const stitched = { parts: [{ name: 'more', at: 2 }], reworded: [] };

  it('puts a text where it was put, asks nothing twice, and finds the way back to the own text', () => {
    const all = composed(texts, stitched);
    expect(read(all, { party: 3 }).split('\n\n')).toEqual([
      'Dear Ann,',
      'We expect 3 of you.',
      'Hello again,',
      'Bring 3 rugs.',
      'Kind regards',
      'See you.',
    ]);
    const compiled = compile(all[0] as typeof main, {
      library: { get: (name) => all.find((each) => each.name === name)?.document },
    });
    expect(questions(compiled, { today: TODAY }).filter(({ key }) => key === 'party')).toHaveLength(1);
    const body = all[0]?.document.content[bodyAt];
    const back = (body && 'content' in body ? (body.content ?? []) : []).map((_, at) =>
      ownPath(main.document, stitched, [bodyAt, at]),
    );
    expect(back).toEqual([[bodyAt, 0], [bodyAt, 1], undefined, [bodyAt, 2]]);
  });

  it('notices a second greeting and an earlier closing, and takes them out without moving anything', () => {
    const found = saidTwice(texts, stitched);
    expect(found.map(({ what, words }) => [what, words])).toEqual([['greeting', 'Hello again,']]);
    const changes = { ...stitched, reworded: found.map(({ change }) => change) };
    expect(read(composed(texts, changes), { party: 3 })).not.toContain('Hello again');
    expect(read(composed(texts, changes), { party: 3 })).toContain('Bring 3 rugs.');
    expect(saidTwice(texts, changes)).toEqual([]);
  });

  it('brings the attachments of what is stitched', () => {
    const withFile = {
      name: 'more',
      document: documentOf({
        body: 'x',
        front: 'kind: message\nsubject: S\nattachments:\n  - { file: assets/plan.pdf, name: plan }',
      }),
    };
    const [own] = composed([main, withFile], { parts: [{ name: 'more', at: 0 }], reworded: [] });
    const files: string[] = [];
    visit((own as typeof main).document, (node) => void (node.type === 'attachment' && files.push(node.attrs.file)));
    expect(files).toEqual(['assets/plan.pdf']);
  });
});

describe('values from elsewhere', () => {
  const compiled = program({
    body: '{{a}}{{b}}{{gate}}{{c}}',
    variables:
      'a: { type: number, from: last }\nb: { type: text, default: usual }\ngate: { type: choice, options: { n: {}, s: {} }, default: n }\nc: { type: date, from: clipboard }',
  });
  const ask = (offered: RenderInput['offered'], answers = {}) =>
    questions(compiled, { answers, today: TODAY, ...(offered ? { offered } : {}) });

  it('stand behind answers and before defaults, and are to be confirmed with the default options', () => {
    const asked = ask({ a: { value: 24, source: 'last' }, b: { value: 'odd', source: 'memory' } });
    expect(asked.map(({ key, source, value }) => [key, source, value])).toEqual([
      ['a', 'last', 24],
      ['b', 'memory', 'odd'],
      ['gate', 'default', 'n'],
      ['c', 'none', undefined],
    ]);
    expect(unconfirmed(asked, new Set()).map(({ key }) => key)).toEqual(['a', 'b', 'gate']);
    expect(unconfirmed(asked, new Set(['a', 'gate'])).map(({ key }) => key)).toEqual(['b']);
    expect(unconfirmed(ask(undefined, { a: 3, gate: 's' }), new Set())).toEqual([]);
  });

  it('are passed over where they do not fit, without a finding', () => {
    const [question] = ask({ a: { value: 'many', source: 'last' } });
    expect([question?.source, question?.problem]).toEqual(['none', undefined]);
  });

  it('are remembered as the variable says, and never what belongs to one person', () => {
    const memory = (source: string) =>
      memoryOf(documentOf({ body: 'x', variables: `v: ${source}` }).attrs.variables[0] as never);
    expect(memory('{ type: number, from: last }')).toBe('last');
    expect(memory('{ type: text, remember: true }')).toBe('memory');
    expect(memory('{ type: date, remember: true }')).toBeUndefined();
    expect(memory('{ type: text }')).toBeUndefined();
  });
});

describe('values found in words', () => {
  const found = (text: string) => foundValues(text, TODAY, 'en-IE').map(({ type, value }) => `${type} ${value}`);
  it.each<[string, string[]]>([
    ['Could we come on 14 June 2027 with 24 children?', ['date 2027-06-14', 'number 24']],
    ['on Monday 14th of June', ['date 2027-06-14']],
    ['11/5/27 at 2.30 pm', ['date 2027-05-11', 'time 14:30']],
    ['We paid €1,250.50, or 36 EUR', ['money 1250.50', 'money 36']],
    ['Call +353 20 910 0123 or write to ann@x.example.', ['phone +353209100123', 'email ann@x.example']],
    ['see https://larkmoor.example/book.', ['link https://larkmoor.example/book']],
    ['We come at 13:30.\n\nMay we?', ['time 13:30']],
    ['We are 24.\n\nMarch was too wet.', ['number 24']],
    ['on 14\nJune 2027', ['date 2027-06-14']],
    ['31 February 2027', ['number 31', 'number 2027']],
    ['nothing here', []],
  ])('%s', (text, values) => expect(found(text)).toEqual(values));

  it('fit questions of their types', () => {
    const values = foundValues('24 people for €108 on 2027-05-11', TODAY, 'en-IE');
    expect(fitting(values, 'money').map(({ value }) => value)).toEqual(['108', '24']);
    expect(fitting(values, 'date').map(({ value }) => value)).toEqual(['2027-05-11']);
    expect(fitting(values, 'text')).toEqual([]);
  });

  it('end, whatever the text', () => {
    fc.assert(fc.property(fc.string({ maxLength: 400 }), (text) => void foundValues(text, TODAY, 'en-IE')));
  });
});

describe('what an answer does', () => {
  it.each([
    ['Come to the gate.', 'Come to the gate, where your guide waits.', ', where your guide waits', ''],
    ['Come to the north gate.', 'Come to the river gate.', 'river', 'north'],
    ['One.\n\nTwo.', 'One.', '', 'Two.'],
    ['Same.', 'Same.', '', ''],
  ])('%j → %j', (before, after, adds, takes) => expect(difference(before, after)).toEqual({ adds, takes }));
});
