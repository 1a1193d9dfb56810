/** What a file is, told by its bytes: names and declared types may lie. */
import { fold } from '@vocabula/core';
import { typeOfFile } from '@vocabula/mail';

/** Image types that mail programs show. */
const IMAGES: readonly (readonly [type: string, is: (bytes: Uint8Array) => boolean])[] = [
  ['image/png', (bytes) => begins(bytes, [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a])],
  ['image/jpeg', (bytes) => begins(bytes, [0xff, 0xd8, 0xff])],
  ['image/gif', (bytes) => /^GIF8[79]a$/.test(ascii(bytes, 0, 6))],
  ['image/webp', (bytes) => ascii(bytes, 0, 4) === 'RIFF' && ascii(bytes, 8, 12) === 'WEBP'],
];
const ENDINGS: Readonly<Record<string, string>> = {
  'image/png': 'png',
  'image/jpeg': 'jpg',
  'image/gif': 'gif',
  'image/webp': 'webp',
};

const begins = (bytes: Uint8Array, start: readonly number[]): boolean => start.every((byte, at) => bytes[at] === byte);
const ascii = (bytes: Uint8Array, from: number, to: number): string => String.fromCharCode(...bytes.subarray(from, to));

/** The type of an image, or undefined for files that are none that mail programs show. */
export const imageType = (bytes: Uint8Array): string | undefined => IMAGES.find(([, is]) => is(bytes))?.[0];

/** True for a drawing in SVG, which may hold scripts and which mail programs do not show. */
export const isSvg = (bytes: Uint8Array): boolean =>
  /<svg[\s>]/i.test(new TextDecoder('utf-8').decode(bytes.subarray(0, 4096)));

/** The type a file is kept under: images by their bytes; of other files the ending says it, never as HTML or an image. */
export function typeOf(bytes: Uint8Array, name: string): string {
  const image = imageType(bytes);
  if (image) return image;
  const said = typeOfFile(name);
  return said.startsWith('image/') ? 'application/octet-stream' : said;
}

/** A file name with the ending that its bytes ask for. */
export function fileName(name: string, type: string): string {
  const base = fold(name.replace(/^.*[/\\]/, ''));
  const [, stem = base, given = ''] = /^(.*)\.([a-z0-9]{1,8})$/.exec(base) ?? [];
  const ending = ENDINGS[type] ?? given;
  const slug =
    stem
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-+|-+$/g, '')
      .slice(0, 60) || 'file';
  return ending === '' ? slug : `${slug}.${ending}`;
}
