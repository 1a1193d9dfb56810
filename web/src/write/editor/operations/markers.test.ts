// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest';
import { bodyOf, open, subjectOf } from '../../testing/open';
import { convertMarkers, findMarkerGroups } from './markers';
import { variablesOf } from './variables';

describe('markers', () => {
  it('of all hands are found, guessed and turned into variables in one step', () => {
    const of = open(
      'Dear [First name], come on <<date>> with [amount] and \\_\\_\\_\\_ to YOUR GATE. [First name], [he/she] waits.',
      '',
      'For [First name]',
    );
    const groups = findMarkerGroups(of.state.doc);
    expect(groups.map(({ label, type, places }) => [label, type, places.length])).toEqual([
      ['First name', 'text', 3],
      ['Date', 'date', 1],
      ['Amount', 'money', 1],
      [expect.any(String), 'text', 1],
      ['Your gate', 'text', 1],
      [expect.any(String), 'choice', 1],
    ]);
    expect(convertMarkers(of, groups)).toBe(8);
    expect(subjectOf(of)).toBe('For {{first_name}}');
    expect(bodyOf(of)).toMatch(
      /^Dear \{\{first_name\}\}, come on \{\{date\}\} with \{\{amount\}\} and \{\{\w+\}\} to \{\{your_gate\}\}\./,
    );
    expect(findMarkerGroups(of.state.doc)).toEqual([]);
    of.commands.undo();
    expect(findMarkerGroups(of.state.doc)).toHaveLength(6);
  });

  it('join a variable of the same label and type', () => {
    const of = open('[Party] of {{party}}', 'party: { type: number, label: Party }');
    convertMarkers(of, findMarkerGroups(of.state.doc));
    expect([bodyOf(of), variablesOf(of.state.doc)]).toEqual(['{{party}} of {{party}}', [expect.anything()]]);
  });

  it('in code are words', () => {
    expect(findMarkerGroups(open('```\n[Name]\n```').state.doc)).toEqual([]);
  });
});
