import type { FilledCheck } from './filled.js';

/** A line whose opening was left out, so that it begins with a small letter. */
export const sentenceStart: FilledCheck = {
  run: ({ lines, program }) =>
    lines.flatMap(({ pieces, part }) => {
      const [first] = pieces;
      if (!first || part === 'subject') return [];
      const { origin, text } = first;
      const index = origin.path.at(-1) ?? 0;
      // The first node of its line was written so; behind another, the words were not meant to begin it.
      if (index === 0 || origin.variable !== undefined || origin.wordingOf !== undefined) return [];
      if (!/^\s*\p{Ll}/u.test(text) || origin.text !== program.name) return [];
      return [
        {
          data: { code: 'sentence-start', text: text.trim() },
          origin,
        },
      ];
    }),
};
