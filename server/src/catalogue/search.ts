/** Finding texts by what one types: SQLite's full-text index, tolerant of slips. */
import type { Hit } from '@vocabula/contract';
import { dayIn, fold, near } from '@vocabula/core';
import { and, asc, eq, inArray, isNotNull, isNull, max, sql } from 'drizzle-orm';
import { Kept } from '../db/generation-cache.js';
import { among } from '../db/in-list.js';
import { schema, type Database } from '../db/database.js';
import { usedFor } from '../fills/likely-templates.js';
import type { User } from '../people/user.js';
import { accessOf, type Access } from '../rights/access.js';
import { publishedVersions, type Purpose, type TextHead } from './visible-texts.js';
import { isOffered } from './store.js';
import { opening } from './text-words.js';

/** Fewer hits than this, and words are looked for that are a slip away. */
const FEW = 3;
/** Words of the index that one typed word may stand for. */
const MOST_READINGS = 12;
/** Rows that are ranked; where more match, too little was typed to tell them apart. */
const MOST_CANDIDATES = 400;
/** Hits that a stretch is cut out for. */
const MOST_STRETCHES = 40;
/** So short a word, begun, stands in nearly every text: it is looked for only where texts are named. */
const SHORT = 3;
/** Characters before and after what was found. */
const [BEFORE, AFTER] = [40, 80];
export interface SearchOptions {
  /** `fill` finds templates that can be filled now; `write` all texts, working copies where one may write. */
  readonly purpose: Purpose;
  readonly limit: number;
  /** The address of who is written to. */
  readonly to?: string;
}
interface Found {
  readonly name: string;
  readonly found: Hit['found'];
}
interface Candidate {
  readonly id: number;
  readonly name: string;
  readonly title: string;
  readonly subject: string;
  readonly call: string | null;
}

/** What is read of each text that is found: reading all columns of two hundred takes as long as finding them. */
const { name, kind, title, subject, call, folder, published, publishedAs, retiredAt, binnedAt } = schema.texts;
const SHOWN = { name, kind, title, subject, call, folder, published, publishedAs, retiredAt, binnedAt };
type Shown = Pick<TextHead, keyof typeof SHOWN>;

/** People with the same rights type the same words day after day, a letter at a time. */
const foundToFill = new Kept<Hit[]>(['rights', 'published'], 2000);

export class SearchService {
  constructor(private readonly database: Database) {}

  /**
   * Texts that all typed words are in, best first. The last word may be begun only. What the user may not see is not
   * found.
   */
  async search(query: string, user: User, { purpose, limit, to = '' }: SearchOptions): Promise<Hit[]> {
    const { read } = this.database;
    const words = wordsOf(query);
    const access = await accessOf(read, user);
    if (words.length === 0) return purpose === 'fill' ? this.usual(user, access, limit, to) : [];
    const may = (right: 'fill' | 'write'): string[] => [...access.folders.keys()].filter((id) => access.may(right, id));
    const folders = { seen: may('fill'), written: purpose === 'fill' ? [] : may('write') };
    const find = (): Promise<Hit[]> => this.find(words, access, folders, purpose, limit);
    if (purpose === 'write') return find();
    const key = JSON.stringify([dayIn(new Date(), 'UTC'), limit, words, folders.seen]);
    return foundToFill.get(read, key, find);
  }

  private async find(
    words: readonly string[],
    access: Access,
    folders: { readonly seen: readonly string[]; readonly written: readonly string[] },
    purpose: Purpose,
    limit: number,
  ): Promise<Hit[]> {
    let found = await this.matching(
      words.map((word) => [word]),
      folders,
      purpose,
      limit,
    );
    if (found.length < FEW) {
      const readings = await Promise.all(words.map((word) => this.readings(word)));
      if (readings.some((each) => each.length > 1)) {
        const more = await this.matching(readings, folders, purpose, limit);
        found = [...found, ...more.filter((each) => !found.some(({ name }) => name === each.name))].slice(0, limit);
      }
    }
    return this.hits(found, access.folders, folders.written, purpose);
  }

  /**
   * With nothing typed: what went to this recipient before, what is at hand, what the user used last, then the other
   * templates by their titles.
   */
  private async usual(user: User, access: Access, limit: number, to: string): Promise<Hit[]> {
    const { fills, texts, atHand } = schema;
    const { read } = this.database;
    const before = to === '' ? [] : await usedFor(read, to);
    const near = (
      await read
        .select({ name: atHand.text })
        .from(atHand)
        .where(eq(atHand.person, user.id))
        .orderBy(asc(atHand.position))
    ).map(({ name }) => name);
    const used = await read
      .select({ name: fills.text, last: max(fills.updatedAt) })
      .from(fills)
      .where(eq(fills.person, user.id))
      .groupBy(fills.text);
    const last = new Map(used.map((each) => [each.name, each.last ?? '']));
    const rows = await read
      .select({ name: texts.name, title: texts.title, folder: texts.folder })
      .from(texts)
      .where(
        and(
          inArray(texts.kind, ['message', 'series']),
          isNotNull(texts.published),
          isNull(texts.retiredAt),
          isNull(texts.binnedAt),
        ),
      );
    const first = new Map([...before, ...near].map((name, _at, all) => [name, all.indexOf(name)]));
    const rank = (name: string): number => first.get(name) ?? first.size + 1;
    const found = rows
      .filter(({ folder }) => access.may('fill', folder))
      .sort(
        (a, b) =>
          rank(a.name) - rank(b.name) ||
          (last.get(b.name) ?? '').localeCompare(last.get(a.name) ?? '') ||
          a.title.localeCompare(b.title, 'en'),
      )
      .slice(0, limit)
      .map(({ name }) => ({ name, found: [] }));
    const hits = await this.hits(found, access.folders, [], 'fill');
    return hits.map((hit) => {
      const why = before.includes(hit.name)
        ? 'sent to them before'
        : near.includes(hit.name)
          ? `at hand ${near.indexOf(hit.name) + 1}`
          : last.has(hit.name)
            ? 'used lately'
            : undefined;
      return why ? { ...hit, why } : hit;
    });
  }

  /**
   * What matches, best first, with a stretch of it. Looked for where texts are named, and only where that gives too
   * little in all their words; of very many some are taken. Ranking by the whole index would read all of it at every
   * keystroke.
   */
  private async matching(
    readings: readonly (readonly string[])[],
    { seen, written }: { readonly seen: readonly string[]; readonly written: readonly string[] },
    purpose: Purpose,
    limit: number,
  ): Promise<Found[]> {
    const state =
      purpose === 'fill'
        ? sql`searched.state = 'published' AND texts.kind IN ('message', 'series') AND texts.retired_at IS NULL AND texts.folder IN ${among(seen)}`
        : sql`((searched.state = 'working' AND texts.folder IN ${among(written)})
            OR (searched.state = 'published' AND texts.folder IN ${among(seen)} AND texts.folder NOT IN ${among(written)}))`;
    // `CROSS JOIN` keeps the order: from the words to the texts. With one folder SQLite would begin at the texts.
    const candidates = async (match: string): Promise<Candidate[]> =>
      (
        await this.database.read.values<[number, string, string, string, string | null]>(
          sql`SELECT searched.id, texts.name, texts.title, texts.subject, texts."call"
              FROM search CROSS JOIN searched ON searched.id = search.rowid CROSS JOIN texts ON texts.name = searched.name
              WHERE search MATCH ${match} AND texts.binned_at IS NULL AND ${state} LIMIT ${MOST_CANDIDATES}`,
        )
      ).map(([id, name, title, subject, call]) => ({ id, name, title, subject, call }));
    const named = await candidates(`{title subject call} : (${expression(readings)})`);
    const short = readings.some(([word = '']) => word.length < SHORT);
    const more = named.length >= limit || short ? [] : await candidates(expression(readings));
    const all = new Map([...named, ...more].map((each) => [each.id, each]));
    const best = [...all.values()]
      .map((each) => ({ ...each, points: points(each, readings) }))
      .sort((a, b) => b.points - a.points || a.title.localeCompare(b.title, 'en'))
      .slice(0, limit);
    // As many as a list shows at once.
    const words = await this.wordsOfRows(best.slice(0, MOST_STRETCHES).map(({ id }) => id));
    const wanted = readings.flat();
    return best.map(({ id, name }) => ({ name, found: stretchOf(words.get(id) ?? [], wanted) }));
  }

  /** The indexed words of some rows, the most telling columns last: what the list shows anyway says least. */
  private async wordsOfRows(ids: readonly number[]): Promise<Map<number, readonly string[]>> {
    if (ids.length === 0) return new Map();
    const rows = await this.database.read.values<[number, string, string, string]>(
      sql`SELECT rowid, body, labels, subject FROM search WHERE rowid IN ${among(ids)}`,
    );
    return new Map(rows.map(([id, ...words]) => [id, words]));
  }

  /** Words of the index that a typed word may be meant for: itself, and those a slip away (two in a long one). */
  private async readings(word: string): Promise<string[]> {
    if (word.length < 4) return [word];
    const slips = word.length < 8 ? 1 : 2;
    // A slip is seldom in the first letter; where it is, the second tells.
    const found = new Set<string>([word]);
    for (const letter of new Set([word.charAt(0), word.charAt(1)])) {
      const rows = await this.database.read.values<[string]>(
        sql`SELECT word FROM known_words WHERE word >= ${letter} AND word < ${`${letter}\u{10FFFF}`}
            AND length(word) BETWEEN ${word.length - slips} AND ${word.length + slips + 4}`,
      );
      for (const [known] of rows) {
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
    const names = found.map(({ name }) => name);
    const rows = await this.database.read.select(SHOWN).from(schema.texts).where(inArray(schema.texts.name, names));
    // Only versions from before their first lines were kept are read whole.
    const unknown = purpose === 'fill' ? rows.filter((row) => row.publishedAs?.opening === undefined) : [];
    const published = await publishedVersions(this.database.read, unknown);
    const today = dayIn(new Date(), 'UTC');
    const hit = (row: Shown, stretches: Hit['found']): Hit | undefined => {
      const as = row.publishedAs;
      const own = published.get(row.name);
      if (!folders.has(row.folder) || (purpose === 'fill' && !as)) return undefined;
      const seen = purpose === 'fill' || !written.includes(row.folder) ? { ...row, ...as } : row;
      return {
        name: row.name,
        kind: row.kind,
        title: seen.title,
        subject: seen.subject,
        call: seen.call ?? undefined,
        opening: purpose === 'fill' ? (as?.opening ?? (own ? opening(own.document) : '')) : '',
        found: stretches,
        folder: row.folder,
        offered: isOffered(row, today),
      };
    };
    return found.flatMap(({ name, found: stretches }) => {
      const row = rows.find((each) => each.name === name);
      const made = row && hit(row, stretches);
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

/** How likely it is meant: by its call word, by how its title begins, by its title, its subject, anything. */
function points({ title, subject, call }: Candidate, words: readonly (readonly string[])[]): number {
  const [named, said, word] = [fold(title), fold(subject), fold(call ?? '')];
  return words.reduce((sum, readings) => {
    const of = (each: string): number => {
      if (word !== '' && word === each) return 100;
      if (word !== '' && word.startsWith(each)) return 40;
      if (named.startsWith(each)) return 30;
      if (named.includes(` ${each}`)) return 20;
      return said.includes(each) ? 8 : 2;
    };
    return sum + Math.max(...readings.map(of));
  }, 0);
}

/** The stretch around the first of the words that is found, with all of them marked in it; none where none is. */
function stretchOf(texts: readonly string[], words: readonly string[]): { text: string; hit: boolean }[] {
  const wanted = new RegExp(
    `(?<![\\p{L}\\p{N}])(?:${
      words
        .map((word) => word.replace(/[^\p{L}\p{N}]/gu, ''))
        .filter(Boolean)
        .join('|') || '$^'
    })[\\p{L}\\p{N}]*`,
    'giu',
  );
  for (const text of texts) {
    // Folding may shorten a word; what is cut out is the text as it was written.
    const plain = text.normalize('NFC');
    const bare = /[^\0-\x7F]/.test(plain)
      ? [...plain].map((letter) => (letter < '\x80' ? letter : fold(letter).charAt(0) || letter)).join('')
      : plain;
    const first = bare.length === plain.length ? bare.search(wanted) : -1;
    if (first < 0) continue;
    const [from, to] = [Math.max(0, first - BEFORE), Math.min(plain.length, first + AFTER)];
    const parts: { text: string; hit: boolean }[] = [];
    let at = from;
    for (const match of bare.slice(0, to).matchAll(wanted)) {
      if (match.index < from) continue;
      parts.push({ text: plain.slice(at, match.index), hit: false });
      parts.push({ text: plain.slice(match.index, match.index + match[0].length), hit: true });
      at = match.index + match[0].length;
    }
    parts.push({ text: plain.slice(at, to), hit: false });
    const [head, ...rest] = parts;
    const begun = head && from > 0 ? [{ ...head, text: `…${head.text}` }, ...rest] : parts;
    return begun.map((part) => ({ ...part, text: part.text.replace(/\s+/g, ' ') })).filter((part) => part.text !== '');
  }
  return [];
}
