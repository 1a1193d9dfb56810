import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { writeText } from '../formats/markdown/index.js';
import type { TextDocument } from '../template/document.js';
import { normalise } from '../template/normalise.js';
import { documents } from '../testing/arbitrary.js';
import { documentOf } from '../testing/build.js';
import { findMatches, patternFor, replaceMatches } from './find.js';

const LETTER = documentOf({
  front: 'kind: message\nsubject: Visit of Ann Lee\nto: ann lee <ann@quillmere.example>',
  variables: 'who: { type: choice, options: { her: { label: Her, wording: "for **Ann**  Lee, or {{who.label}}" } } }',
  body: [
    'Hello. Dear **Ann**\u00A0Lee, welcome {{who}}! See you.',
    '',
    '[Your page](https://larkmoor.example/?q=Ann%20Lee&r=1) and ![map for ann lee](assets/map.png). Ann Leeson.',
  ].join('\n'),
});
const find = (words: string, whole = true, document: TextDocument = LETTER) =>
  findMatches(document, patternFor(words, { whole }) ?? /(?!)/g);

describe('finding words', () => {
  it('looks in subject, addresses, body, targets, alternative texts and wordings, each with its sentence', () => {
    const found = find('Ann Lee');
    expect(
      found.map(({ line }) => (line.kind === 'wording' ? line.option : `${line.kind} ${line.path.join('.')}`)),
    ).toEqual(['line 0', 'line 1.0', 'line 9.0', 'target 9.1.0', 'alt 9.1.2', 'her']);
    const [, , body] = found;
    expect([body?.before, body?.words, body?.after]).toEqual(['Dear ', 'Ann\u00A0Lee', ', welcome [who]! ']);
    expect(find('Ann Lee', false)).toHaveLength(7);
    expect(findMatches(LETTER, patternFor('ann lee', { exact: true }) ?? /(?!)/g)).toHaveLength(2);
    expect(patternFor('  ')).toBeUndefined();
    expect(find('(')).toEqual([]);
  });
  it('puts a placeholder in every place, with the marks that all its words had', () => {
    const replaced = replaceMatches(LETTER, find('Ann Lee'), () => ({ name: 'name', view: '' }));
    const file = writeText(normalise(replaced));
    expect(file).toContain('subject: "Visit of {{name}}"');
    expect(file).toContain('Dear {{name}}, welcome {{who}}!');
    expect(file).toContain(
      '[Your page](https://larkmoor.example/?q={{name}}&r=1) and ![map for {{name}}](assets/map.png). Ann Leeson.',
    );
    expect(file).toContain('wording: "for {{name}}, or {{who.label}}"');
  });
  it('and putting the same words back changes nothing', () => {
    fc.assert(
      fc.property(documents, fc.constantFrom('a', 'the', 'e', 'x.example'), (document, words) => {
        const matches = findMatches(document, patternFor(words, { exact: true }) ?? /(?!)/g);
        const literal = matches.filter((match) => match.words === words);
        expect(normalise(replaceMatches(document, literal, ({ words: same }) => same))).toEqual(normalise(document));
        const gone = replaceMatches(document, matches, () => '…');
        expect(findMatches(gone, /…/g).length).toBeGreaterThanOrEqual(matches.length);
      }),
    );
  });
});
