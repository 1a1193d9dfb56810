/**
 * Which state of a text somebody may use, and for what. Everything that renders, includes or shows texts asks here:
 * what may not be seen is as if it did not exist.
 */
import type { WorkingCopy } from '@vocabula/contract';
import { namesNeeded } from '@vocabula/core';
import { and, eq, getTableColumns, inArray, isNull, sql } from 'drizzle-orm';
import { schema, type Reader, type Writer } from '../db/database.js';
import { among } from '../db/in-list.js';
import { currentHouse } from '../house/house-state.js';
import type { User } from '../people/user.js';
import { accessOf, type Access } from '../rights/access.js';
import { textOrHouse } from '../versions/frozen.js';

export type Row = typeof schema.texts.$inferSelect;
/** A row without its document, which is most of its bytes. */
export type TextHead = Omit<Row, 'document'>;
const { document: _document, ...head } = getTableColumns(schema.texts);
/** The columns of that. */
export const TEXT_HEAD = head;

/**
 * What a text is wanted for. `fill`: what colleagues use, the published version. `write`: what authors work with, which
 * of the text itself is the working copy, and of what it includes the published version or, without one, the working
 * copy where they may write it.
 */
export type Purpose = 'fill' | 'write';

export const workingCopy = (row: Row): WorkingCopy => ({
  name: row.name,
  revision: row.revision,
  updatedAt: row.updatedAt,
  document: row.document,
});

/** The published versions of some rows, by name; a row without one has none. */
export async function publishedVersions(
  reader: Reader | Writer,
  rows: readonly Pick<TextHead, 'name' | 'published'>[],
): Promise<Map<string, WorkingCopy & { readonly version: number }>> {
  const names = rows.filter((row) => row.published !== null).map((row) => row.name);
  const { texts, versions, frozen } = schema;
  const states = await reader
    .select({ version: versions, document: frozen.document })
    .from(versions)
    .innerJoin(texts, and(eq(texts.name, versions.text), eq(texts.published, versions.number)))
    .innerJoin(frozen, eq(frozen.id, versions.frozen))
    .where(sql`${versions.text} IN ${among(names)}`);
  return new Map(
    states.flatMap(({ version, document }) => {
      const state = textOrHouse(document);
      if (state.kind !== 'text') return [];
      const { text: name, revision, at: updatedAt, number } = version;
      return [[name, { name, revision, updatedAt, document: state.document, version: number }] as const];
    }),
  );
}

/** The states of the named texts that may be used; names without one are left out. */
export async function current(
  reader: Reader | Writer,
  names: readonly string[],
  access: Access,
  purpose: Purpose,
): Promise<WorkingCopy[]> {
  if (names.length === 0) return [];
  const rows = (
    await reader
      .select(TEXT_HEAD)
      .from(schema.texts)
      .where(and(inArray(schema.texts.name, [...names]), isNull(schema.texts.binnedAt)))
  ).filter((row) => access.may('fill', row.folder));
  const published = await publishedVersions(reader, rows);
  const written =
    purpose === 'fill' ? [] : rows.filter(({ name, folder }) => !published.has(name) && access.may('write', folder));
  const copies = new Map<string, WorkingCopy>(published);
  if (written.length > 0)
    for (const row of await reader
      .select()
      .from(schema.texts)
      .where(
        inArray(
          schema.texts.name,
          written.map(({ name }) => name),
        ),
      ))
      copies.set(row.name, workingCopy(row));
  return rows.flatMap(({ name }) => copies.get(name) ?? []);
}

/**
 * A text with everything it includes, at any depth, its own first, and with what the house puts around messages; empty
 * if there is none for this purpose. `more` are texts beside it.
 */
export async function closure(
  reader: Reader | Writer,
  name: string,
  user: Pick<User, 'id' | 'role'>,
  purpose: Purpose,
  more: readonly string[] = [],
  access?: Access,
): Promise<WorkingCopy[]> {
  const rights = access ?? (await accessOf(reader, user));
  const own = await ownState(reader, name, rights, purpose);
  return own ? closureOf(reader, own, rights, purpose, more) : [];
}

/** A state of a text with everything it includes, as `closure` gives it. */
export async function closureOf(
  reader: Reader | Writer,
  own: WorkingCopy,
  rights: Access,
  purpose: Purpose,
  more: readonly string[] = [],
): Promise<WorkingCopy[]> {
  const found = new Map<string, WorkingCopy>([[own.name, own]]);
  const { style } = (await currentHouse(reader, purpose)).house;
  let wanted = [
    ...namesNeeded(own.document),
    ...more,
    ...[style.header, style.footer].filter((each) => each !== undefined),
  ].filter((each) => !found.has(each));
  while (wanted.length > 0) {
    const texts = await current(reader, [...new Set(wanted)], rights, purpose);
    for (const text of texts) found.set(text.name, text);
    wanted = texts.flatMap((text) => namesNeeded(text.document)).filter((each) => !found.has(each));
  }
  return [...found.values()];
}

async function ownState(
  reader: Reader | Writer,
  name: string,
  access: Access,
  purpose: Purpose,
): Promise<WorkingCopy | undefined> {
  if (purpose === 'fill') return (await current(reader, [name], access, 'fill'))[0];
  const row = await rowOf(reader, name);
  if (!row || row.binnedAt !== null || !access.may('fill', row.folder)) return undefined;
  return access.may('write', row.folder) ? workingCopy(row) : (await publishedVersions(reader, [row])).get(name);
}

/** The row of a text without its document, binned or not. Says nothing about who may see it. */
export async function headOf(reader: Reader | Writer, name: string): Promise<TextHead | undefined> {
  const [row] = await reader.select(TEXT_HEAD).from(schema.texts).where(eq(schema.texts.name, name));
  return row;
}

/** The row of a text, binned or not. Says nothing about who may see it. */
export async function rowOf(reader: Reader | Writer, name: string): Promise<Row | undefined> {
  const [row] = await reader.select().from(schema.texts).where(eq(schema.texts.name, name));
  return row;
}
