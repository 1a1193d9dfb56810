/** Words that somebody has marked with a pen of colour, read as the house's own highlighting. */
import { lch, type HCLColor } from 'd3-color';
import type { HouseStyle } from '../../house/house.js';

/** What a mark is drawn with where nothing says it (HTML, 15.3.4). */
export const PEN = 'yellow';
/** Colours with less chroma (CIE LCh, 0 to about 130) are white, grey or black. */
const GREY = 12;
/** Darker ones (lightness, 0 to 100) are grounds of dark pages; lighter greys are such of light ones. */
const DARK = 25;
const PALE = 90;

const hasHue = ({ c }: HCLColor): boolean => Number.isFinite(c) && c >= GREY;
/** Degrees between two hues, 0 to 180. */
const between = (a: number, b: number): number => Math.abs(((a - b + 540) % 360) - 180);

/**
 * The house's colour that a highlighter's comes nearest to: that of the nearest hue (CIE LCh), and for a grey one that
 * with the least hue. Undefined for what is no colour, for what is seen through, for grounds of pages, which words bring
 * along that are copied there, and in a house without colours.
 * @param colour as CSS writes it: `yellow`, `#ff0`, `rgb(255, 255, 0)`
 */
export function nearestColour(colour: string, colours: HouseStyle['colours']): string | undefined {
  const pen = lch(colour);
  if (!(pen.l >= DARK) || pen.opacity < 0.1 || (!hasHue(pen) && pen.l > PALE)) return undefined;
  const known = Object.entries(colours).map(([name, { light }]) => ({ name, of: lch(light) }));
  const coloured = hasHue(pen) ? known.filter(({ of }) => hasHue(of)) : [];
  const far = ({ of }: (typeof known)[number]): number => (coloured.length > 0 ? between(of.h, pen.h) : of.c || 0);
  const candidates = coloured.length > 0 ? coloured : known;
  return candidates.toSorted((a, b) => far(a) - far(b))[0]?.name;
}
