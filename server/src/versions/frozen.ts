/** Documents as they were, in rows that nothing changes. */
import { createHash, randomUUID } from 'node:crypto';
import type { House, TextDocument } from '@vocabula/core';
import { and, eq, sql } from 'drizzle-orm';
import { schema, type Reader, type Writer } from '../db/database.js';
import { among } from '../db/in-list.js';

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
export type TextOrHouse =
  { readonly kind: 'text'; readonly document: TextDocument } | { readonly kind: 'house'; readonly document: House };

/** A frozen document, with what it is of. */
export const textOrHouse = (document: TextDocument | House): TextOrHouse =>
  'type' in document ? { kind: 'text', document } : { kind: 'house', document };

export type FrozenRow = typeof frozen.$inferSelect;

/** The rows with these ids, by id. */
export async function thawed(reader: Reader | Writer, ids: readonly string[]): Promise<Map<string, FrozenRow>> {
  const rows = await reader
    .select()
    .from(frozen)
    .where(sql`${frozen.id} IN ${among(ids)}`);
  return new Map(rows.map((row) => [row.id, row]));
}
