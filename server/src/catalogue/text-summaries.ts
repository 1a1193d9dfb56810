/** Texts as somebody sees them, or does not. */
import type { TextSummary } from '@vocabula/contract';
import { isName } from '@vocabula/core';
import type { Reader, Writer } from '../db/database.js';
import { notFound } from '../http/problem.js';
import type { User } from '../people/user.js';
import { accessOf, type Access } from '../rights/access.js';
import { rowOf, type Row, type TextHead } from './visible-texts.js';
import { isOffered } from './store.js';

/** The row of a text that the user has a right to. Throws: 404 where they may not see it, else 403. */
export async function demanded(
  reader: Reader | Writer,
  name: string,
  user: User,
  right: 'fill' | 'write' | 'publish' | 'manage',
): Promise<{ readonly row: Row; readonly access: Access }> {
  const row = await rowOf(reader, name);
  const access = await accessOf(reader, user);
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
