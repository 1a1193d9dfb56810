/**
 * Which state of a text Fill, live inclusion and search see, for whoever asks. For now the last saved
 * working copy; when texts are published, this function says so, and nothing else changes.
 */
import type { WorkingCopy } from '@vocabula/contract';
import { namesIncluded, type TextDocument } from '@vocabula/core';
import { and, eq, inArray, isNull } from 'drizzle-orm';
import { schema, type Reader, type Writer } from '../db/database.js';
import { currentHouse } from '../house/service.js';
import type { Asker } from '../people/service.js';

export type Row = typeof schema.texts.$inferSelect;

export const workingCopy = (row: Row): WorkingCopy => ({
  name: row.name,
  revision: row.revision,
  updatedAt: row.updatedAt,
  document: JSON.parse(row.document) as TextDocument,
});

/** The states of the named texts that the asker may use; names without one are left out. */
export async function current(
  reader: Reader | Writer,
  names: readonly string[],
  _asker: Asker,
): Promise<WorkingCopy[]> {
  if (names.length === 0) return [];
  const rows = await reader
    .select()
    .from(schema.texts)
    .where(and(inArray(schema.texts.name, [...names]), isNull(schema.texts.binnedAt)));
  return rows.map(workingCopy);
}

/**
 * A text with everything it includes, at any depth, its own first, and with what the house puts around messages; empty
 * if there is none. `more` are texts beside it.
 */
export async function closure(
  reader: Reader | Writer,
  name: string,
  asker: Asker,
  more: readonly string[] = [],
): Promise<WorkingCopy[]> {
  const found = new Map<string, WorkingCopy>();
  const { style } = (await currentHouse(reader, asker)).house;
  let wanted = [name, ...more, ...[style.header, style.footer].filter((each) => each !== undefined)];
  while (wanted.length > 0) {
    const texts = await current(reader, wanted, asker);
    for (const text of texts) found.set(text.name, text);
    wanted = [...new Set(texts.flatMap((text) => namesIncluded(text.document)))].filter((each) => !found.has(each));
  }
  const own = found.get(name);
  return own ? [own, ...[...found.values()].filter((text) => text !== own)] : [];
}

/** The row of a text, binned or not. */
export async function rowOf(reader: Reader | Writer, name: string): Promise<Row | undefined> {
  const [row] = await reader.select().from(schema.texts).where(eq(schema.texts.name, name));
  return row;
}
