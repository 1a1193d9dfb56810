import { expect, it } from 'vitest';
import { fold, holdsWords } from './fold.js';

it.each([
  ['Siobhán', 'siobhan'],
  ['GRÖẞE', 'grosse'],
  ['Łódź', 'lodz'],
  ['Æsir', 'aesir'],
  ['ﬁn', 'fin'],
  ['漢字 Ω', '漢字 ω'],
])('folds %s', (text, folded) => {
  expect(fold(text)).toBe(folded);
});

it('finds words in any order', () => {
  expect(holdsWords('Group visit confirmed', 'CONF grp visit')).toBe(false);
  expect(holdsWords('Group visit confirmed', ' conf  visít ')).toBe(true);
  expect(holdsWords('anything', '')).toBe(true);
});
