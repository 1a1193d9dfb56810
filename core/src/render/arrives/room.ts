/** How much room words need, and how much a small screen has. */

/** The width of a small screen, and what of it a message has, in pixels. */
export const SMALL_SCREEN = 360;
/** The pixels that a message has on a small screen. */
export const ROOM = SMALL_SCREEN - 24;
/** An average letter is so wide, as a share of the size of its words. */
const LETTER = 0.55;

/** The least width of some words in pixels: that of the longest. */
export const leastWidth = (words: string, size: number): number =>
  Math.max(0, ...words.split(/\s+/).map((word) => word.length)) * size * LETTER;
