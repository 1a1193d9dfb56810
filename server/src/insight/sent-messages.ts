/** Reads sent messages of a text together with the versions they were made from. */
import type { NamedDocument, Program } from '@vocabula/core';
import { mergedChanges, NO_CHANGES, type FillChanges } from '@vocabula/core/filling';
import { and, desc, eq } from 'drizzle-orm';
import { schema, type Reader } from '../db/database.js';
import { programOf } from '../fills/rendering.js';
import { frozenOf } from '../fills/rows.js';
import { inScope, type ReportScope } from './report-scope.js';

const { handedOver, fills, outgoing } = schema;
/** At most this many messages are read, the latest ones: older ones hardly change a share. */
const MAX_MESSAGES = 1000;

/** One message that was handed over. */
export interface SentMessage {
  /** Key of the versions it was made from; messages with the same key share `texts` and `program`. */
  readonly version: string;
  readonly texts: readonly NamedDocument[];
  readonly program: Program;
  /** What was changed by hand before it was sent. */
  readonly changes: FillChanges;
  readonly answers: Readonly<Record<string, unknown>>;
  readonly fields: Readonly<Record<string, string>>;
  /** When it was handed over (ISO 8601, UTC). */
  readonly at: string;
}

/** The latest messages of a text, newest first, at most 1000. Messages whose versions are gone are left out. */
export async function sentMessages(reader: Reader, name: string, scope: ReportScope): Promise<SentMessage[]> {
  const rows = await reader
    .select({
      ...{ answers: handedOver.answers, at: handedOver.at, frozen: fills.frozen, house: fills.house },
      ...{ signature: fills.signature, fields: fills.recipient, changes: fills.changes, own: outgoing.changes },
    })
    .from(handedOver)
    .innerJoin(fills, eq(fills.id, handedOver.fillId))
    .leftJoin(outgoing, eq(outgoing.id, handedOver.outgoing))
    .where(and(eq(handedOver.text, name), inScope(scope)))
    .orderBy(desc(handedOver.at))
    .limit(MAX_MESSAGES);
  const versions = new Map<string, Pick<SentMessage, 'texts' | 'program'> | undefined>();
  const messages: SentMessage[] = [];
  for (const { frozen, house, signature, changes, own, ...row } of rows) {
    const version = `${frozen.join(' ')}/${house}/${signature}`;
    if (!versions.has(version)) versions.set(version, await versionOf(reader, frozen, house, signature));
    const made = versions.get(version);
    if (made) messages.push({ ...row, ...made, version, changes: mergedChanges(changes, own ?? NO_CHANGES) });
  }
  return messages;
}

type Fill = typeof fills.$inferSelect;
async function versionOf(
  reader: Reader,
  frozen: Fill['frozen'],
  house: Fill['house'],
  signature: Fill['signature'],
): Promise<Pick<SentMessage, 'texts' | 'program'> | undefined> {
  const kept = await frozenOf(reader, { frozen, house });
  if (kept.texts.length === 0) return undefined;
  return {
    texts: kept.texts,
    program: programOf({ ...kept, signature: signature ?? undefined, changes: NO_CHANGES }),
  };
}
