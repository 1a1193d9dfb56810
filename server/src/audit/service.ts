/** The audit trail: who did what to which when. Written in the transaction of the act itself; never changed. */
import type { AuditEntry, AuditQuery } from '@vocabula/contract';
import { and, desc, eq, gte, lt, like, or, type SQL } from 'drizzle-orm';
import { schema, type Database, type Writer } from '../db/database.js';
import type { User } from '../people/user.js';

/** What can be done. Words that a reader of the trail understands. */
export type Act =
  | 'signed in'
  | 'failed to sign in'
  | 'signed out'
  | 'set a password'
  | 'invited'
  | 'made a reset link for'
  | 'changed'
  | 'ended'
  | 'took back'
  | 'made'
  | 'granted'
  | 'moved'
  | 'binned'
  | 'restored'
  | 'purged'
  | 'tagged'
  | 'published'
  | 'timed'
  | 'withdrew'
  | 'began a trial of'
  | 'ended a trial of'
  | 'retired'
  | 'offered again'
  | 'asked to publish'
  | 'returned'
  | 'imported'
  | 'exported'
  | 'forgot'
  | 'refused'
  | 'allowed'
  | 'asked for'
  | 'confirmed'
  | 'removed'
  | 'wrote to'
  | 'started'
  | 'stopped';

/** Of what kind it was done to. */
export type Subject =
  | 'person'
  | 'address'
  | 'group'
  | 'folder'
  | 'text'
  | 'house'
  | 'key'
  | 'catalogue'
  | 'table'
  | 'recipient'
  | 'mailing'
  | 'series'
  | 'standing reply'
  | 'webhook'
  | 'workspace';

const { audit } = schema;
const PAGE = 200;

/**
 * Notes an act, inside the transaction that does it, so that neither is there without the other.
 * @param words what the thing is called, and what else to say
 */
export async function note(
  writer: Writer,
  user: Pick<User, 'id' | 'name'>,
  act: Act,
  what: Subject,
  target: string,
  words: string,
): Promise<void> {
  const at = new Date().toISOString();
  await writer.insert(audit).values({ at, who: user.id, whoName: user.name, act, what, target, words });
}

export class AuditService {
  constructor(private readonly database: Database) {}

  /** The newest first, a page at a time. @param query.before the id that the page ends before */
  async list(query: AuditQuery): Promise<AuditEntry[]> {
    return this.database.read
      .select()
      .from(audit)
      .where(and(...conditions(query)))
      .orderBy(desc(audit.id))
      .limit(PAGE);
  }

  /** All that a filter lets through, oldest first, as rows of a table. */
  async all(query: AuditQuery): Promise<AuditEntry[]> {
    return this.database.read
      .select()
      .from(audit)
      .where(and(...conditions({ ...query, before: undefined })))
      .orderBy(audit.id);
  }
}

function conditions({ q, who, what, target, from, until, before }: AuditQuery): SQL[] {
  const conditions: (SQL | undefined)[] = [
    who ? eq(audit.who, who) : undefined,
    what ? eq(audit.what, what) : undefined,
    target ? eq(audit.target, target) : undefined,
    from ? gte(audit.at, from) : undefined,
    // Moments of the day itself come after the day as text.
    until ? lt(audit.at, `${until}U`) : undefined,
    before === undefined ? undefined : lt(audit.id, before),
  ];
  for (const word of q.split(/\s+/).filter(Boolean)) {
    const pattern = `%${word.replace(/[%_]/g, '')}%`;
    conditions.push(
      or(...[audit.whoName, audit.act, audit.words, audit.target].map((column) => like(column, pattern))),
    );
  }
  return conditions.filter((each) => each !== undefined);
}
