/** Which state of the house is used for what. */
import type { StoredHouse } from '@vocabula/contract';
import { HOUSE_NAME } from '@vocabula/contract';
import { PLAIN_HOUSE } from '@vocabula/core';
import { and, eq } from 'drizzle-orm';
import { schema, type Reader, type Writer } from '../db/database.js';
import { textOrHouse } from '../versions/frozen.js';

export const HOUSE_ID = 'house';

export type HouseRow = typeof schema.houses.$inferSelect;
export async function houseRow(reader: Reader | Writer): Promise<HouseRow | undefined> {
  const [row] = await reader.select().from(schema.houses).where(eq(schema.houses.id, HOUSE_ID));
  return row;
}

/**
 * The house: for filling as it was published, for writing its working copy. Before it was first published, messages are
 * in the plain one.
 */
export async function currentHouse(reader: Reader | Writer, purpose: 'fill' | 'write'): Promise<StoredHouse> {
  const row = await houseRow(reader);
  if (!row) return { house: PLAIN_HOUSE, revision: 0, updatedAt: undefined };
  const version = row.published ?? undefined;
  if (purpose === 'write') return { house: row.house, revision: row.revision, updatedAt: row.updatedAt, version };
  if (version === undefined) return { house: PLAIN_HOUSE, revision: 0, updatedAt: undefined };
  const { versions, frozen } = schema;
  const [found] = await reader
    .select({ document: frozen.document, revision: versions.revision, at: versions.at })
    .from(versions)
    .innerJoin(frozen, eq(frozen.id, versions.frozen))
    .where(and(eq(versions.text, HOUSE_NAME), eq(versions.number, version)));
  const state = found && textOrHouse(found.document);
  return found && state?.kind === 'house'
    ? { house: state.document, revision: found.revision, updatedAt: found.at, version }
    : { house: PLAIN_HOUSE, revision: 0, updatedAt: undefined };
}

/** Puts this in the place of the working copy. */
export async function putHouse(
  writer: Writer,
  row: Pick<HouseRow, 'house' | 'revision' | 'updatedAt' | 'writtenBy'>,
): Promise<void> {
  await writer
    .insert(schema.houses)
    .values({ id: HOUSE_ID, ...row })
    .onConflictDoUpdate({ target: schema.houses.id, set: row });
}
/** Says what became of the house. */
export async function changeHouse(
  writer: Writer,
  changed: Partial<Pick<HouseRow, 'published' | 'publishedRevision' | 'writtenBy'>>,
): Promise<void> {
  await writer.update(schema.houses).set(changed).where(eq(schema.houses.id, HOUSE_ID));
}
