import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { guessVariable } from './marker-guess.js';
import { findMarkers, mayHoldMarkers, writtenAlternatives } from './markers.js';

/** What the first marker of some words is taken for. */
const guessed = (words: string) => {
  const [marker] = findMarkers(words);
  if (!marker) throw new Error('there is no marker');
  return guessVariable(marker, words.slice(0, marker.start));
};

describe('a hand-made marker', () => {
  it.each([
    ['Write to [email address].', 'email', 'Email address'],
    ['Call [mobile].', 'phone', 'Mobile'],
    ['Pay [amount due].', 'money', 'Amount due'],
    ['Come on [visit date].', 'date', 'Visit date'],
    ['We expect [number of people].', 'number', 'Number of people'],
    ['We expect [number].', 'number', 'Number'],
    ['Order [order number].', 'text', 'Order number'],
    ['Dear [first name],', 'text', 'First name'],
    ['Dear <<FIRST_NAME>>,', 'text', 'First name'],
  ])('in “%s” is of type %s', (words, type, label) => {
    expect(guessed(words)).toEqual({ type, label });
  });

  it('with slashes is a choice of what is between them', () => {
    expect(guessed('Please bring [his/her/their] ticket.')).toEqual({
      type: 'choice',
      label: 'His or her or their',
      options: ['his', 'her', 'their'],
    });
  });

  it('that says nothing goes by the word before it', () => {
    expect(guessed('Date: _____')).toEqual({ type: 'date', label: 'Date' });
    expect(guessed('_____')).toEqual({ type: 'text', label: 'Value' });
  });
});

describe('words that are there sometimes', () => {
  const inner = (text: string) =>
    findMarkers(text).flatMap(({ kind, words, inner: own, not }) =>
      kind === 'optional' && own ? [[words, text.slice(own.start, own.end), not ?? false]] : [],
    );
  it.each<[string, (string | boolean)[][]]>([
    ['[If vegetarian: we have soup.] Come soon.', [['vegetarian', 'we have soup.', false]]],
    ['Bring boots. [if not a member: The fee is €4.]', [['a member', 'The fee is €4.', true]]],
    ['[Falls Gruppe: Bitte warten Sie am Tor.]', [['Gruppe', 'Bitte warten Sie am Tor.', false]]],
    ['[If a group: bring [number] rugs]', [['a group', 'bring [number] rugs', false]]],
    ['Dogs stay outside. (delete if not needed)', [['', 'Dogs stay outside.', false]]],
    ['Dogs stay outside *remove this line if not applicable*', [['', 'Dogs stay outside', false]]],
    ['[If open', []],
    ['[If open: ]', []],
    ['(delete if not needed)', []],
    ['If you come: call us.', []],
  ])('%s', (text, expected) => expect(inner(text)).toEqual(expected));

  it('hold markers of their own', () => {
    const kinds = findMarkers('[If a group: bring [number] rugs]').map(({ kind, words }) => [kind, words]);
    expect(kinds).toEqual([
      ['optional', 'a group'],
      ['bracketed', 'number'],
    ]);
  });
  it('are a question of yes or no, called by when they are there, or by their first words', () => {
    const guess = (text: string) => {
      const [marker] = findMarkers(text);
      return marker && guessVariable(marker, '', text.slice(marker.inner?.start, marker.inner?.end));
    };
    expect(guess('[If vegetarian: soup]')).toEqual({ type: 'yes-no', label: 'Vegetarian' });
    expect(guess('Dogs stay outside the gate. (delete if not needed)')).toEqual({
      type: 'yes-no',
      label: 'Dogs stay outside',
    });
  });
});

describe('a choice that is written out', () => {
  it.each(['[choose: tea / coffee]', '*choose: tea / coffee*', '(delete as appropriate: tea / coffee)'])(
    '%s',
    (text) => {
      expect(guessed(text)).toEqual({ type: 'choice', label: 'Tea or coffee', options: ['tea', 'coffee'] });
    },
  );
});

describe('alternatives that are written out', () => {
  const found = (...lines: string[]) =>
    writtenAlternatives(lines).map((run) => run.map(({ line, inner }) => lines[line]?.slice(inner.start, inner.end)));
  it.each<[string[], (string | undefined)[][]]>([
    [['Option A: Take the bus.', 'Option B: Walk.'], [['Take the bus.', 'Walk.']]],
    [['Dear all,', 'Option 1 – Bus', '', 'Option 2 – Walk', 'Option 3 – Swim', 'Bye'], [['Bus', 'Walk', 'Swim']]],
    [['Option A: bus. Option B: walk.'], [['bus.', 'walk.']]],
    [
      ['Option A: bus.', 'Option B: walk.', 'Then', 'Option A: tea', 'Option B: milk'],
      [
        ['bus.', 'walk.'],
        ['tea', 'milk'],
      ],
    ],
    [['Option A: bus.', 'Words', 'Option B: walk.'], []],
    [['Option A: the only one'], []],
    [['We took option A: the bus', 'Option B: walk'], []],
    [['Option B: walk', 'Option C: swim'], []],
  ])('%j', (lines, expected) => expect(found(...lines)).toEqual(expected));
});

it('whether a text may hold markers is said of every one that does', () => {
  const words = [
    '[Name]',
    '<<date>>',
    '{{x}}',
    '____',
    '........',
    'YOUR NAME is',
    '[If a: b]',
    'Dogs. (delete if not needed)',
  ];
  for (const text of words) expect([text, mayHoldMarkers(text)]).toEqual([text, true]);
  expect(mayHoldMarkers('Option A: bus.')).toBe(true);
  expect(mayHoldMarkers('Dear all, we look forward to seeing you.')).toBe(false);
  fc.assert(
    fc.property(fc.array(fc.constantFrom(...words, 'and', ' ', 'so')), (parts) => {
      const text = parts.join('');
      if (findMarkers(text).length > 0) expect(mayHoldMarkers(text)).toBe(true);
    }),
  );
});
