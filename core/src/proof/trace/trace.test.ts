import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compile } from '../../compile/compile.js';
import { render } from '../../render/render.js';
import { nodeAt } from '../../template/walk.js';
import { answers, documents } from '../../testing/arbitrary.js';
import { documentOf, program, type Source } from '../../testing/build.js';
import { explain } from './explain.js';
import { tracedLines, withStretches, wordsOf } from './lines.js';

const TODAY = '2026-11-24';
const text: Source = {
  body: 'Dear {{name}},\n\n{{#big}}\nYour lawn, by {{gate}}: {{> way}}\n{{/big}}\n\n`code`',
  variables: [
    'name: { type: text, from: recipient.first_name }',
    'party: { type: number }',
    'big: { type: yes-no, label: Large party, value: "party >= 15.0" }',
    'gate: { type: choice, options: { north: { label: North, wording: "the gate of {{name}}" } } }',
  ].join('\n'),
};
const blocks = { way: { body: 'past {{name}}', variables: 'name: { type: text, from: recipient.first_name }' } };
const compiled = program(text, blocks);
const input = { recipient: { first_name: 'Ann & Co' }, answers: { party: 20, gate: 'north' }, today: TODAY };
const message = render(compiled, input, { trace: true });

describe('lines of a message', () => {
  it('are what a reader sees, subject first, in pieces with one origin each', () => {
    const lines = tracedLines(message);
    expect(lines.map((line) => line.text)).toEqual([
      'S',
      'Dear Ann & Co,',
      'Your lawn, by the gate of Ann & Co: past Ann & Co',
      'code',
    ]);
    expect(lines[1]?.pieces.map((piece) => [piece.text, piece.origin.variable])).toEqual([
      ['Dear ', undefined],
      ['Ann & Co', 'name'],
      [',', undefined],
    ]);
  });
  it('hold every letter that the frame shows', () => {
    fc.assert(
      fc.property(documents, answers, (document, given) => {
        const any = compile({ name: 'a', document }, { library: { get: () => undefined } });
        const made = render(any, { answers: given, today: TODAY }, { trace: true });
        const lines = tracedLines(made);
        const shown = (html: string): string => wordsOf(html).replace(/\n/g, '');
        expect(
          lines
            .filter(({ part }) => part === 'body')
            .map((line) => line.text.replace(/\n/g, ''))
            .join(''),
        ).toBe(shown(made.fragment));
        // With the spans it is the same message.
        expect(withStretches(made.fragment, made.trace ?? []).replace(/<span data-s="\d+">/g, '').length).toBe(
          made.fragment.length + '</span>'.length * (made.trace?.length ?? 0),
        );
      }),
      { numRuns: 150 },
    );
  });
  it('lead back to a node that is there, or to a placeholder whose wording it is', () => {
    const document = documentOf(text);
    for (const { origin } of message.trace ?? [])
      if (origin.text === 'main')
        expect(nodeAt(document, origin.path) ?? nodeAt(document, origin.path.slice(0, -1))).toBeDefined();
  });
});

describe('an explanation', () => {
  const of = (words: string) => {
    const piece = tracedLines(message)
      .flatMap(({ pieces }) => pieces)
      .filter((each) => each.text.includes(words))
      .at(-1);
    if (!piece) throw new Error(words);
    return explain(compiled, input, piece.origin);
  };
  it('names the condition and what it asked', () => {
    expect(of('Your lawn').conditions).toEqual([
      {
        label: 'Large party',
        because: [
          {
            name: 'big',
            label: 'Large party',
            words: 'yes',
            source: 'calculated',
            expression: 'party >= 15.0',
            inWords: expect.stringContaining('Party'),
            inputs: [expect.objectContaining({ name: 'party', words: '20', source: 'answered' })],
          },
        ],
      },
    ]);
  });
  it('names the chain of blocks, the variable, and the wording of a choice', () => {
    expect(of('past')).toMatchObject({ text: 'way', blocks: ['way'] });
    expect(of('the gate of').wordingOf).toMatchObject({ label: 'Gate', words: 'North' });
    const last = of('Ann & Co');
    expect(last.variable).toMatchObject({ words: 'Ann & Co', source: 'the recipient’s first_name' });
  });
});
