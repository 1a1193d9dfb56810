/** Texts as somebody sees them, or does not. */
import type { Right, TextSummary } from '@vocabula/contract';
import { isName } from '@vocabula/core';
import { desc, eq, getTableColumns, sql } from 'drizzle-orm';
import { Built } from '../db/built.js';
import { schema, type Reader, type Writer } from '../db/database.js';
import { notFound } from '../http/problem.js';
import type { User } from '../people/user.js';
import { accessOf, type Access } from '../rights/access.js';
import type { LastCheckpoint } from '../versions/checkpoints.js';
import { rowOf, type Row, type TextHead } from './visible-texts.js';
import { isOffered } from './store.js';

/** The row of a text that the user has a right to. Throws: 404 where they may not see it, else 403. */
export async function demanded(
  reader: Reader | Writer,
  name: string,
  user: User,
  right: Right,
): Promise<{ readonly row: Row; readonly access: Access }> {
  return demandedOf(await rowOf(reader, name), await accessOf(reader, user), name, right);
}

const { texts, checkpoints } = schema;
const withCheckpoint = new Built((on) =>
  on
    .select({ row: getTableColumns(texts), last: { who: checkpoints.who, at: checkpoints.at } })
    .from(texts)
    .leftJoin(checkpoints, eq(checkpoints.text, texts.name))
    .where(eq(texts.name, sql.placeholder('name')))
    .orderBy(desc(checkpoints.at))
    .limit(1)
    .prepare(),
);

/** The same for writing, with when a state of it was kept last. */
export async function demandedWithCheckpoint(
  writer: Writer,
  name: string,
  user: User,
): Promise<{ readonly row: Row; readonly last: LastCheckpoint | undefined }> {
  const found = await withCheckpoint.on(writer).get({ name });
  const { row } = demandedOf(found?.row, await accessOf(writer, user), name, 'write');
  return { row, last: found?.last ?? undefined };
}

function demandedOf(
  row: Row | undefined,
  access: Access,
  name: string,
  right: Right,
): { readonly row: Row; readonly access: Access } {
  if (!row || row.binnedAt !== null || !isName(name)) throw notFound('text');
  // Without the right to write, a text that was never published is nothing to see.
  if (row.published === null && !access.may('write', row.folder)) throw notFound('text');
  access.demand(right, row.folder);
  return { row, access };
}

/** A line of the catalogue as the user sees it; undefined where they see none. */
export function summaryOf(row: TextHead, access: Access, today: string): TextSummary | undefined {
  if (!access.may('fill', row.folder)) return undefined;
  const mayWrite = access.may('write', row.folder);
  if (!mayWrite && (row.published === null || row.binnedAt !== null)) return undefined;
  const seen = mayWrite ? row : { ...row, ...row.publishedAs };
  const changed = row.published !== null && row.publishedRevision !== row.revision;
  return {
    name: row.name,
    kind: row.kind,
    title: seen.title,
    subject: seen.subject,
    call: seen.call ?? undefined,
    locale: seen.locale ?? undefined,
    translationOf: seen.translationOf ?? undefined,
    revision: row.revision,
    updatedAt: row.updatedAt,
    lastUsed: undefined,
    used: 0,
    binned: row.binnedAt !== null,
    folder: row.folder,
    position: row.position,
    tags: row.tags,
    state:
      row.retiredAt !== null
        ? 'retired'
        : row.published === null
          ? row.publishedRevision === null
            ? 'not published'
            : 'withdrawn'
          : changed && mayWrite
            ? 'changed'
            : 'published',
    version: row.published ?? undefined,
    offered: isOffered(row, today),
    mayWrite,
    madeBy: row.madeBy ?? undefined,
    owner: row.owner ?? undefined,
    reviewBy: row.reviewBy ?? undefined,
    validFrom: seen.validFrom ?? undefined,
    validUntil: seen.validUntil ?? undefined,
    findings: mayWrite ? row.findings : undefined,
    replacedBy: row.replacedBy ?? undefined,
  };
}
