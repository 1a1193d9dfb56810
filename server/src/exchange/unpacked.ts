/** A packed library, read: texts in folders, files, the house, and what the file format does not say. */
import { PackedProblem, unpackWithin } from '@vocabula/core/zip';
import { strFromU8 } from 'fflate';
import { parse } from 'yaml';
import * as z from 'zod';
import { RequestProblem } from '../http/problem.js';
import { readFile, type ReadFile } from './files.js';

/** The most that a library may unpack to, in bytes. */
const MAX_UNPACKED = 400_000_000;
export const HOUSE = 'house.yaml';
export const CATALOGUE = 'catalogue.yaml';
export const ASSETS = 'assets/';

const catalogueSchema = z.object({
  vocabula: z.literal(1),
  /** By path: what a folder is called, and where it stands. */
  folders: z
    .record(z.string().max(400), z.object({ title: z.string().min(1).max(80), position: z.int().min(0).optional() }))
    .default({}),
  /** By name: tags, and where a text stands in its folder. */
  texts: z
    .record(
      z.string().max(80),
      z.object({ tags: z.array(z.string().max(40)).default([]), position: z.int().min(0).optional() }),
    )
    .default({}),
});
export type Catalogue = z.infer<typeof catalogueSchema>;

/** What a zip holds. */
export interface Library {
  readonly texts: readonly (ReadFile & { readonly folder: string })[];
  readonly assets: ReadonlyMap<string, Uint8Array>;
  readonly house: string | undefined;
  readonly catalogue: Catalogue;
}

/** Reads a zip. Throws words for one that is damaged, too large, or no library. */
export async function unpacked(bytes: Uint8Array): Promise<Library> {
  const parts = await unpackWithin(
    bytes,
    /(?:^|\/)(?:[^/]+\.md|house\.yaml|catalogue\.yaml)$|(?:^|\/)assets\/[^/]+$/,
    MAX_UNPACKED,
    60_000,
  ).catch((problem: unknown) => {
    if (!(problem instanceof PackedProblem)) throw problem;
    throw problem.why === 'damaged'
      ? new RequestProblem(422, 'bad-file', 'This is not a zip file that can be read.')
      : new RequestProblem(413, 'too-large', `This unpacks to more than ${MAX_UNPACKED / 1_000_000} MB.`);
  });
  // A library that was packed with the folder it stood in comes out of it.
  const names = Object.keys(parts).filter(
    (name) => !name.split('/').some((part) => part === '..' || part.startsWith('.') || part === '__MACOSX'),
  );
  const house = names.find((name) => name.endsWith(HOUSE) && name.split('/').length <= 2);
  const root = (names.find((name) => name.endsWith(CATALOGUE) && name.split('/').length <= 2) ?? house ?? '').replace(
    /[^/]*$/,
    '',
  );
  const inside = names.filter((name) => name.startsWith(root));
  const of = (name: string): Uint8Array => parts[`${root}${name}`] ?? new Uint8Array();
  const paths = inside.map((name) => name.slice(root.length));
  const texts = paths
    .filter((path) => path.endsWith('.md') && !path.startsWith(ASSETS))
    .map((path) => ({ ...readFile(path, strFromU8(of(path))), folder: path.split('/').slice(0, -1).join('/') }));
  const assets = new Map(paths.filter((path) => path.startsWith(ASSETS)).map((path) => [path, of(path)]));
  if (texts.length === 0 && assets.size === 0 && house === undefined)
    throw new RequestProblem(422, 'bad-file', 'There is no text in this zip: texts are files that end in .md.');
  return {
    texts,
    assets,
    house: paths.includes(HOUSE) ? strFromU8(of(HOUSE)) : undefined,
    catalogue: paths.includes(CATALOGUE)
      ? catalogueOf(strFromU8(of(CATALOGUE)))
      : { vocabula: 1, folders: {}, texts: {} },
  };
}

function catalogueOf(source: string): Catalogue {
  try {
    return catalogueSchema.parse(parse(source, { maxAliasCount: 0 }));
  } catch {
    throw new RequestProblem(422, 'bad-file', `${CATALOGUE} cannot be read. Nothing was taken.`);
  }
}
