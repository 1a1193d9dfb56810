/**
 * A library as a zip of files: texts in the file format in folders, `assets/`, `house.yaml`, and `catalogue.yaml` for
 * what the format does not say: names of folders, order, tags.
 */
import type { Folder, LibraryItem, LibraryLook, LibraryTaken, TakeLibrary } from '@vocabula/contract';
import { nameFromTitle, sameValue, type TextDocument } from '@vocabula/core';
import { readHouse, writeHouse } from '@vocabula/core/house';
import { writeText } from '@vocabula/core/markdown';
import { inArray, isNull } from 'drizzle-orm';
import { strToU8, zipSync } from 'fflate';
import { stringify } from 'yaml';
import type { AssetService } from '../assets/service.js';
import { note } from '../audit/service.js';
import { publishedVersions, rowOf, workingCopy, type Row } from '../catalogue/visible-texts.js';
import { countFindings } from '../catalogue/findings.js';
import { changeText, insertText, isPurged, takenNames } from '../catalogue/store.js';
import { schema, type Database, type Reader, type Writer } from '../db/database.js';
import { currentHouse } from '../house/house-state.js';
import { houseFromFile, takeHouse } from '../house/service.js';
import { RequestProblem } from '../http/problem.js';
import type { User } from '../people/user.js';
import { accessOf, ROOT, type Access } from '../rights/access.js';
import type { FolderService } from '../rights/folders.js';
import { refusals, takeText } from './files.js';
import { renamed } from './renamed.js';
import { ASSETS, CATALOGUE, HOUSE, unpacked, type Catalogue, type Library } from './unpacked.js';
import { addFolder } from '../rights/store.js';

export class LibraryService {
  constructor(
    private readonly database: Database,
    private readonly assets: AssetService,
    private readonly folders: FolderService,
  ) {}

  /** Packs what the user sees: a folder with what is below it, some texts, or all. */
  async pack(
    { folder, names }: { readonly folder?: string; readonly names?: readonly string[] },
    user: User,
  ): Promise<Uint8Array> {
    const { read } = this.database;
    const access = await accessOf(read, user);
    const all = await this.folders.list(user);
    const top = folder ?? ROOT;
    if (folder !== undefined) access.demand('fill', folder, 'folder');
    const paths = pathsOf(all, top);
    const rows = (await read.select().from(schema.texts).where(isNull(schema.texts.binnedAt))).filter(
      (row) => (names ? names.includes(row.name) : paths.has(row.folder)) && access.may('fill', row.folder),
    );
    const published = await publishedVersions(read, rows);
    const files: Record<string, Uint8Array> = {};
    const texts: Catalogue['texts'] = {};
    const wanted = new Set<string>();
    for (const row of rows) {
      const copy = access.may('write', row.folder) ? workingCopy(row) : published.get(row.name);
      if (!copy) continue;
      const path = paths.get(row.folder) ?? '';
      files[`${path}${row.name}.md`] = strToU8(writeText(copy.document));
      const { tags } = row;
      if (tags.length > 0 || row.position > 0) texts[row.name] = { tags: [...tags], position: row.position };
      for (const [asset] of JSON.stringify(copy.document).matchAll(/assets\/[a-z0-9][a-z0-9._-]*/g)) wanted.add(asset);
    }
    for (const path of wanted) {
      const found = await this.assets.content(path, user).catch(() => undefined);
      if (found) files[path] = found.content;
    }
    if (folder === undefined && names === undefined)
      files[HOUSE] = strToU8(
        writeHouse((await currentHouse(read, user.role === 'colleague' ? 'fill' : 'write')).house),
      );
    const folders = Object.fromEntries(
      all
        .filter(({ id }) => id !== top && paths.has(id))
        .map(({ id, title }) => [
          (paths.get(id) ?? '').replace(/\/$/, ''),
          { title, position: access.folders.get(id)?.position ?? 0 },
        ]),
    );
    files[CATALOGUE] = strToU8(stringify({ vocabula: 1, folders, texts } satisfies Catalogue));
    await this.database.write((writer) =>
      note(writer, user, 'exported', 'catalogue', folder ?? 'catalogue', `${rows.length} texts`),
    );
    // Without times, the same catalogue gives the same bytes.
    return zipSync(files, { mtime: new Date('2026-01-01T00:00:00Z') });
  }

  /** What a zip holds and what would come of each of its files, without taking anything. */
  async look(bytes: Uint8Array, user: User): Promise<LibraryLook> {
    const library = await unpacked(bytes);
    const { read } = this.database;
    const access = await accessOf(read, user);
    const items: LibraryItem[] = [];
    const names = new Set<string>();
    for (const text of library.texts) {
      const row = await rowOf(read, text.name);
      const refused = refusals(text).map(({ where, message }) => `${where ? `${where}: ` : ''}${message}`)[0];
      const twice = names.has(text.name) ? 'Two files are called so.' : undefined;
      names.add(text.name);
      items.push({
        path: text.file,
        what: 'text',
        name: text.name,
        title: text.document.attrs.front.title,
        outcome: outcomeOf(row, text.document),
        refused:
          refused ??
          twice ??
          ((row ? !access.may('write', row.folder) : await isPurged(read, text.name))
            ? `The name “${text.name}” is taken. Keep both.`
            : undefined),
        findings: text.findings,
      });
    }
    for (const [path, content] of library.assets) {
      const known = await assetOf(read, path);
      const outcome = !known ? 'new' : known.equals(content) ? 'same' : 'changed';
      items.push({
        path,
        what: 'asset',
        name: path,
        title: path.slice(ASSETS.length),
        outcome,
        refused: undefined,
        findings: [],
      });
    }
    if (library.house !== undefined) {
      const { house, findings } = readHouse(library.house);
      const own = (await currentHouse(read, 'write')).house;
      const error = findings.find(({ level }) => level === 'error');
      const outcome = sameValue(own, house) ? 'same' : 'changed';
      items.push({
        path: HOUSE,
        what: 'house',
        name: 'house',
        title: 'House style, facts and holidays',
        outcome,
        refused: error?.message,
        findings,
      });
    }
    return { items, folders: Object.keys(library.catalogue.folders).length };
  }

  /**
   * Takes what was chosen, all of it or, if something cannot be, none. What is not chosen is taken where it is new and
   * left where it is there already.
   */
  async take(bytes: Uint8Array, { choices, into }: TakeLibrary, user: User): Promise<LibraryTaken> {
    const library = await unpacked(bytes);
    const { items } = await this.look(bytes, user);
    const choice = (item: LibraryItem): 'take' | 'keep both' | 'skip' =>
      choices[item.path] ?? (item.outcome === 'new' ? 'take' : 'skip');
    const wanted = items.filter((item) => choice(item) !== 'skip' && item.outcome !== 'same');
    const refused = wanted.find((item) => item.refused !== undefined && choice(item) !== 'keep both');
    if (refused)
      throw new RequestProblem(422, 'bad-file', `${refused.path}: ${refused.refused ?? ''} Nothing was taken.`);
    const moved = await this.takeFiles(library, wanted, user);
    const made: string[] = [];
    const result = await this.database.write(async (writer) => {
      const access = await accessOf(writer, user);
      access.demand('write', into, 'folder');
      const folders = await foldersFor(writer, library, into, access, user);
      const taken = await takenNames(writer);
      const texts = wanted.filter(({ what }) => what === 'text');
      const names = new Map<string, string>();
      for (const item of texts.filter((each) => choice(each) === 'keep both')) {
        const name = nameFromTitle(item.name, taken);
        taken.add(name);
        names.set(item.name, name);
      }
      const withRights = await accessOf(writer, user);
      let kept = 0;
      for (const item of texts) {
        const text = library.texts.find(({ file }) => file === item.path);
        if (!text) continue;
        const name = names.get(text.name) ?? text.name;
        const document = renamed(text.document, names, moved, name !== text.name);
        const folder = folders.get(text.folder) ?? into;
        const { tags = [], position = 0 } = library.catalogue.texts[text.name] ?? {};
        if (name === text.name) await takeText(writer, { name, document }, folder, withRights, user);
        else {
          kept += 1;
          await insertText(writer, name, document, { folder, madeBy: user.id });
        }
        if (tags.length > 0 || position > 0) await changeText(writer, name, { tags, position });
        made.push(name);
      }
      if (library.house !== undefined && wanted.some(({ what }) => what === 'house'))
        await takeHouse(writer, houseFromFile(HOUSE, library.house), user);
      await note(
        writer,
        user,
        'imported',
        'catalogue',
        'catalogue',
        `${wanted.length} of ${items.length} files of a library`,
      );
      return { taken: wanted.length - kept, kept, skipped: items.length - wanted.length };
    });
    for (const name of made) await countFindings(this.database, name, user);
    return result;
  }

  /** Files come before texts: they belong to nobody's text yet, and being there changes nothing. @returns new paths */
  private async takeFiles(
    library: Awaited<ReturnType<typeof unpacked>>,
    wanted: readonly LibraryItem[],
    user: User,
  ): Promise<Map<string, string>> {
    const moved = new Map<string, string>();
    for (const { path, name, outcome } of wanted.filter(({ what }) => what === 'asset')) {
      const content = library.assets.get(path) ?? new Uint8Array();
      const kept = await this.assets.add(path, content, outcome === 'new', user).catch((problem: unknown) => {
        if (problem instanceof RequestProblem && problem.status === 409)
          return this.assets.add(name, content, false, user);
        throw problem;
      });
      if (kept.path !== path) moved.set(path, kept.path);
    }
    return moved;
  }
}

/** The path of each folder below another, with a slash behind; of that one itself it is empty. */
function pathsOf(all: readonly Folder[], top: string): Map<string, string> {
  const paths = new Map<string, string>([[top, '']]);
  for (const { id, parent, title } of all) {
    const above = parent === undefined ? undefined : paths.get(parent);
    if (above === undefined || paths.has(id)) continue;
    const taken = new Set([...paths.values()].map((path) => path.slice(above.length).replace(/\/$/, '')));
    paths.set(id, `${above}${nameFromTitle(title === 'assets' ? 'assets folder' : title, taken)}/`);
  }
  return paths;
}

function outcomeOf(row: Row | undefined, document: TextDocument): LibraryItem['outcome'] {
  if (!row || row.binnedAt !== null) return row ? 'changed' : 'new';
  return sameValue(row.document, document) ? 'same' : 'changed';
}

async function assetOf(reader: Reader | Writer, path: string): Promise<Buffer | undefined> {
  const [row] = await reader
    .select({ content: schema.assets.content })
    .from(schema.assets)
    .where(inArray(schema.assets.path, [path]));
  return row && Buffer.from(row.content);
}

/** The folders of a library below the one it goes into: those of the same names are used, the others made. */
async function foldersFor(
  writer: Writer,
  { texts, catalogue }: Library,
  into: string,
  access: Access,
  user: User,
): Promise<Map<string, string>> {
  const ids = new Map<string, string>([['', into]]);
  const known = [...access.folders.values()].map((row) => ({ ...row }));
  const wanted = [...new Set([...Object.keys(catalogue.folders), ...texts.map(({ folder }) => folder)])].sort();
  for (const path of wanted) {
    let parent = into;
    const parts = path.split('/').filter(Boolean);
    for (let depth = 1; depth <= parts.length; depth += 1) {
      const at = parts.slice(0, depth).join('/');
      const done = ids.get(at);
      if (done !== undefined) {
        parent = done;
        continue;
      }
      const { title, position } = catalogue.folders[at] ?? {
        title: titleOf(parts[depth - 1] ?? at),
        position: undefined,
      };
      let row = known.find((each) => each.parent === parent && each.title === title);
      if (!row) {
        access.demand('manage', into, 'folder');
        row = {
          id: crypto.randomUUID(),
          parent,
          title,
          position: position ?? known.filter((each) => each.parent === parent).length,
          owner: access.folders.get(into)?.owner ?? null,
          inherits: true,
          secondPerson: false,
        };
        await addFolder(writer, row);
        await note(writer, user, 'made', 'folder', row.id, title);
        known.push(row);
      }
      ids.set(at, row.id);
      parent = row.id;
    }
  }
  return ids;
}

const titleOf = (path: string): string => {
  const words = path.replace(/-/g, ' ');
  return words.charAt(0).toUpperCase() + words.slice(1);
};
