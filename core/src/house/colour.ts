/** Colours as numbers: mixing them, and how well one can be read on another. */

type Channels = readonly [red: number, green: number, blue: number];

const HEX = /^#[0-9a-f]{6}$/i;

/** True for a hex value of six digits, such as `#3B6B2E`. */
export const isHex = (text: string): boolean => HEX.test(text);

const channels = (hex: string): Channels => {
  const value = Number.parseInt(hex.slice(1), 16);
  return [value >> 16, (value >> 8) & 0xff, value & 0xff];
};

/** A colour so far towards another as `share` says, 0 to 1, in steps of sRGB as people mix paint on screens. */
export function mix(hex: string, into: string, share: number): string {
  const [a, b] = [channels(hex), channels(into)];
  const mixed = a.map((channel, at) => Math.round(channel + ((b[at] ?? 0) - channel) * share));
  return `#${mixed
    .map((channel) => channel.toString(16).padStart(2, '0'))
    .join('')
    .toUpperCase()}`;
}

/** The page of messages, and the one that dark mail programs put in its place. */
export const PAGE = '#FFFFFF';
/** The page colour that dark views are judged against. */
export const DARK_PAGE = '#1B1D21';

/** What lies under words on a named colour's tint: enough of the colour to be seen, little enough to read on. */
export const tint = (hex: string): string => mix(hex, PAGE, 0.86);
/** The tint of a colour that panels have on a dark page. @param hex `#RRGGBB` */
export const darkTint = (hex: string): string => mix(hex, DARK_PAGE, 0.78);

/** Relative luminance, 0 for black to 1 for white (WCAG 2.2). */
function luminance(hex: string): number {
  const [red, green, blue] = channels(hex).map((channel) => {
    const share = channel / 255;
    return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
  }) as unknown as Channels;
  return 0.2126 * red + 0.7152 * green + 0.0722 * blue;
}

/** The contrast that words need (WCAG 2.2, 1.4.3). */
export const ENOUGH_CONTRAST = 4.5;

/** How one colour stands out from another, 1 to 21 (WCAG 2.2). */
export function contrast(a: string, b: string): number {
  const [light, dark] = [luminance(a), luminance(b)].sort((x, y) => y - x) as [number, number];
  return (light + 0.05) / (dark + 0.05);
}

/**
 * A colour turned from light to dark or from dark to light, its hue and strength kept: lightness of HSL is mirrored, as
 * programs do that make dark messages of light ones by themselves.
 */
export function turned(hex: string): string {
  const [red, green, blue] = channels(hex);
  const [high, low] = [Math.max(red, green, blue), Math.min(red, green, blue)];
  // In HSL hue and saturation stay when every channel is mirrored about the middle of the highest and the lowest, and
  // that middle, the lightness, is mirrored itself: each channel moves by the same.
  const move = 255 - high - low;
  return `#${[red, green, blue]
    .map((channel) => (channel + move).toString(16).padStart(2, '0'))
    .join('')
    .toUpperCase()}`;
}
