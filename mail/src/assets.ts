/** What a message brings along: attachments, and the images that its HTML shows. */
import { createHash } from 'node:crypto';
import type { Message } from '@vocabula/core';
import { imageSize } from 'image-size';

/** A file that a message shows or brings. */
export interface Asset {
  readonly content: Uint8Array;
  /** A media type, such as `image/png`. */
  readonly type: string;
}

/** The asset at a path of the library, `assets/map.png`; undefined if there is none. */
export type AssetSource = (path: string) => Asset | undefined;

/** A file as a part of a message. */
export interface MimePart extends Asset {
  readonly name: string;
  /** Of images that the HTML shows: what it calls them. */
  readonly cid?: string;
}

/** An attachment that the library does not have. */
export class MissingAsset extends Error {
  constructor(readonly file: string) {
    super(`“${file}” is to be attached, and the library does not have it.`);
  }
}

/** The attachments of a message under the names they are given; a name without an ending takes its file's. */
export function attachmentsOf(attachments: Message['attachments'], assets: AssetSource): MimePart[] {
  return attachments.map(({ file, name }) => {
    const asset = assets(file);
    if (!asset) throw new MissingAsset(file);
    const ending = /\.[a-z0-9]{1,8}$/i.exec(file)?.[0] ?? '';
    return { ...asset, name: /\.[a-z0-9]{1,8}$/i.test(name) ? name : name + ending };
  });
}

// A tag ends before the next begins: however many are never closed, each is looked at once.
const IMAGE_TAG = /<img\b[^<>]*>/g;
const SOURCE = /(\ssrc=")([^"]*)(")/;
const WIDTH = /\swidth="/;
/** The most that an author allows for a variable's image. */
const MAX_WIDTH = /max-width:min\(100%, (\d+)px\)/;
const unescape = (text: string): string =>
  text
    .replace(/&#39;/g, "'")
    .replace(/&quot;/g, '"')
    .replace(/&amp;/g, '&');

/**
 * HTML whose images of the library are named by content ids, with the images themselves, each once.
 * @param widest how wide the message is, in pixels: images without a width get their own, and no more
 */
export function embedded(
  html: string,
  assets: AssetSource,
  widest?: number,
): { readonly html: string; readonly images: readonly MimePart[] } {
  const images = new Map<string, MimePart>();
  const changed = withImages(html, assets, widest, (path, asset) => {
    const cid =
      images.get(path)?.cid ??
      `${createHash('sha256').update(asset.content).digest('hex').slice(0, 24)}@vocabula.example`;
    images.set(path, { name: path.split('/').at(-1) ?? path, content: asset.content, type: asset.type, cid });
    return `cid:${cid}`;
  });
  return { html: changed, images: [...images.values()] };
}

/**
 * HTML that holds its images itself, for places that take no files along, such as a clipboard.
 * @param widest as for `embedded`; left out for mail that came in, which stays as it is
 */
export const inlined = (html: string, assets: AssetSource, widest?: number): string =>
  withImages(
    html,
    assets,
    widest,
    (_, { type, content }) => `data:${type};base64,${Buffer.from(content).toString('base64')}`,
  );

/**
 * Replaces the addresses of images. In a message of ours an image without a width gets its own, at most the message's:
 * word-processor engines show images as wide as they are, whatever their style says.
 */
function withImages(
  html: string,
  assets: AssetSource,
  widest: number | undefined,
  address: (path: string, asset: Asset) => string,
): string {
  return html.replace(IMAGE_TAG, (tag) => {
    const path = unescape(SOURCE.exec(tag)?.[2] ?? '');
    const asset = path === '' ? undefined : assets(path);
    if (!asset) return tag;
    const shown = tag.replace(
      SOURCE,
      (_, before: string, _source, after: string) => before + address(path, asset) + after,
    );
    const own = widest === undefined || WIDTH.test(tag) ? undefined : widthOf(asset);
    if (widest === undefined || own === undefined) return shown;
    const width = Math.min(own, widest, Number(MAX_WIDTH.exec(tag)?.[1] ?? widest));
    return shown.replace('<img', `<img width="${width}"`);
  });
}

const widths = new WeakMap<Uint8Array, { readonly width: number | undefined }>();
/** An image's own width in pixels, looked for once; undefined where its bytes do not say. */
function widthOf({ content }: Asset): number | undefined {
  let known = widths.get(content);
  if (!known) {
    try {
      known = { width: imageSize(content).width };
    } catch {
      known = { width: undefined };
    }
    widths.set(content, known);
  }
  return known.width;
}

const TYPES: Readonly<Record<string, string>> = {
  png: 'image/png',
  jpg: 'image/jpeg',
  jpeg: 'image/jpeg',
  gif: 'image/gif',
  webp: 'image/webp',
  pdf: 'application/pdf',
  txt: 'text/plain',
  csv: 'text/csv',
  ics: 'text/calendar',
  docx: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  zip: 'application/zip',
};

/** The media type that a file's ending says; anything else is bytes. */
export const typeOfFile = (path: string): string =>
  TYPES[/\.([a-z0-9]+)$/i.exec(path)?.[1]?.toLowerCase() ?? ''] ?? 'application/octet-stream';
