/** Folders: made, moved, ordered, granted, taken away. */
import { randomUUID } from 'node:crypto';
import type { ChangeFolder, Folder, FolderRights, Grant, MakeFolder, Right } from '@vocabula/contract';
import { and, count, eq, isNull } from 'drizzle-orm';
import { note } from '../audit/service.js';
import { schema, type Database, type Reader, type Writer } from '../db/database.js';
import { RequestProblem } from '../http/problem.js';
import type { User } from '../people/user.js';
import { accessOf, type Access } from './access.js';
import { addFolder, changeFolder, removeFolder, setGrants } from './store.js';
import { moveTexts } from '../catalogue/store.js';

const { folders, grants, texts, people, groups } = schema;
type Row = typeof folders.$inferSelect;
/** How deep folders nest. */
const DEEPEST = 12;

export class FolderService {
  constructor(private readonly database: Database) {}

  /** The folders the user sees, in order, each after the one it is in. */
  async list(user: User): Promise<Folder[]> {
    const access = await accessOf(this.database.read, user);
    const seen = [...access.folders.values()].filter(({ id }) => access.may('fill', id) || leadsTo(access, id));
    const below = (parent: string | null): Row[] =>
      seen
        .filter((row) => row.parent === parent)
        .sort(
          (a, b) =>
            Number(a.owner !== null) - Number(b.owner !== null) ||
            a.position - b.position ||
            a.title.localeCompare(b.title, 'en'),
        )
        .flatMap((row) => [row, ...below(row.id)]);
    return below(null).map((row) => ({
      id: row.id,
      parent: row.parent ?? undefined,
      title: row.title,
      right: access.may('fill', row.id) ? (access.right(row.id) as Right) : 'fill',
      own: row.owner !== null,
      secondPerson: row.secondPerson,
    }));
  }

  make({ parent, title }: MakeFolder, user: User): Promise<Folder> {
    return this.database.write(async (writer) => {
      const access = await accessOf(writer, user);
      access.demand('manage', parent, 'folder');
      if (depthOf(access, parent) >= DEEPEST)
        throw new RequestProblem(422, 'too-deep', `Folders nest ${DEEPEST} deep at most.`);
      const neighbours = [...access.folders.values()].filter((row) => row.parent === parent);
      const row: Row = {
        id: randomUUID(),
        parent,
        title,
        position: neighbours.length,
        owner: access.folders.get(parent)?.owner ?? null,
        inherits: true,
        secondPerson: access.folders.get(parent)?.secondPerson ?? false,
      };
      await addFolder(writer, row);
      await note(writer, user, 'made', 'folder', row.id, title);
      return { id: row.id, parent, title, right: 'manage', own: row.owner !== null, secondPerson: row.secondPerson };
    });
  }

  async rights(id: string, user: User): Promise<FolderRights> {
    const { read } = this.database;
    const access = await accessOf(read, user);
    access.demand('manage', id, 'folder');
    return rightsOf(read, access, id);
  }

  change(id: string, change: ChangeFolder, user: User): Promise<void> {
    return this.database.write(async (writer) => {
      const access = await accessOf(writer, user);
      access.demand('manage', id, 'folder');
      const row = access.folders.get(id) as Row;
      const fixed = row.parent === null;
      if (fixed && (change.parent !== undefined || change.position !== undefined))
        throw new RequestProblem(422, 'fixed', `“${row.title}” stays where it is.`);
      if (row.owner !== null && (change.grants !== undefined || change.inherits === false))
        throw new RequestProblem(422, 'private', 'A private folder is nobody else’s. Move what others should have.');
      if (change.parent !== undefined) await moveInto(writer, access, row, change.parent);
      const { title, position, inherits, secondPerson } = change;
      const changed = {
        ...(title === undefined ? {} : { title }),
        ...(inherits === undefined || fixed ? {} : { inherits }),
        ...(secondPerson === undefined ? {} : { secondPerson }),
      };
      await changeFolder(writer, id, changed);
      if (position !== undefined) await placeAt(writer, id, change.parent ?? row.parent, position);
      if (change.grants) await grant(writer, id, change.grants);
      await note(
        writer,
        user,
        change.grants ? 'granted' : change.parent === undefined ? 'changed' : 'moved',
        'folder',
        id,
        await inWords(writer, row, change),
      );
    });
  }

  /** Takes an empty folder away. */
  remove(id: string, user: User): Promise<void> {
    return this.database.write(async (writer) => {
      const access = await accessOf(writer, user);
      access.demand('manage', id, 'folder');
      const row = access.folders.get(id) as Row;
      if (row.parent === null) throw new RequestProblem(422, 'fixed', `“${row.title}” stays.`);
      const [inside] = await writer.select({ texts: count() }).from(texts).where(eq(texts.folder, id));
      const [kept] = await writer
        .select({ texts: count() })
        .from(texts)
        .where(and(eq(texts.folder, id), isNull(texts.binnedAt)));
      const holds = [...access.folders.values()].some((each) => each.parent === id);
      if (holds || (kept?.texts ?? 0) > 0)
        throw new RequestProblem(422, 'not-empty', `“${row.title}” is not empty. Move or bin what is in it first.`);
      // What is in the bin goes to the folder above, so that it can still be restored.
      if ((inside?.texts ?? 0) > 0) await moveTexts(writer, id, row.parent);
      await removeFolder(writer, id);
      await note(writer, user, 'ended', 'folder', id, row.title);
    });
  }
}

/** Whether a folder has one below it that may be seen: then it is shown, so that the way there can be. */
const leadsTo = (access: Access, id: string): boolean =>
  [...access.folders.values()].some(
    (row) => row.parent === id && row.owner === null && (access.may('fill', row.id) || leadsTo(access, row.id)),
  );

function depthOf(access: Access, id: string): number {
  let depth = 0;
  for (let at = access.folders.get(id); at?.parent && depth <= DEEPEST; at = access.folders.get(at.parent)) depth += 1;
  return depth;
}

async function rightsOf(reader: Reader | Writer, access: Access, id: string): Promise<FolderRights> {
  const row = access.folders.get(id) as Row;
  const rows = await reader.select().from(grants);
  const of = (folder: string): Grant[] =>
    rows.filter((each) => each.folder === folder).map(({ holder, right }) => ({ holder, right }));
  const inherited: Grant[] = [];
  let at: Row | undefined = row;
  while (at?.parent && at.inherits) {
    at = access.folders.get(at.parent);
    if (at) inherited.push(...of(at.id));
  }
  return { inherits: row.inherits, secondPerson: row.secondPerson, grants: of(id), inherited };
}

async function moveInto(writer: Writer, access: Access, row: Row, parent: string): Promise<void> {
  access.demand('manage', parent, 'folder');
  for (let at = access.folders.get(parent); at; at = at.parent === null ? undefined : access.folders.get(at.parent))
    if (at.id === row.id) throw new RequestProblem(422, 'loop', 'A folder cannot be put into itself.');
  if (depthOf(access, parent) >= DEEPEST)
    throw new RequestProblem(422, 'too-deep', `Folders nest ${DEEPEST} deep at most.`);
  const owner = access.folders.get(parent)?.owner ?? null;
  await changeFolder(writer, row.id, { parent });
  const belongTo = async (id: string): Promise<void> => {
    await changeFolder(writer, id, { owner });
    for (const each of access.folders.values()) if (each.parent === id) await belongTo(each.id);
  };
  if (owner !== row.owner) await belongTo(row.id);
}

async function placeAt(writer: Writer, id: string, parent: string | null, position: number): Promise<void> {
  if (parent === null) return;
  const rows = (await writer.select().from(folders).where(eq(folders.parent, parent)))
    .filter((row) => row.id !== id)
    .sort((a, b) => a.position - b.position || a.title.localeCompare(b.title, 'en'))
    .map((row) => row.id);
  rows.splice(position, 0, id);
  for (const [at, each] of rows.entries()) await changeFolder(writer, each, { position: at });
}

async function grant(writer: Writer, folder: string, wanted: readonly Grant[]): Promise<void> {
  const known = new Set<string>([
    'everyone',
    'authors',
    ...(await writer.select({ id: people.id }).from(people)).map(({ id }) => `person:${id}`),
    ...(await writer.select({ id: groups.id }).from(groups)).map(({ id }) => `group:${id}`),
  ]);
  const given = new Map(wanted.filter(({ holder }) => known.has(holder)).map(({ holder, right }) => [holder, right]));
  await setGrants(writer, folder, given);
}

async function inWords(
  writer: Writer,
  row: Row,
  { title, parent, grants: given, inherits, secondPerson }: ChangeFolder,
): Promise<string> {
  const names = new Map<string, string>([
    ...(await writer.select().from(groups)).map((each) => [`group:${each.id}`, each.title] as const),
    ...(await writer.select({ id: people.id, address: people.address }).from(people)).map(
      (each) => [`person:${each.id}`, each.address ?? each.id] as const,
    ),
  ]);
  const parts = [
    title === undefined || title === row.title ? '' : `now “${title}”`,
    parent === undefined ? '' : 'to another folder',
    inherits === undefined || inherits === row.inherits ? '' : inherits ? 'inherits' : 'stands apart',
    secondPerson === undefined || secondPerson === row.secondPerson
      ? ''
      : secondPerson
        ? 'needs a second person'
        : 'needs no second person',
    given
      ? given.map(({ holder, right }) => `${names.get(holder) ?? holder} may ${right}`).join(', ') || 'nothing'
      : '',
  ].filter(Boolean);
  return parts.length > 0 ? `${row.title}: ${parts.join('; ')}` : row.title;
}
