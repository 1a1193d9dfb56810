/** Who is signed in where. */
import { randomUUID } from 'node:crypto';
import type { Session } from '@vocabula/contract';
import { and, desc, eq, gt, ne, sql } from 'drizzle-orm';
import { Built } from '../db/built.js';
import { schema, type Database, type Writer } from '../db/database.js';
import type { User } from './user.js';
import { digestOf, newToken } from './secrets.js';
import { nameOfRow } from './names.js';

const DAYS = 30;
/** How old a mark of being seen may get, in milliseconds, before it is written anew. */
const SEEN_EVERY = 5 * 60_000;
export const SESSION_SECONDS = DAYS * 86_400;
const { sessions, people } = schema;

const byToken = new Built((on) =>
  on
    .select({
      session: { id: sessions.id, seenAt: sessions.seenAt },
      person: {
        id: people.id,
        role: people.role,
        address: people.address,
        profile: people.profile,
        endedAt: people.endedAt,
      },
    })
    .from(sessions)
    .innerJoin(people, eq(people.id, sessions.person))
    .where(and(eq(sessions.digest, sql.placeholder('digest')), gt(sessions.endsAt, sql.placeholder('now'))))
    .prepare(),
);

export class SessionService {
  constructor(private readonly database: Database) {}

  /** Signs somebody in. @returns the token, which is kept nowhere but in their browser */
  async begin(person: string, agent: string): Promise<string> {
    const token = newToken();
    await this.database.write((writer) => addSession(writer, person, agent, token));
    return token;
  }

  /** The person a token belongs to; undefined once it has ended, or they have. */
  async user(token: string): Promise<User | undefined> {
    const digest = digestOf(token);
    const now = new Date();
    const [found] = await byToken.on(this.database.read).all({ digest, now: now.toISOString() });
    if (!found || found.person.endedAt !== null) return undefined;
    if (now.getTime() - Date.parse(found.session.seenAt) > SEEN_EVERY)
      await this.database.write((writer) =>
        writer
          .update(sessions)
          .set({ seenAt: now.toISOString(), endsAt: ends(now) })
          .where(eq(sessions.digest, digest)),
      );
    const { id, role, address } = found.person;
    return { id, role, name: nameOfRow(found.person), address: address ?? '', session: found.session.id };
  }

  async list(user: User): Promise<Session[]> {
    const rows = await this.database.read
      .select()
      .from(sessions)
      .where(and(eq(sessions.person, user.id), gt(sessions.endsAt, new Date().toISOString())))
      .orderBy(desc(sessions.seenAt));
    return rows.map(({ id, agent, createdAt, seenAt }) => ({
      id,
      agent,
      createdAt,
      seenAt,
      here: id === user.session,
    }));
  }

  /** Ends one of the user's own sessions. @returns whether there was one */
  async end(id: string, user: User): Promise<boolean> {
    const { rowsAffected } = await this.database.write((writer) =>
      writer.delete(sessions).where(and(eq(sessions.id, id), eq(sessions.person, user.id))),
    );
    return rowsAffected > 0;
  }

  /** Ends all of the user's sessions but the one they came with. */
  async endOthers(user: User): Promise<void> {
    await this.database.write((writer) => endAll(writer, user.id, user.session));
  }
}

const ends = (now: Date): string => new Date(now.getTime() + SESSION_SECONDS * 1000).toISOString();

export async function addSession(writer: Writer, person: string, agent: string, token: string): Promise<void> {
  const now = new Date();
  const at = now.toISOString();
  await writer.insert(sessions).values({
    digest: digestOf(token),
    id: randomUUID(),
    person,
    agent: agent.slice(0, 300),
    createdAt: at,
    seenAt: at,
    endsAt: ends(now),
  });
}

/** Ends the sessions of a person, but for one. */
export async function endAll(writer: Writer, person: string, but = ''): Promise<void> {
  await writer.delete(sessions).where(and(eq(sessions.person, person), ne(sessions.id, but)));
}
