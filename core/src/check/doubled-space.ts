import { advice } from '../findings/finding.js';
import { placeIn, type Check } from './check.js';

/** Two or more spaces between words. */
export const doubledSpace: Check = {
  run: ({ lines }) =>
    lines.flatMap((line) =>
      [...line.text.matchAll(/(?<=\S) {2,}(?=\S)/gu)].map((match) => {
        const place = placeIn(line, match.index, match[0].length);
        const repair =
          'offset' in place
            ? { label: 'Leave one space', path: place.path, offset: place.offset, length: place.length, insert: ' ' }
            : undefined;
        return advice('doubled-space', `${match[0].length} spaces stand together.`, place, 'note', repair);
      }),
    ),
};
