/** Templates that say nearly the same, so that somebody may make one of them. */
import type { AlikeGroup } from '@vocabula/contract';
import { likeness, shinglesOf } from '@vocabula/core';
import { count, isNull } from 'drizzle-orm';
import { schema, type Database } from '../db/database.js';
import type { User } from '../people/user.js';
import { accessOf } from '../rights/access.js';
import { comparedWords } from './text-words.js';

/** How much two must share of their runs of three words. Placeholders count as words. */
const ALIKE = 0.5;
/** Texts of fewer runs say too little to be compared. */
const SHORTEST = 8;
/** A run that more texts have than this says nothing: a greeting, a signing off. */
const COMMON = 40;

export class AlikeService {
  constructor(private readonly database: Database) {}

  /** Groups of texts that the user may write, the most alike first. Compared are those that share an uncommon run. */
  async groups(user: User): Promise<AlikeGroup[]> {
    const { read } = this.database;
    const access = await accessOf(read, user);
    const { texts, fills } = schema;
    const rows = (
      await read
        .select({
          name: texts.name,
          title: texts.title,
          folder: texts.folder,
          document: texts.document,
          retiredAt: texts.retiredAt,
        })
        .from(texts)
        .where(isNull(texts.binnedAt))
    ).filter((row) => row.retiredAt === null && access.may('write', row.folder));
    const used = new Map(
      (await read.select({ text: fills.text, used: count() }).from(fills).groupBy(fills.text)).map((each) => [
        each.text,
        each.used,
      ]),
    );
    const sets = rows.map((row) => shinglesOf(comparedWords(row.document)));
    return groupsOf(sets)
      .map(({ members, least }) => ({
        texts: members
          .map((at) => rows[at])
          .filter((row) => row !== undefined)
          .map(({ name, title }) => ({ name, title, used: used.get(name) ?? 0 }))
          .sort((a, b) => b.used - a.used || a.title.localeCompare(b.title, 'en')),
        likeness: least,
      }))
      .sort((a, b) => b.likeness - a.likeness);
  }
}

/** Groups of two or more by their index: each is alike to another of its group. */
export function groupsOf(sets: readonly ReadonlySet<number>[]): { members: number[]; least: number }[] {
  const holders = new Map<number, number[]>();
  sets.forEach((set, at) => {
    if (set.size < SHORTEST) return;
    for (const shingle of set) {
      const list = holders.get(shingle);
      if (list) list.push(at);
      else holders.set(shingle, [at]);
    }
  });
  const pairs = new Set<string>();
  for (const list of holders.values()) {
    if (list.length > COMMON) continue;
    list.forEach((a, index) => list.slice(index + 1).forEach((b) => pairs.add(`${a} ${b}`)));
  }
  const group = sets.map((_, at) => at);
  const root = (at: number): number => (group[at] === at ? at : (group[at] = root(group[at] ?? at)));
  const least = new Map<number, number>();
  for (const pair of pairs) {
    const [a = 0, b = 0] = pair.split(' ').map(Number);
    const value = likeness(sets[a] ?? new Set(), sets[b] ?? new Set());
    if (value < ALIKE) continue;
    const [x, y] = [root(a), root(b)];
    const lowest = Math.min(value, least.get(x) ?? 1, least.get(y) ?? 1);
    group[y] = x;
    least.set(x, lowest);
  }
  const byRoot = new Map<number, number[]>();
  sets.forEach((_, at) => byRoot.set(root(at), [...(byRoot.get(root(at)) ?? []), at]));
  return [...byRoot].flatMap(([at, members]) => (members.length > 1 ? [{ members, least: least.get(at) ?? 0 }] : []));
}
