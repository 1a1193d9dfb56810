/** What changed messages propose: weighed by what it saves, and put into the template. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compileBundle } from '../bundle/bundle.js';
import { readText, writeText } from '../formats/markdown/index.js';
import { PLAIN_HOUSE } from '../house/house.js';
import { render as renderMessage } from '../render/render.js';
import type { TextDocument } from '../template/document.js';
import { nodeAt } from '../template/walk.js';
import { inlineOf } from '../filling/index.js';
import { proposalsOf, sentencesOf, withProposals, type Proposal, type SentenceFigures } from './index.js';

const BODY =
  'Thank you for your message of {{day}}. Please come to the **north** gate. Dogs stay at home.\n\nKind regards';
const document = readText(
  `---\nvocabula: 1\nkind: message\ntitle: T\nsubject: S\nvariables:\n  day: { type: date, label: Day, required: true }\n---\n${BODY}\n`,
).document;
const bodyAt = document.content.findIndex(({ type }) => type === 'body');
const path = [bodyAt, 0];
const SENTENCES = sentencesOf(inlineOf(nodeAt(document, path) ?? document), 'en-GB');
const figures = (at: number, more: Partial<SentenceFigures>): SentenceFigures => ({
  ...{ text: 'visit', path, at, words: SENTENCES[at] ?? '', shown: 20, takenOut: 0, replacements: [] },
  ...more,
});
const added = (words: string, count: number, at: number) => ({
  ...{ words, count, of: 20, place: { text: 'visit', path, at } },
});
const bodyOf = (of: TextDocument): string => writeText(of).split('---\n')[2]?.trimEnd() ?? '';
const put = (proposals: readonly Proposal[]) => withProposals(document, proposals).document;
const render = (of: TextDocument, answers: Record<string, unknown> = {}): string => {
  const text = { name: 'visit', document: of };
  const program = compileBundle({ text, texts: [text], house: PLAIN_HOUSE });
  return renderMessage(program, { answers: { day: '2027-04-01', ...answers }, today: '2027-01-01' }).text;
};

describe('what messages propose', () => {
  const river = 'Please come to the river gate.';
  it.each<[string, Partial<SentenceFigures>, string | undefined]>([
    ['one message is an oddity', { replacements: [{ words: river, count: 1 }] }, undefined],
    ['some say it otherwise', { replacements: [{ words: river, count: 5 }] }, 'choose'],
    ['most say it otherwise', { replacements: [{ words: river, count: 17 }] }, 'replace'],
    ['all say it otherwise', { replacements: [{ words: river, count: 20 }] }, 'replace'],
    ['a few take it out', { takenOut: 3 }, undefined],
    ['very few of very many say it otherwise', { shown: 300, replacements: [{ words: river, count: 5 }] }, undefined],
    ['many take it out', { takenOut: 9 }, 'optional'],
  ])('%s', (_why, given, kind) => {
    expect(proposalsOf([figures(1, given)], []).map((each) => each.kind)).toEqual(kind ? [kind] : []);
  });
  it.each<[number, string | undefined]>([
    [1, undefined],
    [6, 'add sometimes'],
    [19, 'add'],
  ])('what %i of 20 add', (count, kind) => {
    const found = proposalsOf([], [added('Bring boots that you can walk in.', count, 1)]);
    expect(found.map((each) => each.kind)).toEqual(kind ? [kind] : []);
  });
  it('offers all wordings that are not odd', () => {
    const replacements = ['Come to the river gate.', 'Use the back gate.', 'Ring first.'].map((words, at) => ({
      words,
      count: [5, 4, 1][at] ?? 0,
    }));
    const [proposal] = proposalsOf([figures(1, { replacements })], []);
    expect(proposal).toMatchObject({ instead: 'Come to the river gate.', also: ['Use the back gate.'], count: 9 });
    const [choice] = put(proposal ? [proposal] : []).attrs.variables.slice(1);
    expect(choice?.options?.map(({ label }) => label)).toEqual(['North', 'River', 'Use back']);
  });
  it('has what saves most first, and nothing without a place', () => {
    const all = proposalsOf(
      [figures(1, { replacements: [{ words: river, count: 5 }] }), figures(2, { takenOut: 10 })],
      [added('Bring boots that you can walk in all day long.', 9, 0), { words: 'Hello.', count: 9, of: 0 }],
    );
    expect(all.map(({ kind }) => kind)).toEqual(['add sometimes', 'choose', 'optional']);
    expect(all.every(({ saves }, at) => at === 0 || saves <= (all[at - 1]?.saves ?? 0))).toBe(true);
  });
});

describe('a text with what was proposed', () => {
  const some: Proposal[] = proposalsOf(
    [
      figures(0, { replacements: [{ words: 'Many thanks for your message of [day].', count: 18 }] }),
      figures(1, { replacements: [{ words: 'Please come to the river gate.', count: 6 }] }),
      figures(2, { takenOut: 9 }),
    ],
    [added('Bring boots.', 8, 1)],
  );
  it('has the words, choices and passages of all of them', () => {
    expect(some).toHaveLength(4);
    expect(bodyOf(put(some))).toBe(
      'Many thanks for your message of {{day}}. {{north_or_river}}{{#bring_boots}} Bring boots.{{/bring_boots}} {{#dogs_stay_home}}Dogs stay at home.{{/dogs_stay_home}}\n\nKind regards',
    );
  });
  it('renders as most messages were, and otherwise where that is answered', () => {
    const next = put(some);
    expect(render(next)).toContain(
      'Many thanks for your message of 1 April 2027. Please come to the north gate. Dogs stay at home.',
    );
    expect(render(next, { north_or_river: 'river', bring_boots: 'true', dogs_stay_home: 'false' })).toContain(
      'Please come to the river gate. Bring boots.\n',
    );
  });
  it('comes to the same in whatever order', () => {
    fc.assert(
      fc.property(fc.shuffledSubarray(some, { minLength: 1 }), (chosen) => {
        const next = withProposals(document, chosen);
        expect(next.left).toEqual([]);
        const text = { name: 'visit', document: next.document };
        const { findings } = compileBundle({ text, texts: [text], house: PLAIN_HOUSE });
        expect(findings.filter(({ level }) => level !== 'note')).toEqual([]);
        const sorted = withProposals(
          document,
          some.filter((each) => chosen.includes(each)),
        );
        expect(bodyOf(next.document)).toBe(bodyOf(sorted.document));
      }),
    );
  });
  it('leaves what it has no place for any more, and stays as it is then', () => {
    const gone = some.map((each) => ({ ...each, path: [bodyAt, 9] }));
    expect(withProposals(document, gone)).toEqual({ document, left: expect.arrayContaining(gone) });
    const other = some
      .filter(({ at, kind }) => at === 1 && kind === 'choose')
      .map((each) => ({ ...each, words: 'Else.' }));
    expect(withProposals(document, other).left).toEqual(other);
  });
  it('takes a sentence that is a whole line out with its line', () => {
    const own: Proposal = {
      ...figures(0, {}),
      path: [bodyAt, 1],
      words: 'Kind regards',
      instead: '',
      kind: 'optional',
      count: 12,
      of: 20,
      saves: 9,
    };
    const next = put([own]);
    expect(render(next)).not.toMatch(/Kind|\n\s*\n\s*$/);
    expect(render(next, { kind_regards: 'true' })).toContain('Kind regards');
  });
});
