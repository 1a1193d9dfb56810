/** Which texts need which. */
import { HOUSE_NAME, type Neighbours } from '@vocabula/contract';
import { and, eq, inArray, isNull } from 'drizzle-orm';
import { schema, type Database, type Reader, type Writer } from '../db/database.js';
import { currentHouse } from '../house/house-state.js';
import { notFound } from '../http/problem.js';
import type { User } from '../people/user.js';
import { accessOf, type Access } from '../rights/access.js';
import { rowOf, type Row } from './visible-texts.js';
import { summaryOf } from './text-summaries.js';

const { texts, uses } = schema;
interface UsingText {
  readonly name: string;
  readonly title: string;
  readonly kind: Row['kind'];
}

/** The texts that include a text, as far as the user sees them: in their working copies where they may write. */
export const usersOf = (reader: Reader | Writer, name: string, access: Access): Promise<UsingText[]> =>
  usersOfTarget(reader, 'text', name, access);

async function usersOfTarget(
  reader: Reader | Writer,
  what: 'text' | 'fact',
  target: string,
  access: Access,
): Promise<UsingText[]> {
  const rows = await reader
    .select({ text: texts, state: uses.state })
    .from(uses)
    .innerJoin(texts, eq(texts.name, uses.text))
    .where(and(eq(uses.what, what), eq(uses.target, target), isNull(texts.binnedAt)));
  const found = new Map<string, UsingText>();
  for (const { text, state } of rows) {
    const seen = summaryOf(text, access, '');
    if (seen && (state === 'working') === seen.mayWrite)
      found.set(text.name, { name: text.name, title: seen.title, kind: seen.kind });
  }
  return [...found.values()].sort((a, b) => a.title.localeCompare(b.title, 'en'));
}

/** The names of published templates that depend on a target, through any depth. Says nothing about who may see them. */
export async function dependentsOf(
  reader: Reader | Writer,
  targets: readonly { readonly what: 'text' | 'fact'; readonly target: string }[],
): Promise<string[]> {
  const found = new Set<string>();
  const step = async (what: 'text' | 'fact', wanted: readonly string[]): Promise<string[]> => {
    if (wanted.length === 0) return [];
    const rows = await reader
      .select({ name: uses.text })
      .from(uses)
      .where(and(eq(uses.state, 'published'), eq(uses.what, what), inArray(uses.target, [...wanted])));
    return rows.map(({ name }) => name);
  };
  const of = (what: 'text' | 'fact'): string[] =>
    targets.filter((each) => each.what === what).map(({ target }) => target);
  let wave = [...(await step('text', of('text'))), ...(await step('fact', of('fact')))];
  while (wave.length > 0) {
    const fresh = [...new Set(wave)].filter((name) => !found.has(name));
    for (const name of fresh) found.add(name);
    wave = await step('text', fresh);
  }
  return [...found];
}

export class UseService {
  constructor(private readonly database: Database) {}

  /** A text with what it needs and what needs it, one step both ways. `house.yaml/KEY` is a fact. */
  async neighbours(name: string, user: User): Promise<Neighbours> {
    const { read } = this.database;
    const access = await accessOf(read, user);
    const { facts } = (await currentHouse(read, 'write')).house;
    if (name.startsWith(`${HOUSE_NAME}/`)) {
      const key = name.slice(HOUSE_NAME.length + 1);
      const fact = facts[key];
      if (!fact) throw notFound('fact');
      const usedIn = await usersOfTarget(read, 'fact', key, access);
      return { name, title: fact.variable.label ?? key, kind: 'block', needs: [], usedIn };
    }
    const row = await rowOf(read, name);
    const seen = row && row.binnedAt === null ? summaryOf(row, access, '') : undefined;
    if (!row || !seen) throw notFound('text');
    const needed = await read
      .select()
      .from(uses)
      .where(and(eq(uses.text, name), eq(uses.state, seen.mayWrite ? 'working' : 'published')));
    const needs: { name: string; title: string; kind: Row['kind'] | 'fact' }[] = [];
    for (const { what, target } of needed) {
      if (what === 'asset') continue;
      if (what === 'fact') {
        const fact = facts[target];
        if (fact) needs.push({ name: `${HOUSE_NAME}/${target}`, title: fact.variable.label ?? target, kind: 'fact' });
        continue;
      }
      const other = await rowOf(read, target);
      const known = other && other.binnedAt === null ? summaryOf(other, access, '') : undefined;
      if (known) needs.push({ name: target, title: known.title, kind: known.kind });
    }
    needs.sort((a, b) => a.title.localeCompare(b.title, 'en'));
    return { name, title: seen.title, kind: seen.kind, needs, usedIn: await usersOf(read, name, access) };
  }
}
