import { describe, expect, it } from 'vitest';
import { fontsFor } from './scriptFonts';

describe('fonts for other scripts', () => {
  it.each([
    ['Siobhán Ní Bhriain, Αλίκη, Ольга, Đặng', []],
    ['佐藤はな', [0, 2]],
    ['김민준', [1]],
    ['王芳', [2]],
    ['سارة', [3]],
    ['נועה', [4]],
    ['आशा', [5]],
    ['Ann and 김 and سارة', [1, 3]],
    ['“quoted” – 12 € ✓', []],
  ])('“%s” needs those of its letters', (text, fonts) => {
    expect(fontsFor(text)).toEqual(fonts);
  });
});
