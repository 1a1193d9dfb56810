/** Documents as they were, in rows that nothing changes. */
import { createHash, randomUUID } from 'node:crypto';
import { HOUSE_NAME } from '@vocabula/contract';
import type { House, TextDocument } from '@vocabula/core';
import { and, eq, inArray } from 'drizzle-orm';
import { schema, type Reader, type Writer } from '../db/database.js';

const { frozen } = schema;

export interface Named {
  readonly name: string;
  readonly revision: number;
  readonly document: TextDocument | House;
}

/** Keeps one state of a text or of the house; the same state is kept once. @returns its id */
export async function freeze(writer: Writer, { name, revision, document }: Named): Promise<string> {
  const digest = createHash('sha256').update(JSON.stringify(document)).digest('hex');
  const [known] = await writer
    .select({ id: frozen.id })
    .from(frozen)
    .where(and(eq(frozen.name, name), eq(frozen.digest, digest)));
  if (known) return known.id;
  const id = randomUUID();
  await writer.insert(frozen).values({ id, name, revision, digest, document, createdAt: new Date().toISOString() });
  return id;
}

/** A state of a text or of the house. */
export type KindedState =
  { readonly kind: 'text'; readonly document: TextDocument } | { readonly kind: 'house'; readonly document: House };

/** The state that a kept document is of. */
export const kindedState = (document: TextDocument | House): KindedState =>
  'type' in document ? { kind: 'text', document } : { kind: 'house', document };

/** The kind of what has that name. */
export const kindOf = (name: string): KindedState['kind'] => (name === HOUSE_NAME ? 'house' : 'text');

export type FrozenRow = typeof frozen.$inferSelect;

/** The rows with these ids, by id. */
export async function thawed(reader: Reader | Writer, ids: readonly string[]): Promise<Map<string, FrozenRow>> {
  const found = new Map<string, FrozenRow>();
  // SQLite takes so many parameters at once.
  for (let at = 0; at < ids.length; at += 500) {
    const rows = await reader
      .select()
      .from(frozen)
      .where(inArray(frozen.id, ids.slice(at, at + 500)));
    for (const row of rows) found.set(row.id, row);
  }
  return found;
}
