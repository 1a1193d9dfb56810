/** What a message brings along: attachments, and the images that its HTML shows. */
import { createHash } from 'node:crypto';
import type { Message } from '@vocabula/core';

export interface Asset {
  readonly content: Uint8Array;
  /** A media type, such as `image/png`. */
  readonly type: string;
}

/** The asset at a path of the library, `assets/map.png`; undefined if there is none. */
export type AssetSource = (path: string) => Asset | undefined;

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
const SOURCE = /(<img\b[^<>]*?\ssrc=")([^"]*)(")/g;
const unescape = (text: string): string =>
  text
    .replace(/&#39;/g, "'")
    .replace(/&quot;/g, '"')
    .replace(/&amp;/g, '&');

/** HTML whose images of the library are named by content ids, with the images themselves, each once. */
export function embedded(
  html: string,
  assets: AssetSource,
): { readonly html: string; readonly images: readonly MimePart[] } {
  const images = new Map<string, MimePart>();
  const changed = html.replace(SOURCE, (whole: string, before: string, source: string, after: string) => {
    const path = unescape(source);
    const known = images.get(path);
    const asset = known ?? assets(path);
    if (!asset) return whole;
    const cid =
      known?.cid ?? `${createHash('sha256').update(asset.content).digest('hex').slice(0, 24)}@vocabula.example`;
    images.set(path, { name: path.split('/').at(-1) ?? path, content: asset.content, type: asset.type, cid });
    return `${before}cid:${cid}${after}`;
  });
  return { html: changed, images: [...images.values()] };
}

/** HTML that holds its images of the library itself, for places that take no files along, such as a clipboard. */
export function inlined(html: string, assets: AssetSource): string {
  return html.replace(SOURCE, (whole: string, before: string, source: string, after: string) => {
    const asset = assets(unescape(source));
    return asset
      ? `${before}data:${asset.type};base64,${Buffer.from(asset.content).toString('base64')}${after}`
      : whole;
  });
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
