/** Finding texts by what one types: SQLite's full-text index, tolerant of slips. */
import type { Hit } from '@vocabula/contract';
import { dayIn, fold, near, type TextDocument } from '@vocabula/core';
import { and, eq, inArray, isNotNull, isNull, max, sql } from 'drizzle-orm';
import { schema, type Database } from '../db/database.js';
import type { Asker } from '../people/asker.js';
import { accessOf, type Access } from '../rights/access.js';
import { publishedVersions, workingCopy, type Purpose, type Row } from './current.js';
import { isOffered, publishedAs } from './store.js';
import { opening } from './words.js';

/** Fewer hits than this, and words are looked for that are a slip away. */
const FEW = 3;
/** Words of the index that one typed word may stand for. */
const MOST_READINGS = 12;
/** Marks around what was found; no text holds them. */
const [START, END] = ['\u0002', '\u0003'];
/** How much a hit counts by its column: title, subject, call word, labels, body. */
const WEIGHTS = sql.raw('10.0, 5.0, 12.0, 2.0, 1.0');

export interface SearchOptions {
  /** `fill` finds templates that can be filled now; `write` all texts, working copies where one may write. */
  readonly purpose: Purpose;
  readonly limit: number;
}
interface Found {
  readonly name: string;
  readonly snippet: string;
}

export class SearchService {
  constructor(private readonly database: Database) {}

  /**
   * Texts that all typed words are in, best first. The last word may be begun only. What the asker may not see is not
   * found.
   */
  async search(query: string, asker: Asker, { purpose, limit }: SearchOptions): Promise<Hit[]> {
    const { read } = this.database;
    const words = wordsOf(query);
    const access = await accessOf(read, asker);
    if (words.length === 0) return purpose === 'fill' ? this.usual(asker, access, limit) : [];
    const may = (right: 'fill' | 'write'): string[] => [...access.folders.keys()].filter((id) => access.may(right, id));
    const folders = { seen: may('fill'), written: purpose === 'fill' ? [] : may('write') };
    let found = await this.matching(expression(words.map((word) => [word])), folders, purpose, limit, words);
    if (found.length < FEW) {
      const readings = await Promise.all(words.map((word) => this.readings(word)));
      if (readings.some((each) => each.length > 1)) {
        const more = await this.matching(expression(readings), folders, purpose, limit, words);
        found = [...found, ...more.filter((each) => !found.some(({ name }) => name === each.name))].slice(0, limit);
      }
    }
    return this.hits(found, access.folders, folders.written, purpose);
  }

  /** With nothing typed: what the asker used last, then the other templates by their titles. */
  private async usual(asker: Asker, access: Access, limit: number): Promise<Hit[]> {
    const { fills, texts } = schema;
    const { read } = this.database;
    const used = await read
      .select({ name: fills.text, last: max(fills.updatedAt) })
      .from(fills)
      .where(eq(fills.person, asker.id))
      .groupBy(fills.text);
    const last = new Map(used.map((each) => [each.name, each.last ?? '']));
    const rows = await read
      .select({ name: texts.name, title: texts.title, folder: texts.folder })
      .from(texts)
      .where(
        and(eq(texts.kind, 'message'), isNotNull(texts.published), isNull(texts.retiredAt), isNull(texts.binnedAt)),
      );
    const found = rows
      .filter(({ folder }) => access.may('fill', folder))
      .sort(
        (a, b) =>
          (last.get(b.name) ?? '').localeCompare(last.get(a.name) ?? '') || a.title.localeCompare(b.title, 'en'),
      )
      .slice(0, limit)
      .map(({ name }) => ({ name, snippet: '' }));
    return this.hits(found, access.folders, [], 'fill');
  }

  private async matching(
    match: string,
    { seen, written }: { readonly seen: readonly string[]; readonly written: readonly string[] },
    purpose: Purpose,
    limit: number,
    words: readonly string[],
  ): Promise<Found[]> {
    const list = (ids: readonly string[]) =>
      ids.length > 0
        ? sql`(${sql.join(
            ids.map((id) => sql`${id}`),
            sql`, `,
          )})`
        : sql`('')`;
    const state =
      purpose === 'fill'
        ? sql`searched.state = 'published' AND texts.kind = 'message' AND texts.retired_at IS NULL AND texts.folder IN ${list(seen)}`
        : sql`((searched.state = 'working' AND texts.folder IN ${list(written)}) OR (searched.state = 'published' AND texts.folder IN ${list(seen)} AND texts.folder NOT IN ${list(written)}))`;
    // A call word typed whole comes before everything, one that is begun before all but that.
    const typed = words.join(' ');
    const called = sql`(CASE WHEN lower(texts."call") = ${typed} THEN 0 WHEN substr(lower(texts."call"), 1, ${typed.length}) = ${typed} THEN 1 ELSE 2 END)`;
    return this.database.read.all<Found>(
      sql`SELECT texts.name AS name, snippet(search, -1, ${START}, ${END}, '…', 14) AS snippet
          FROM search JOIN searched ON searched.id = search.rowid JOIN texts ON texts.name = searched.name
          WHERE search MATCH ${match} AND texts.binned_at IS NULL AND ${state}
          ORDER BY ${called}, bm25(search, ${WEIGHTS}), texts.title LIMIT ${limit}`,
    );
  }

  /** Words of the index that a typed word may be meant for: itself, and those a slip away (two in a long one). */
  private async readings(word: string): Promise<string[]> {
    if (word.length < 4) return [word];
    const slips = word.length < 8 ? 1 : 2;
    // A slip is seldom in the first letter; where it is, the second tells.
    const first = [...new Set([word.charAt(0), word.charAt(1)])];
    const found = new Set<string>([word]);
    for (const letter of first) {
      const rows = await this.database.read.all<{ term: string }>(
        sql`SELECT term FROM search_words WHERE term >= ${letter} AND term < ${`${letter}\u{10FFFF}`}
            AND length(term) BETWEEN ${word.length - slips} AND ${word.length + slips + 4}`,
      );
      for (const { term } of rows) {
        // The word may be begun only: its beginning of the same length counts too.
        if (near(word, term, slips) || near(word, term.slice(0, word.length), slips)) found.add(term);
        if (found.size >= MOST_READINGS) break;
      }
    }
    return [...found];
  }

  private async hits(
    found: readonly Found[],
    folders: ReadonlyMap<string, unknown>,
    written: readonly string[],
    purpose: Purpose,
  ): Promise<Hit[]> {
    if (found.length === 0) return [];
    const rows = await this.database.read
      .select()
      .from(schema.texts)
      .where(
        inArray(
          schema.texts.name,
          found.map(({ name }) => name),
        ),
      );
    const asPublished = rows.filter((row) => purpose === 'fill' || !written.includes(row.folder));
    const published = await publishedVersions(this.database.read, asPublished);
    const today = dayIn(new Date(), 'UTC');
    const hit = (row: Row, snippet: string): Hit | undefined => {
      const own = asPublished.includes(row) ? published.get(row.name) : workingCopy(row);
      if (!own || !folders.has(row.folder)) return undefined;
      const seen = asPublished.includes(row) ? { ...row, ...publishedAs(row) } : row;
      return {
        name: row.name,
        kind: row.kind,
        title: seen.title,
        subject: seen.subject,
        call: seen.call ?? undefined,
        opening: opening(own.document as TextDocument),
        found: stretches(snippet),
        folder: row.folder,
        offered: isOffered(row, today),
      };
    };
    return found.flatMap(({ name, snippet }) => {
      const row = rows.find((each) => each.name === name);
      const made = row && hit(row, snippet);
      return made && (purpose === 'write' || made.offered) ? [made] : [];
    });
  }
}

/** The words of a query, as the index has them. */
const wordsOf = (query: string): string[] =>
  fold(query)
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean)
    .slice(0, 12);

/** A match for all words, each by any of its readings, begun words included. */
const expression = (words: readonly (readonly string[])[]): string =>
  words.map((readings) => `(${readings.map((each) => `"${each.replace(/"/g, '')}"*`).join(' OR ')})`).join(' AND ');

function stretches(snippet: string): { text: string; hit: boolean }[] {
  return snippet
    .replace(/\s+/g, ' ')
    .split(START)
    .flatMap((piece, index) => {
      if (index === 0) return [{ text: piece, hit: false }];
      const [hit = '', rest = ''] = piece.split(END);
      return [
        { text: hit, hit: true },
        { text: rest, hit: false },
      ];
    })
    .filter(({ text }) => text !== '');
}
