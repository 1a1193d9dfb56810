/** Images. A value is an asset of the library, or an address, with its alternative text. */
import { safeUrl } from './address.js';
import type { ImageValue, Parsed, Value, ValueType } from './type.js';

/** True for what an image in a message may come from: a file of the library's, or an http(s) address. */
export const isImageSource = (src: string): boolean =>
  src.length <= 4000 &&
  (/^https?:\/\//i.test(src)
    ? safeUrl(src) !== undefined
    : src !== '' && !/^[a-z][a-z0-9+.-]*:/i.test(src) && !src.split(/[/\\]/).includes('..') && !/^[/\\]/.test(src));

/** Text is a source and, behind a space, the alternative text: `assets/map.png The garden's map`. */
function read(input: unknown): ImageValue | undefined {
  if (typeof input === 'string') {
    const [, src = '', alt = ''] = /^(\S+)\s*([\s\S]*)$/.exec(input.trim()) ?? [];
    return { src, alt: alt.replace(/\s+/g, ' ') };
  }
  if (typeof input !== 'object' || input === null || Array.isArray(input)) return undefined;
  const { src, alt = '' } = input as { src?: unknown; alt?: unknown };
  return typeof src === 'string' && typeof alt === 'string' ? { src, alt } : undefined;
}

/** The alternative text of a value that is an image; undefined for other values. */
export const textOfImage = (value: Value): string | undefined =>
  typeof value === 'object' && 'src' in value && typeof value.src === 'string' ? String(value.alt) : undefined;

/** An image, by its source and alternative text. */
export const image: ValueType = {
  name: 'image',
  attributes: ['max_width'],
  parse(input): Parsed {
    const value = read(input);
    return value && isImageSource(value.src) && value.alt.length <= 1000
      ? { value }
      : {
          problem:
            'This must be an image of the library, such as assets/map.png, or an address that begins with https://.',
        };
  },
  views: () => [],
  /** Where only words can stand, an image is its alternative text. */
  formatter: (_variable, view) => (view === '' ? (value) => (value as ImageValue).alt : undefined),
  declared: (variable) =>
    variable.max_width === undefined || (Number.isInteger(variable.max_width) && variable.max_width > 0)
      ? []
      : [{ attribute: 'max_width', message: 'A width is a number of pixels.' }],
  specimen: () => ({ src: '', alt: 'image' }),
  expressionType: 'map<string, string>',
  family: 'image',
  control: 'image',
};
