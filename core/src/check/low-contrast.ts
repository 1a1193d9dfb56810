import { advice } from '../findings/finding.js';
import { ENOUGH_CONTRAST } from '../house/colour.js';
import type { Check } from './check.js';
import { colouredWords, contrastInWords, contrasts } from './coloured.js';

/** Words in a colour that can hardly be read on what lies under them, on light pages or dark ones. */
export const lowContrast: Check = {
  run({ document, program }) {
    const { style } = program.house;
    return colouredWords(document, style).flatMap(({ words, path, colour, ground }) => {
      const named = style.colours[colour];
      if (!named) return [];
      const { light, dark } = contrasts(named, ground === undefined ? undefined : style.colours[ground]);
      const least = Math.min(light, dark);
      if (least >= ENOUGH_CONTRAST) return [];
      return advice(
        {
          code: 'low-contrast',
          text: words,
          colour,
          ground,
          contrast: contrastInWords(least),
          enough: ENOUGH_CONTRAST,
          pages: light <= dark ? 'light' : 'dark',
        },
        { path },
      );
    });
  },
};
