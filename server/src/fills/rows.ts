/** Messages being filled as they are kept, and as they are given out. */
import { randomUUID } from 'node:crypto';
import type { Fill, FillStanding, FillSummary, WorkingCopy } from '@vocabula/contract';
import { PLAIN_HOUSE, type House } from '@vocabula/core';
import { NO_CHANGES } from '@vocabula/core/filling';
import { and, desc, eq, inArray, isNotNull, isNull } from 'drizzle-orm';
import { schema, type Reader, type Writer } from '../db/database.js';
import type { User } from '../people/user.js';
import { textOrHouse } from '../versions/frozen.js';
import type { Begun } from './beginning.js';

export type Row = typeof schema.fills.$inferSelect;

/** Unfinished and handed-over messages are seen by nobody but whose they are. */
export const ownFill = (id: string, user: User) =>
  and(eq(schema.fills.id, id), eq(schema.fills.person, user.id), isNull(schema.fills.binnedAt));

/** What a recipient is called. */
export const nameOfFields = (fields: Readonly<Record<string, string>>): string =>
  [fields.first_name, fields.last_name].filter(Boolean).join(' ') || fields.name || fields.email || '';

/** A message before anything was done with it. @param now ISO */
export const newFill = (begun: Begun, user: Pick<User, 'id'>, recipient: Row['recipient'], now: string): Row => ({
  trial: null,
  ...begun,
  id: randomUUID(),
  person: user.id,
  recipient,
  ...{ answers: {}, offered: {}, confirmed: [], changes: NO_CHANGES },
  ...{ original: null, letter: null, series: null, replyAll: false },
  state: 'unfinished',
  createdAt: now,
  updatedAt: now,
  binnedAt: null,
});

export function summary(row: Row, standing: FillStanding): FillSummary {
  return {
    id: row.id,
    text: row.text,
    title: row.title,
    recipient: nameOfFields(row.recipient),
    state: row.state,
    updatedAt: row.updatedAt,
    version: row.version ?? undefined,
    standing,
    trial: row.trial ?? undefined,
  };
}

/** The texts and the house that a message was begun on. */
export async function frozenOf(
  reader: Reader | Writer,
  { frozen, house }: { readonly frozen: readonly string[]; readonly house: string | null },
): Promise<{ texts: WorkingCopy[]; house: House }> {
  const rows = await reader
    .select()
    .from(schema.frozen)
    .where(inArray(schema.frozen.id, house === null ? [...frozen] : [...frozen, house]));
  const texts = frozen.flatMap((id): WorkingCopy[] => {
    const found = rows.find((each) => each.id === id);
    const state = found && textOrHouse(found.document);
    if (!found || state?.kind !== 'text') return [];
    return [{ name: found.name, revision: found.revision, updatedAt: found.createdAt, document: state.document }];
  });
  const kept = rows.find((each) => each.id === house);
  // Messages begun before there was a house are in the plain one.
  const state = kept && textOrHouse(kept.document);
  return { texts, house: state?.kind === 'house' ? state.document : PLAIN_HOUSE };
}

/** A message whole. */
export async function fillOf(reader: Reader | Writer, row: Row): Promise<Fill> {
  const standing = (await standingsOf(reader, [row])).get(row.id) ?? 'current';
  const { handedOver } = schema;
  const [last] = await reader
    .select({ way: handedOver.way, at: handedOver.at })
    .from(handedOver)
    .where(eq(handedOver.fillId, row.id))
    .orderBy(desc(handedOver.at))
    .limit(1);
  return wholeFill(row, await frozenOf(reader, row), standing, last);
}

/** A message whole, of what is known of it. */
export const wholeFill = (
  row: Row,
  { texts, house }: { readonly texts: readonly WorkingCopy[]; readonly house: House },
  standing: FillStanding = 'current',
  last?: Fill['last'],
  notes: readonly string[] = [],
): Fill => {
  return {
    ...summary(row, standing),
    fields: row.recipient,
    answers: row.answers,
    offered: row.offered,
    confirmed: row.confirmed,
    changes: row.changes,
    original: row.original ?? undefined,
    all: row.replyAll,
    texts: [...texts],
    house,
    signature: row.signature ?? undefined,
    fixed: fixedIn(texts),
    last,
    notes,
  };
};

/** The names of the blocks whose words are not to be changed in a message. */
export const fixedIn = (texts: readonly WorkingCopy[]): string[] => [
  ...new Set(texts.flatMap(({ document }) => document.attrs.front.fixed ?? [])),
];

/** What became of the versions that messages were begun on. A withdrawn block withdraws them as their template would. */
export async function standingsOf(reader: Reader | Writer, rows: readonly Row[]): Promise<Map<string, FillStanding>> {
  const { texts, versions } = schema;
  const found = new Map<string, FillStanding>();
  if (rows.length === 0) return found;
  const names = [...new Set(rows.map((row) => row.text))];
  const current = new Map(
    (
      await reader
        .select({ name: texts.name, published: texts.published })
        .from(texts)
        .where(inArray(texts.name, names))
    ).map((each) => [each.name, each.published]),
  );
  const withdrawn = await reader
    .select({ text: versions.text, number: versions.number, frozen: versions.frozen })
    .from(versions)
    .where(isNotNull(versions.withdrawnAt));
  const running = await runningAmong(reader, rows);
  for (const row of rows) {
    const frozen = new Set(row.frozen);
    const published = current.get(row.text) ?? undefined;
    const gone = withdrawn.some(
      (each) =>
        (each.text === row.text && each.number === row.version) || (each.text !== row.text && frozen.has(each.frozen)),
    );
    if (gone) found.set(row.id, 'withdrawn');
    else if (published !== undefined && row.version !== null && published > row.version && !running.has(row.trial))
      found.set(row.id, 'newer');
    else found.set(row.id, 'current');
  }
  return found;
}

/** The trials that run and gave some of these messages their version: an older one is as it should be. */
async function runningAmong(reader: Reader | Writer, rows: readonly Row[]): Promise<Set<string | null>> {
  const { trials } = schema;
  const ids = [...new Set(rows.flatMap(({ trial }) => trial ?? []))];
  if (ids.length === 0) return new Set();
  const found = await reader
    .select({ id: trials.id })
    .from(trials)
    .where(and(inArray(trials.id, ids), isNull(trials.endedAt)));
  return new Set(found.map(({ id }) => id));
}
