// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest';
import { arrivedIn, lossWords, TEST_HTML, waysFor } from './handOverTest';

/** What a program makes of the test, as it comes back. */
function back(html: string) {
  document.body.innerHTML = html;
  const arrived = arrivedIn(document);
  return { ways: waysFor(arrived), words: lossWords(arrived) };
}

describe('the hand-over test', () => {
  it('finds everything where all of it comes back', () => {
    expect(back(TEST_HTML.replaceAll('#1E6E66', 'rgb(30, 110, 102)'))).toEqual({
      ways: { look: 'house', images: true },
      words: 'Everything arrived.',
    });
  });
  it('says that the font and the colour are lost, and hands over the structure only', () => {
    expect(back('<p style="font-size:18px">A test from Vocabula</p><ul><li>one <b>bold</b> word</li></ul>')).toEqual({
      ways: { look: 'structure', images: false },
      words: 'Lost on the way: the font, the colour, the image.',
    });
  });
  it('hands over plain text where nothing but words comes back', () => {
    const { ways, words } = back('A test from Vocabula\n- one bold word');
    expect(ways).toEqual({ look: 'plain', images: false });
    expect(words).toContain('the list');
    expect(back('').ways.look).toBe('plain');
  });
});
