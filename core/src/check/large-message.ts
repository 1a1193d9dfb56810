import type { FilledCheck } from './filled.js';

/** Beyond this many bytes several mail programs cut a message off and hide the rest behind a link. */
const SHOWN_WHOLE = 100_000;

/** HTML so long that it will be cut off. */
export const largeMessage: FilledCheck = {
  run({ message }) {
    // A character has three bytes at most, so most messages need not be counted.
    if (message.html.length * 3 < SHOWN_WHOLE) return [];
    const bytes = new TextEncoder().encode(message.html).length;
    return bytes > SHOWN_WHOLE
      ? [
          {
            data: { code: 'large-message', bytes },
          },
        ]
      : [];
  },
};
