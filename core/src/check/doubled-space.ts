import { advice } from '../findings/finding.js';
import { placeIn, replacing, type Check } from './check.js';

/** Two or more spaces between words. */
export const doubledSpace: Check = {
  run: ({ lines }) =>
    lines.flatMap((line) =>
      [...line.text.matchAll(/(?<=\S) {2,}(?=\S)/gu)].map((match) => {
        const place = placeIn(line, match.index, match[0].length);
        const data = { code: 'doubled-space', count: match[0].length } as const;
        return advice(data, place, 'note', replacing('Leave one space', place, ' '));
      }),
    ),
};
