/** Finding texts by what one types: SQLite's full-text index, tolerant of slips. */
import type { Hit } from '@vocabula/contract';
import { dayIn, fold, near } from '@vocabula/core';
import { and, eq, getTableColumns, inArray, isNotNull, isNull, max, sql, type SQL } from 'drizzle-orm';
import { schema, type Database } from '../db/database.js';
import type { Asker } from '../people/asker.js';
import { accessOf, type Access } from '../rights/access.js';
import { publishedVersions, type Purpose, type Row } from './current.js';
import { isOffered, publishedAs } from './store.js';
import { opening } from './words.js';

/** Fewer hits than this, and words are looked for that are a slip away. */
const FEW = 3;
/** Words of the index that one typed word may stand for. */
const MOST_READINGS = 12;
/** Marks around what was found; no text holds them. */
const [START, END] = ['\u0002', '\u0003'];
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

  /**
   * The names of what matches, with a stretch of it. The best rows are taken by their rank alone before anything is
   * joined or cut out of them; more are taken only where too few of those may be seen.
   */
  private async matching(
    match: string,
    { seen, written }: { readonly seen: readonly string[]; readonly written: readonly string[] },
    purpose: Purpose,
    limit: number,
    words: readonly string[],
  ): Promise<Found[]> {
    const { read } = this.database;
    const list = (ids: readonly string[]): SQL =>
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
    let rows: { id: number; name: string }[] = [];
    for (let best = Math.max(200, limit * 4); ; best *= 8) {
      rows = await read.all<{ id: number; name: string }>(
        sql`SELECT searched.id AS id, texts.name AS name
            FROM (SELECT rowid AS id, rank AS points FROM search WHERE search MATCH ${match} ORDER BY rank LIMIT ${best}) AS ranked
            JOIN searched ON searched.id = ranked.id JOIN texts ON texts.name = searched.name
            WHERE texts.binned_at IS NULL AND ${state}
            ORDER BY ${called}, ranked.points, texts.title LIMIT ${limit}`,
      );
      if (rows.length >= limit) break;
      const [{ all } = { all: 0 }] = await read.all<{ all: number }>(
        sql`SELECT count(*) AS "all" FROM (SELECT 1 FROM search WHERE search MATCH ${match} LIMIT ${best + 1})`,
      );
      if (all <= best) break;
    }
    if (rows.length === 0) return [];
    const ids = list(rows.map(({ id }) => String(id)));
    const snippets = await read.all<{ id: number; snippet: string }>(
      sql`SELECT rowid AS id, snippet(search, -1, ${START}, ${END}, '…', 14) AS snippet
          FROM search WHERE search MATCH ${match} AND rowid IN ${ids}`,
    );
    const said = new Map(snippets.map(({ id, snippet }) => [id, snippet]));
    return rows.map(({ id, name }) => ({ name, snippet: said.get(id) ?? '' }));
  }

  /** Words of the index that a typed word may be meant for: itself, and those a slip away (two in a long one). */
  private async readings(word: string): Promise<string[]> {
    if (word.length < 4) return [word];
    const slips = word.length < 8 ? 1 : 2;
    // A slip is seldom in the first letter; where it is, the second tells.
    const found = new Set<string>([word]);
    for (const letter of new Set([word.charAt(0), word.charAt(1)])) {
      const rows = await this.database.read.all<{ word: string }>(
        sql`SELECT word FROM known_words WHERE word >= ${letter} AND word < ${`${letter}\u{10FFFF}`}
            AND length(word) BETWEEN ${word.length - slips} AND ${word.length + slips + 4}`,
      );
      for (const { word: known } of rows) {
        // The word may be begun only: its beginning of the same length counts too.
        if (near(word, known, slips) || near(word, known.slice(0, word.length), slips)) found.add(known);
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
    // The first lines are for those who fill; to read them of hundreds would take longer than to find them.
    const { document: _document, ...columns } = getTableColumns(schema.texts);
    const names = found.map(({ name }) => name);
    const rows = (
      await this.database.read.select(columns).from(schema.texts).where(inArray(schema.texts.name, names))
    ).map((row): Row => ({ ...row, document: '' }));
    const published = purpose === 'fill' ? await publishedVersions(this.database.read, rows) : new Map<string, never>();
    const today = dayIn(new Date(), 'UTC');
    const hit = (row: Row, snippet: string): Hit | undefined => {
      const own = published.get(row.name);
      if (!folders.has(row.folder) || (purpose === 'fill' && !own)) return undefined;
      const seen = purpose === 'fill' || !written.includes(row.folder) ? { ...row, ...publishedAs(row) } : row;
      return {
        name: row.name,
        kind: row.kind,
        title: seen.title,
        subject: seen.subject,
        call: seen.call ?? undefined,
        opening: own ? opening(own.document) : '',
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

/** So short a word, begun, stands in nearly every text: it is looked for where texts are named. */
const SHORT = 3;

/** A match for all words, each by any of its readings, begun words included. */
const expression = (words: readonly (readonly string[])[]): string =>
  words
    .map((readings) => {
      const where = (readings[0] ?? '').length < SHORT ? '{title subject call} : ' : '';
      return `(${where}(${readings.map((each) => `"${each.replace(/"/g, '')}"*`).join(' OR ')}))`;
    })
    .join(' AND ');

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
