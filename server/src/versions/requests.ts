/** Requests to publish: from who may write but not publish, to who may. */
import { randomUUID } from 'node:crypto';
import { type Answer, type Ask, type Request } from '@vocabula/contract';
import { and, desc, eq } from 'drizzle-orm';
import { note } from '../audit/service.js';
import { schema, type Database, type Reader, type Writer } from '../db/database.js';
import { notFound, RequestProblem } from '../http/problem.js';
import type { User } from '../people/user.js';
import { freeze } from './frozen.js';
import { demandPublishable, frozenState, publishState, subjectOf } from './publishing.js';

const { requests } = schema;
type Row = typeof requests.$inferSelect;

export class RequestService {
  constructor(private readonly database: Database) {}

  /** Asks for the working copy to be published; an open request for the same text is taken back by it. */
  ask(name: string, { revision, note: words, report }: Ask, user: User): Promise<Request> {
    return this.database.write(async (writer) => {
      const subject = await subjectOf(writer, name, user);
      if (!subject.mayWrite) throw new RequestProblem(403, 'not-allowed', 'This is for those who may write it.');
      if (subject.revision !== revision)
        throw new RequestProblem(409, 'stale-revision', `“${subject.title}” was changed meanwhile. Look at it again.`);
      await writer
        .update(requests)
        .set({ state: 'taken back' })
        .where(and(eq(requests.text, name), eq(requests.state, 'open')));
      const row: Row = {
        id: randomUUID(),
        text: name,
        frozen: await freeze(writer, subject),
        revision,
        note: words,
        report,
        who: user.id,
        whoName: user.name,
        at: new Date().toISOString(),
        state: 'open',
        answeredBy: null,
        answeredAt: null,
        remark: null,
      };
      await writer.insert(requests).values(row);
      await note(writer, user, 'asked to publish', subject.kind, name, `${subject.title}: ${words}`);
      return requestOf(row, subject.title, user);
    });
  }

  /** Open requests that the user can answer, and all that are their own and not yet over. */
  async list(user: User): Promise<Request[]> {
    const { read } = this.database;
    const rows = await read.select().from(requests).orderBy(desc(requests.at)).limit(1000);
    const found: Request[] = [];
    for (const row of rows) {
      const mine = row.who === user.id && (row.state === 'open' || row.state === 'returned');
      if (!mine && row.state !== 'open') continue;
      const subject = await subjectOf(read, row.text, user).catch(() => undefined);
      if (!subject || !(mine || subject.mayPublish)) continue;
      // What was returned has been dealt with once a later version is out.
      if (row.state === 'returned' && (subject.publishedRevision ?? 0) >= row.revision) continue;
      found.push(requestOf(row, subject.title, user));
    }
    return found;
  }

  /** Publishes what was asked for, as it was when it was asked for; or returns it with a remark. */
  answer(id: string, answer: Answer, user: User): Promise<Request> {
    return this.database.write(async (writer) => {
      const [row] = await writer.select().from(requests).where(eq(requests.id, id));
      if (!row) throw notFound('request');
      const subject = await subjectOf(writer, row.text, user).catch(() => {
        throw notFound('request');
      });
      if (!subject.mayPublish && row.who !== user.id) throw notFound('request');
      if (row.state !== 'open') throw new RequestProblem(409, 'answered', 'This request has been answered already.');
      if (answer.answer === 'accept') {
        const state = { ...subject, ...(await frozenState(writer, row.frozen)), revision: row.revision };
        await demandPublishable(writer, state, user);
        await publishState(writer, state, `${row.note} (asked for by ${row.whoName})`, user);
      } else {
        if (!subject.mayPublish) throw new RequestProblem(403, 'not-allowed', 'This is for those who may publish it.');
        await note(writer, user, 'returned', subject.kind, row.text, `${subject.title}: ${answer.remark}`);
      }
      const changed: Row = {
        ...row,
        state: answer.answer === 'accept' ? 'accepted' : 'returned',
        answeredBy: user.name,
        answeredAt: new Date().toISOString(),
        remark: answer.answer === 'return' ? answer.remark : null,
      };
      await writer.update(requests).set(changed).where(eq(requests.id, id));
      return requestOf(changed, subject.title, user);
    });
  }

  /** Takes one's own request back. */
  takeBack(id: string, user: User): Promise<void> {
    return this.database.write(async (writer) => {
      const { rowsAffected } = await writer
        .update(requests)
        .set({ state: 'taken back' })
        .where(and(eq(requests.id, id), eq(requests.who, user.id)));
      if (rowsAffected === 0) throw notFound('request');
    });
  }
}

/** The requests for one text, the last first. */
export async function requestsOf(reader: Reader | Writer, name: string, user: User): Promise<Request[]> {
  const rows = await reader.select().from(requests).where(eq(requests.text, name)).orderBy(desc(requests.at)).limit(20);
  const { title } = await subjectOf(reader, name, user);
  return rows.filter((row) => row.state !== 'taken back').map((row) => requestOf(row, title, user));
}

const requestOf = (row: Row, title: string, user: User): Request => ({
  id: row.id,
  text: row.text,
  title,
  revision: row.revision,
  note: row.note,
  report: row.report,
  who: row.whoName,
  mine: row.who === user.id,
  at: row.at,
  state: row.state,
  remark: row.remark ?? undefined,
  answeredBy: row.answeredBy ?? undefined,
});

/** Takes the requests of a text that is purged. */
export async function removeRequests(writer: Writer, text: string): Promise<void> {
  await writer.delete(schema.requests).where(eq(schema.requests.text, text));
}
