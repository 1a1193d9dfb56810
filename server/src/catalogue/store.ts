/** Rows of texts, and what is derived from their documents: search, uses, columns. Always written together. */
import { beyondBounds, fold, neededBy, sameValue, type TextDocument } from '@vocabula/core';
import { and, eq, sql } from 'drizzle-orm';
import { schema, type Reader, type Writer } from '../db/database.js';
import { Built } from '../db/built.js';
import { among } from '../db/in-list.js';
import { RequestProblem } from '../http/problem.js';
import type { User } from '../people/user.js';
import { rowOf, type Row, type TextHead } from './visible-texts.js';
import { opening, searchedWords, subjectWords, type SearchedWords } from './text-words.js';

const { texts, uses, searched } = schema;
type PublishedAs = NonNullable<TextHead['publishedAs']>;
export type KeptState = 'working' | 'published';

export function frontOf(document: TextDocument): PublishedAs {
  const { title, call, locale, translation_of, valid_from, valid_until } = document.attrs.front;
  return {
    title,
    subject: subjectWords(document),
    ...(call ? { call } : {}),
    ...(locale ? { locale } : {}),
    ...(translation_of ? { translationOf: translation_of } : {}),
    ...(valid_from ? { validFrom: valid_from } : {}),
    ...(valid_until ? { validUntil: valid_until } : {}),
    opening: opening(document),
  };
}

/** Whether messages can be begun on a text on a day. */
export function isOffered(
  row: Pick<TextHead, 'kind' | 'published' | 'publishedAs' | 'retiredAt' | 'binnedAt'>,
  today: string,
): boolean {
  if (
    (row.kind !== 'message' && row.kind !== 'series') ||
    row.published === null ||
    row.retiredAt !== null ||
    row.binnedAt !== null
  )
    return false;
  const { validFrom, validUntil } = row.publishedAs ?? {};
  return (validFrom ?? today) <= today && today <= (validUntil ?? today);
}

type Derived = Pick<
  Row,
  | 'kind'
  | 'title'
  | 'subject'
  | 'call'
  | 'locale'
  | 'translationOf'
  | 'document'
  | 'owner'
  | 'reviewBy'
  | 'validFrom'
  | 'validUntil'
>;

const derivedFrom = (document: TextDocument): Derived => {
  const { front } = document.attrs;
  return {
    kind: front.kind,
    title: front.title,
    subject: subjectWords(document),
    call: front.call || null,
    locale: front.locale ?? null,
    translationOf: front.translation_of ?? null,
    document,
    owner: front.owner ?? null,
    reviewBy: front.review_by ?? null,
    validFrom: front.valid_from ?? null,
    validUntil: front.valid_until ?? null,
  };
};

/** Names that no new text gets: of those there are, and of those that were purged, whose history hangs on their names. */
export async function takenNames(reader: Reader | Writer): Promise<Set<string>> {
  const { purgedNames } = schema;
  const [there, purged] = [
    await reader.select({ name: texts.name }).from(texts),
    await reader.select({ name: purgedNames.name }).from(purgedNames),
  ];
  return new Set([...there, ...purged].map(({ name }) => name));
}

/** Whether a text of that name was purged, so that the name is given to no other. */
export async function isPurged(reader: Reader | Writer, name: string): Promise<boolean> {
  const { purgedNames } = schema;
  return (await reader.select().from(purgedNames).where(eq(purgedNames.name, name))).length > 0;
}

function demandBounded(document: TextDocument): void {
  const beyond = beyondBounds(document);
  if (beyond !== undefined) throw new RequestProblem(422, 'too-large', beyond);
}

/** Adds a text. Throws 422 for one beyond the bounds. */
export async function insertText(
  writer: Writer,
  name: string,
  document: TextDocument,
  { folder, madeBy, position = 0 }: { readonly folder: string; readonly madeBy: string; readonly position?: number },
): Promise<Row> {
  demandBounded(document);
  const row = {
    name,
    ...derivedFrom(document),
    revision: 1,
    updatedAt: new Date().toISOString(),
    folder,
    madeBy,
    position,
    writtenBy: [madeBy],
  };
  await writer.insert(texts).values(row);
  await derive(writer, name, 'working', document);
  return (await rowOf(writer, name)) as Row;
}

/** What a save writes; none of those that are JSON is ever null, since placeholders do not tell null from a value there. */
const SAVED = [
  'kind',
  'title',
  'subject',
  'call',
  'locale',
  'translationOf',
  'document',
  'owner',
  'reviewBy',
  'validFrom',
  'validUntil',
  'revision',
  'updatedAt',
  'binnedAt',
  'writtenBy',
] as const satisfies readonly (keyof Row)[];
const savedText = new Built((on) =>
  on
    .update(texts)
    .set(Object.fromEntries(SAVED.map((column) => [column, sql.placeholder(column)])))
    .where(eq(texts.name, sql.placeholder('name')))
    .prepare(),
);

/** Puts a document in the place of a working copy. */
export async function updateText(writer: Writer, old: Row, document: TextDocument, by: Pick<User, 'id'>): Promise<Row> {
  demandBounded(document);
  const changed: Pick<Row, (typeof SAVED)[number]> = {
    ...derivedFrom(document),
    revision: old.revision + 1,
    updatedAt: new Date().toISOString(),
    binnedAt: null,
    writtenBy: [...new Set([...old.writtenBy, by.id])],
  };
  await savedText.on(writer).run({ ...changed, name: old.name });
  await deriveAgain(writer, old.name, old.document, document);
  return { ...old, ...changed };
}

/** Makes a state of a text searchable, and keeps what it needs. */
export async function derive(writer: Writer, name: string, state: KeptState, document: TextDocument): Promise<void> {
  await underive(writer, name, state);
  await insertUses(writer, usesOf(name, state, document));
  const [row] = await writer.insert(searched).values({ name, state }).returning({ id: searched.id });
  const words = searchedWords(document);
  const { title, subject, call, labels, body } = words;
  await writer.run(
    sql`INSERT INTO search (rowid, title, subject, "call", labels, body) VALUES (${row?.id ?? 0}, ${title}, ${subject}, ${call}, ${labels}, ${body})`,
  );
  await addKnownWords(writer, wordsIn(words));
}

/** Derives a working copy's next state from the one before, writing only what differs. */
async function deriveAgain(writer: Writer, name: string, before: TextDocument, document: TextDocument): Promise<void> {
  const [wereUsed, used] = [usesOf(name, 'working', before), usesOf(name, 'working', document)];
  if (!sameValue(wereUsed, used)) {
    await writer.delete(uses).where(and(eq(uses.text, name), eq(uses.state, 'working')));
    await insertUses(writer, used);
  }
  const [had, words] = [searchedWords(before), searchedWords(document)];
  if (sameValue(had, words)) return;
  const { title, subject, call, labels, body } = words;
  await writer.run(
    sql`UPDATE search SET title = ${title}, subject = ${subject}, "call" = ${call}, labels = ${labels}, body = ${body} WHERE rowid = (SELECT id FROM searched WHERE name = ${name} AND state = 'working')`,
  );
  const known = new Set(wordsIn(had));
  await addKnownWords(
    writer,
    wordsIn(words).filter((word) => !known.has(word)),
  );
}

function usesOf(name: string, state: KeptState, document: TextDocument): (typeof uses.$inferInsert)[] {
  const needed = neededBy(document);
  return [
    ...needed.texts.map((target) => ({ text: name, state, what: 'text' as const, target })),
    ...needed.facts.map((target) => ({ text: name, state, what: 'fact' as const, target })),
    ...needed.assets.map((target) => ({ text: name, state, what: 'asset' as const, target })),
  ];
}

async function insertUses(writer: Writer, rows: readonly (typeof uses.$inferInsert)[]): Promise<void> {
  if (rows.length > 0) await writer.insert(uses).values([...rows]);
}

async function addKnownWords(writer: Writer, words: readonly string[]): Promise<void> {
  if (words.length > 0)
    await writer.run(
      sql`INSERT INTO known_words (word) SELECT value FROM ${among(words)} WHERE true ON CONFLICT DO NOTHING`,
    );
}

/** The different words of a text as somebody types them, the long and the very short left out. */
const wordsIn = (words: SearchedWords): string[] => [
  ...new Set(
    fold(Object.values(words).join(' '))
      .split(/[^\p{L}\p{N}]+/u)
      .filter((word) => word.length >= 3 && word.length <= 40),
  ),
];

/** Forgets what was derived from a state of a text. */
export async function underive(writer: Writer, name: string, state: KeptState): Promise<void> {
  await writer.delete(uses).where(and(eq(uses.text, name), eq(uses.state, state)));
  const rows = await writer
    .delete(searched)
    .where(and(eq(searched.name, name), eq(searched.state, state)))
    .returning({ id: searched.id });
  for (const { id } of rows) await writer.run(sql`DELETE FROM search WHERE rowid = ${id}`);
}

/** Throws where a call word is taken by another text. Who has it is not said: the user may not see that text. */
export async function callWordIsFree(reader: Reader | Writer, name: string, document: TextDocument): Promise<void> {
  const { call } = document.attrs.front;
  if (call === undefined || call === '') return;
  const others = await reader.select().from(texts).where(eq(texts.call, call));
  if (others.some((other) => other.name !== name && other.binnedAt === null))
    throw new RequestProblem(422, 'duplicate-key', `The call word “${call}” is taken by another text.`);
}

/** What is written of a text apart from its document: where it stands, what became of it. */
export type TextFields = Partial<
  Omit<TextHead, 'name' | 'kind' | 'title' | 'subject' | 'call' | 'locale' | 'translationOf' | 'revision'>
>;
export async function changeText(writer: Writer, name: string, changed: TextFields): Promise<void> {
  await writer.update(texts).set(changed).where(eq(texts.name, name));
}
/** Moves all texts of a folder into another. */
export async function moveTexts(writer: Writer, from: string, into: string): Promise<void> {
  await writer.update(texts).set({ folder: into }).where(eq(texts.folder, from));
}
/** Takes a text away for good. Its name is given to no other. */
export async function removeText(writer: Writer, name: string): Promise<void> {
  for (const state of ['working', 'published'] as const) await underive(writer, name, state);
  await writer.delete(texts).where(eq(texts.name, name));
  await writer.insert(schema.purgedNames).values({ name, at: new Date().toISOString() }).onConflictDoNothing();
}
