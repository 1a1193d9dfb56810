import { describe, expect, it } from 'vitest';
import { guessVariable } from './marker-guess.js';
import { findMarkers } from './markers.js';

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
