/** A person's own row of templates, recalled by digits. */
import type { AtHand } from '@vocabula/contract';
import { and, asc, eq, inArray, isNotNull, isNull } from 'drizzle-orm';
import { schema, type Database } from '../db/database.js';
import type { User } from '../people/user.js';
import { accessOf } from '../rights/access.js';
import type { Row } from './visible-texts.js';

const { atHand, texts } = schema;

export class AtHandService {
  constructor(private readonly database: Database) {}

  /** The row, from the left; what is not offered any more is left out, and back when it is again. */
  async list(user: User): Promise<AtHand[]> {
    const { read } = this.database;
    const rows = await read
      .select({ text: texts })
      .from(atHand)
      .innerJoin(texts, eq(texts.name, atHand.text))
      .where(
        and(
          eq(atHand.person, user.id),
          isNull(texts.binnedAt),
          isNull(texts.retiredAt),
          isNotNull(texts.published),
          eq(texts.kind, 'message'),
        ),
      )
      .orderBy(asc(atHand.position));
    const access = await accessOf(read, user);
    return rows
      .filter(({ text }) => access.may('fill', text.folder))
      .map(({ text }) => ({ name: text.name, ...shownOf(text) }));
  }

  async save(names: readonly string[], user: User): Promise<AtHand[]> {
    const wanted = [...new Set(names)];
    await this.database.write(async (writer) => {
      const known =
        wanted.length === 0
          ? []
          : await writer.select({ name: texts.name }).from(texts).where(inArray(texts.name, wanted));
      const kept = wanted.filter((name) => known.some((each) => each.name === name));
      await writer.delete(atHand).where(eq(atHand.person, user.id));
      if (kept.length > 0)
        await writer.insert(atHand).values(kept.map((text, position) => ({ person: user.id, text, position })));
    });
    return this.list(user);
  }
}

function shownOf(row: Row): Omit<AtHand, 'name'> {
  const { title, subject, call } = row.publishedAs ?? row;
  return { title, subject, call: call ?? undefined };
}
