import { describe, expect, it } from 'vitest';
import { documentOf } from '../testing/build.js';
import { measure, measureLines } from './measure.js';

const easy = Array.from({ length: 6 }, () => 'The cat sat on the mat. We had tea.').join(' ');
const hard =
  'Notwithstanding administrative considerations regarding organisational responsibilities, participating institutions should nevertheless demonstrate comprehensive accountability throughout every subsequent implementation, including unanticipated circumstances, procedural irregularities and extraordinary environmental contingencies whatsoever experienced internationally.';

describe('measures', () => {
  it('counts words and sentences, a placeholder as one word', () => {
    const document = documentOf({
      front: 'kind: message\nsubject: Not counted',
      variables: 'party: { type: number }',
      body: '# Your visit\n\nWe look forward to {{party}} of you, e.g. on Monday. It’s 4.50 euros!\n\n- bring boots',
    });
    expect(measure(document, 'en-GB')).toMatchObject({ words: 18, ease: undefined });
    expect(measure(document, 'en-GB').sentences).toBeGreaterThanOrEqual(4);
    expect(measureLines(['One two. Three four? Five', 'Six', '—'], 'en').sentences).toBe(4);
    expect(measureLines([], 'en')).toEqual({ words: 0, sentences: 0, minutes: 0, ease: undefined });
  });
  it('finds easy words easy and hard ones hard, where the language has a formula', () => {
    expect(measureLines([easy], 'en-GB').ease).toBeGreaterThan(95);
    expect(measureLines([hard, hard], 'en-GB').ease).toBeLessThan(10);
    expect(measureLines([easy], 'ja').ease).toBeUndefined();
    // Flesch's own example of plain English lies between the two.
    const plain =
      'The human race needs a good rule for the use of plain words in the letters that people send to each other every day, and most of us can learn to keep to such a rule.';
    const { ease = 0 } = measureLines([plain], 'en');
    expect(ease).toBeGreaterThan(50);
    expect(ease).toBeLessThan(90);
  });
  it('tells how long reading takes', () => {
    expect(measureLines([Array.from({ length: 476 }, () => 'word').join(' ')], 'en').minutes).toBeCloseTo(2, 5);
  });
});
