/** Groups of people, to whom rights are given together. */
import { randomUUID } from 'node:crypto';
import type { Group, SaveGroup } from '@vocabula/contract';
import { eq } from 'drizzle-orm';
import { note } from '../audit/service.js';
import { schema, type Database, type Writer } from '../db/database.js';
import { notFound } from '../http/problem.js';
import { dropHolder } from '../rights/store.js';
import type { User } from './user.js';

const { groups, members, people } = schema;

export class GroupService {
  constructor(private readonly database: Database) {}

  async list(): Promise<Group[]> {
    const { read } = this.database;
    const rows = await read.select().from(members);
    return (await read.select().from(groups))
      .map(({ id, title }) => ({
        id,
        title,
        members: rows.filter((row) => row.group === id).map((row) => row.person),
      }))
      .sort((a, b) => a.title.localeCompare(b.title, 'en'));
  }

  /** Makes a group, or changes one. @param id none for a new one */
  save(id: string | undefined, { title, members: wanted }: SaveGroup, user: User): Promise<Group> {
    return this.database.write(async (writer) => {
      const group = await saveGroup(writer, id, title, wanted);
      const words = `${title}: ${group.members.length} people`;
      await note(writer, user, id === undefined ? 'made' : 'changed', 'group', group.id, words);
      return group;
    });
  }

  remove(id: string, user: User): Promise<void> {
    return this.database.write(async (writer) => {
      const [row] = await writer.select().from(groups).where(eq(groups.id, id));
      if (!row) throw notFound('group');
      await dropHolder(writer, `group:${id}`);
      await writer.delete(members).where(eq(members.group, id));
      await writer.delete(groups).where(eq(groups.id, id));
      await note(writer, user, 'ended', 'group', id, row.title);
    });
  }
}

/** Makes a group, or changes one. People who are not known are left out. @throws RequestProblem 404 for an unknown group */
export async function saveGroup(
  writer: Writer,
  id: string | undefined,
  title: string,
  wanted: readonly string[],
): Promise<Group> {
  const group = id ?? randomUUID();
  if (id === undefined) await writer.insert(groups).values({ id: group, title });
  else {
    const { rowsAffected } = await writer.update(groups).set({ title }).where(eq(groups.id, id));
    if (rowsAffected === 0) throw notFound('group');
  }
  const known = new Set((await writer.select({ id: people.id }).from(people)).map((row) => row.id));
  const kept = [...new Set(wanted)].filter((person) => known.has(person));
  await writer.delete(members).where(eq(members.group, group));
  if (kept.length > 0) await writer.insert(members).values(kept.map((person) => ({ group, person })));
  return { id: group, title, members: kept };
}
