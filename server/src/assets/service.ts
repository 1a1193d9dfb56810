/** Files that texts show or attach: kept once, never changed, named by what texts call them. */
import { createHash } from 'node:crypto';
import { MAX_ASSET, MAX_IMAGE, type Asset } from '@vocabula/contract';
import type { AssetSource } from '@vocabula/mail';
import { and, asc, eq, inArray } from 'drizzle-orm';
import { schema, type Database, type Reader } from '../db/database.js';
import { notFound, RequestProblem } from '../http/problem.js';
import type { User } from '../people/user.js';
import { accessOf } from '../rights/access.js';
import { fileName, imageType, isSvg, typeOf } from './sniff.js';

const FOLDER = 'assets/';
const PATH = /^assets\/[a-z0-9][a-z0-9._-]{0,120}$/;
const megabytes = (bytes: number): string => `${Math.round(bytes / 1_000_000)} MB`;

export class AssetService {
  constructor(private readonly database: Database) {}

  /** The files that are the user's, or that a text they see shows. */
  async list(user: User): Promise<Asset[]> {
    const { path, type, size, addedBy } = schema.assets;
    const { read } = this.database;
    const rows = await read.select({ path, type, size, addedBy }).from(schema.assets).orderBy(asc(path));
    const seen = await seenAssets(read, user);
    return rows
      .filter((row) => isBringer(row.addedBy, user) || seen.has(row.path))
      .map(({ addedBy: _addedBy, ...asset }) => asset);
  }

  /** Keeps a file. The same bytes keep the path they have; another file of the same name gets a number behind it. */
  add(name: string, bytes: Uint8Array, exact: boolean, user: User): Promise<Asset> {
    const type = judge(bytes, name);
    const digest = createHash('sha256').update(bytes).digest('hex');
    return this.database.write(async (writer) => {
      const { path, size } = schema.assets;
      const [known] = await writer
        .select({ path, size, type: schema.assets.type, addedBy: schema.assets.addedBy })
        .from(schema.assets)
        .where(eq(schema.assets.digest, digest));
      if (known && (!exact || known.path === name)) {
        const { addedBy, ...asset } = known;
        const bringers = [...new Set([...(addedBy ?? []), user.id])];
        await writer.update(schema.assets).set({ addedBy: bringers }).where(eq(path, known.path));
        return asset;
      }
      const taken = new Set((await writer.select({ path }).from(schema.assets)).map((row) => row.path));
      if (exact && (!PATH.test(name) || taken.has(name) || known))
        throw new RequestProblem(
          409,
          'taken',
          known
            ? `The same file is kept as “${known.path}” already.`
            : `“${name}” cannot be kept under that name: it is taken, or not below assets/ in small letters.`,
        );
      const asset: Asset = {
        path: exact ? name : free(FOLDER + fileName(name, type), taken),
        type,
        size: bytes.length,
      };
      await writer.insert(schema.assets).values({
        ...asset,
        digest,
        content: Buffer.from(bytes),
        createdAt: new Date().toISOString(),
        addedBy: [user.id],
      });
      return asset;
    });
  }

  async content(path: string, user: User): Promise<{ readonly type: string; readonly content: Buffer }> {
    const { read } = this.database;
    const [row] = await read
      .select({ type: schema.assets.type, content: schema.assets.content, addedBy: schema.assets.addedBy })
      .from(schema.assets)
      .where(eq(schema.assets.path, path));
    if (!row || (!isBringer(row.addedBy, user) && !(await seenAssets(read, user, path)).has(path)))
      throw notFound('file');
    return { type: row.type, content: Buffer.from(row.content) };
  }

  /** The assets at some paths, for making a message of; those that do not exist are left out. */
  async source(paths: readonly string[]): Promise<AssetSource> {
    const wanted = [...new Set(paths)].filter((path) => PATH.test(path));
    if (wanted.length === 0) return () => undefined;
    const rows = await this.database.read.select().from(schema.assets).where(inArray(schema.assets.path, wanted));
    const found = new Map(rows.map(({ path, type, content }) => [path, { type, content: Buffer.from(content) }]));
    return (path) => found.get(path);
  }
}

type Bringers = (typeof schema.assets.$inferSelect)['addedBy'];
const isBringer = (addedBy: Bringers, user: User): boolean => addedBy?.includes(user.id) ?? false;

/** The files that texts show which the user sees: as published, and as written where they may write. */
async function seenAssets(reader: Reader, user: User, path?: string): Promise<Set<string>> {
  const access = await accessOf(reader, user);
  const { uses, texts } = schema;
  const rows = await reader
    .select({ path: uses.target, state: uses.state, folder: texts.folder })
    .from(uses)
    .innerJoin(texts, eq(texts.name, uses.text))
    .where(and(eq(uses.what, 'asset'), path === undefined ? undefined : eq(uses.target, path)));
  return new Set(
    rows
      .filter(({ state, folder }) => access.may(state === 'published' ? 'fill' : 'write', folder))
      .map((row) => row.path),
  );
}

/** The type that a file is kept under. Throws words for files that are not taken. */
function judge(bytes: Uint8Array, name: string): string {
  if (bytes.length === 0) throw new RequestProblem(422, 'bad-file', 'The file is empty.');
  if (isSvg(bytes) && imageType(bytes) === undefined)
    throw new RequestProblem(
      422,
      'bad-file',
      'This is an SVG drawing: it may hold scripts, and mail programs do not show it. Take it as PNG.',
    );
  const image = imageType(bytes);
  if (image !== undefined && bytes.length > MAX_IMAGE)
    throw new RequestProblem(
      413,
      'too-large',
      `This image has ${megabytes(bytes.length)}; ${megabytes(MAX_IMAGE)} at most are taken.`,
    );
  if (bytes.length > MAX_ASSET)
    throw new RequestProblem(
      413,
      'too-large',
      `This file has ${megabytes(bytes.length)}; ${megabytes(MAX_ASSET)} at most are taken.`,
    );
  return typeOf(bytes, name);
}

function free(path: string, taken: ReadonlySet<string>): string {
  if (!taken.has(path)) return path;
  const [, stem = path, ending = ''] = /^(.*?)(\.[a-z0-9]+)?$/.exec(path) ?? [];
  for (let number = 2; ; number += 1) if (!taken.has(`${stem}-${number}${ending}`)) return `${stem}-${number}${ending}`;
}
