/** Versions of texts and of the house: published now or at a time, compared, restored, withdrawn, retired. */
import { randomUUID } from 'node:crypto';
import {
  type Because,
  type CheckpointReason,
  type Publish,
  type RestoreState,
  type Retire,
  type SentFrom,
  type Standing,
  type State,
  type Timed,
  type Version,
  type WorkingCopy,
} from '@vocabula/contract';
import type { Finding } from '@vocabula/core';
import { and, asc, count, desc, eq, isNull, lte } from 'drizzle-orm';
import { note } from '../audit/service.js';
import { workingCopy } from '../catalogue/visible-texts.js';
import { demanded } from '../catalogue/text-summaries.js';
import { changeText, updateText } from '../catalogue/store.js';
import { schema, type Database, type Reader, type Writer } from '../db/database.js';
import { keepHouse } from '../house/service.js';
import { notFound, RequestProblem } from '../http/problem.js';
import type { User } from '../people/user.js';
import { userOfRow } from '../people/names.js';
import { checkpoint, checkpointsOf, forgetOld } from './checkpoints.js';
import { freeze } from './frozen.js';
import {
  demandPublishable,
  frozenState,
  obstacles,
  publishState,
  subjectOf,
  withdraw,
  type Subject,
} from './publishing.js';
import { requestsOf } from './requests.js';

const { versions, timed, fills, handedOver, remarks, people } = schema;

export class VersionService {
  constructor(private readonly database: Database) {}

  async standing(name: string, user: User): Promise<Standing> {
    const { read } = this.database;
    const subject = await subjectOf(read, name, user);
    const all = await versionsOf(read, name);
    const { row } = subject;
    const [open] = await read
      .select({ remarks: count() })
      .from(remarks)
      .where(and(eq(remarks.text, name), isNull(remarks.settledAt)));
    const inside = subject.mayWrite;
    return {
      name,
      title: subject.title,
      revision: subject.revision,
      published: all.find((each) => each.number === subject.published),
      changed: subject.publishedRevision !== subject.revision || subject.published === undefined,
      versions: all,
      checkpoints: inside ? await checkpointsOf(read, name) : [],
      timed: inside ? await timedOf(read, name) : [],
      requests: inside ? await requestsOf(read, name, user) : [],
      openRemarks: inside ? (open?.remarks ?? 0) : 0,
      retired: row?.retiredAt ? { at: row.retiredAt, replacedBy: row.replacedBy ?? undefined } : undefined,
      mayPublish: subject.mayPublish,
      mayWrite: inside,
      whyNot: subject.whyNot,
    };
  }

  /** What the checker says of the working copy, and what would stop its publishing. */
  async findings(name: string, user: User): Promise<Finding[]> {
    const { read } = this.database;
    const subject = await subjectOf(read, name, user);
    demandWrite(subject);
    return obstacles(read, subject, user);
  }

  /** Publishes the working copy, now or at a time. Throws: 409 on another revision, 422 with errors. */
  publish(name: string, { revision, note: words, at }: Publish, user: User): Promise<{ version: number | undefined }> {
    return this.database.write(async (writer) => {
      const subject = await subjectOf(writer, name, user);
      if (subject.revision !== revision)
        throw new RequestProblem(409, 'stale-revision', `“${subject.title}” was changed meanwhile. Look at it again.`);
      await demandPublishable(writer, subject, user);
      if (at === undefined) {
        await takeBackTimed(writer, name);
        return { version: await publishState(writer, subject, words, user) };
      }
      const due = new Date(at).toISOString();
      if (due <= new Date().toISOString())
        throw new RequestProblem(422, 'past', 'That moment has passed. Choose a later one, or publish now.');
      await takeBackTimed(writer, name);
      await writer.insert(timed).values({
        id: randomUUID(),
        text: name,
        frozen: await freeze(writer, subject),
        revision,
        note: words,
        who: user.id,
        due,
        state: 'waiting',
      });
      await note(writer, user, 'timed', subject.kind, name, `${subject.title} for ${due}: ${words}`);
      return { version: undefined };
    });
  }

  /** Takes a timed publishing back before it is due, or one that was stopped off the list. */
  takeBack(name: string, id: string, user: User): Promise<void> {
    return this.database.write(async (writer) => {
      const subject = await subjectOf(writer, name, user);
      demandPublish(subject);
      const { rowsAffected } = await writer
        .update(timed)
        .set({ state: 'taken back' })
        .where(and(eq(timed.id, id), eq(timed.text, name)));
      if (rowsAffected === 0) throw notFound('time');
      await note(writer, user, 'took back', subject.kind, name, `${subject.title}: publishing at a time`);
    });
  }

  withdraw(name: string, number: number, { because }: Because, user: User): Promise<void> {
    return this.database.write(async (writer) => {
      const subject = await subjectOf(writer, name, user);
      demandPublish(subject);
      await withdraw(writer, subject, number, because, user);
    });
  }

  /** No longer offered, kept for history; or offered again. */
  retire(name: string, retire: Retire | undefined, user: User): Promise<void> {
    return this.database.write(async (writer) => {
      const { row } = await demanded(writer, name, user, 'publish');
      if (retire?.replacedBy !== undefined) {
        if (retire.replacedBy === name) throw new RequestProblem(422, 'loop', 'It cannot take its own place.');
        await demanded(writer, retire.replacedBy, user, 'fill');
      }
      const retiredAt = retire ? new Date().toISOString() : null;
      await changeText(writer, name, { retiredAt, replacedBy: retire?.replacedBy ?? null });
      const words = retire?.replacedBy ? `${row.title}, replaced by ${retire.replacedBy}` : row.title;
      await note(writer, user, retire ? 'retired' : 'offered again', 'text', name, words);
    });
  }

  /** A state of history: `working`, `version:N` or `checkpoint:ID`. */
  async state(name: string, state: string, user: User): Promise<State> {
    const { read } = this.database;
    const subject = await subjectOf(read, name, user);
    if (state === 'working') {
      demandWrite(subject);
      const at = subject.row?.updatedAt ?? new Date().toISOString();
      return { state, document: subject.document, at };
    }
    const found = await stateOf(read, subject, state);
    return { state, document: (await frozenState(read, found.frozen)).document, at: found.at };
  }

  /** Makes a state of history the working copy; the one there was is kept as a checkpoint. */
  restore(name: string, { state, revision }: RestoreState, user: User): Promise<WorkingCopy | { revision: number }> {
    return this.database.write(async (writer) => {
      const subject = await subjectOf(writer, name, user);
      demandWrite(subject);
      if (subject.revision !== revision)
        throw new RequestProblem(409, 'stale-revision', `“${subject.title}” was changed meanwhile. Look at it again.`);
      const before = await frozenState(writer, (await stateOf(writer, subject, state)).frozen);
      await note(
        writer,
        user,
        'restored',
        subject.kind,
        name,
        `${subject.title} as it was in ${state.replace(':', ' ')}`,
      );
      if (before.kind === 'house') {
        const { revision: next } = await keepHouse(writer, before.document, user);
        return { revision: next };
      }
      if (subject.kind === 'house') throw notFound('state');
      await checkpoint(writer, subject.row, 'restore', user);
      return workingCopy(await updateText(writer, subject.row, before.document, user));
    });
  }

  /** Keeps the state a text is in, before something large is done to it. */
  checkpoint(name: string, reason: CheckpointReason, user: User): Promise<void> {
    return this.database.write(async (writer) => {
      const { row } = await demanded(writer, name, user, 'write');
      await checkpoint(writer, row, reason, user);
    });
  }

  /** The messages that were handed over from a version. */
  async sentFrom(name: string, number: number, user: User): Promise<SentFrom[]> {
    const { read } = this.database;
    const subject = await subjectOf(read, name, user);
    demandWrite(subject);
    const rows = await read
      .select({ at: handedOver.at, subject: handedOver.subject, recipients: handedOver.recipients, person: people })
      .from(handedOver)
      .innerJoin(fills, eq(fills.id, handedOver.fillId))
      .leftJoin(people, eq(people.id, fills.person))
      .where(and(eq(fills.text, name), eq(fills.version, number)))
      .orderBy(desc(handedOver.at))
      .limit(1000);
    return rows.map(({ at, subject: words, recipients, person }) => ({
      at,
      who: person ? userOfRow(person).name : 'somebody',
      recipients: recipients,
      subject: words,
    }));
  }

  /**
   * Publishes what is due, and lets old checkpoints go. Whichever process comes first does it: what is due is claimed in
   * the transaction that publishes it.
   */
  async tick(now = new Date()): Promise<number> {
    const due = await this.database.read
      .select({ id: timed.id })
      .from(timed)
      .where(and(eq(timed.state, 'waiting'), lte(timed.due, now.toISOString())))
      .orderBy(asc(timed.due));
    let published = 0;
    for (const { id } of due) if (await this.database.write((writer) => publishDue(writer, id))) published += 1;
    return published;
  }

  forgetOld(): Promise<void> {
    return this.database.write((writer) => forgetOld(writer));
  }
}

/** Publishes one that is due, as who asked for it. What then stands against it stops it, in words. */
async function publishDue(writer: Writer, id: string): Promise<boolean> {
  const [row] = await writer
    .select()
    .from(timed)
    .where(and(eq(timed.id, id), eq(timed.state, 'waiting')));
  if (!row) return false;
  const [person] = await writer.select().from(people).where(eq(people.id, row.who));
  const end = (state: 'done' | 'stopped', words?: string): Promise<unknown> =>
    writer
      .update(timed)
      .set({ state, words: words ?? null })
      .where(eq(timed.id, id));
  try {
    if (!person || person.endedAt !== null) throw new RequestProblem(403, 'not-allowed', 'Who asked for it is gone.');
    const user = userOfRow(person);
    const subject = await subjectOf(writer, row.text, user);
    const state = { ...subject, ...(await frozenState(writer, row.frozen)), revision: row.revision };
    // As it was asked for, whatever was written since; so whoever wrote since does not matter either.
    await demandPublishable(writer, { ...state, mayPublish: subject.mayPublish || subject.whyNot !== undefined }, user);
    await publishState(writer, state, row.note, user);
    await end('done');
    return true;
  } catch (problem) {
    if (!(problem instanceof RequestProblem)) throw problem;
    await end('stopped', problem.message);
    return false;
  }
}

const takeBackTimed = (writer: Writer, name: string): Promise<unknown> =>
  writer
    .update(timed)
    .set({ state: 'taken back' })
    .where(and(eq(timed.text, name), eq(timed.state, 'waiting')));

function demandPublish({ mayPublish, whyNot }: Subject): void {
  // A second person is needed for making versions, not for taking them out of use.
  if (!mayPublish && whyNot === undefined)
    throw new RequestProblem(403, 'not-allowed', 'This is for those who may publish it.');
}
function demandWrite({ mayWrite }: Subject): void {
  if (!mayWrite) throw new RequestProblem(403, 'not-allowed', 'This is for those who may write it.');
}

async function stateOf(
  reader: Reader | Writer,
  subject: Subject,
  state: string,
): Promise<{ readonly frozen: string; readonly at: string }> {
  const [kind = '', which = ''] = state.split(':');
  if (kind === 'version') {
    const [row] = await reader
      .select()
      .from(versions)
      .where(and(eq(versions.text, subject.name), eq(versions.number, Number(which) || 0)));
    // Without the right to write, only what colleagues use is to be seen.
    if (row && (subject.mayWrite || row.number === subject.published)) return row;
  }
  if (kind === 'checkpoint' && subject.mayWrite) {
    const { checkpoints } = schema;
    const [row] = await reader
      .select()
      .from(checkpoints)
      .where(and(eq(checkpoints.text, subject.name), eq(checkpoints.id, which)));
    if (row) return row;
  }
  throw notFound('state');
}

async function versionsOf(reader: Reader | Writer, name: string): Promise<Version[]> {
  const rows = await reader.select().from(versions).where(eq(versions.text, name)).orderBy(desc(versions.number));
  const sent = await reader
    .select({ version: fills.version, sent: count() })
    .from(handedOver)
    .innerJoin(fills, eq(fills.id, handedOver.fillId))
    .where(eq(fills.text, name))
    .groupBy(fills.version);
  return rows.map((row) => ({
    number: row.number,
    note: row.note,
    who: row.whoName,
    at: row.at,
    withdrawn: row.withdrawnAt
      ? { at: row.withdrawnAt, by: row.withdrawnBy ?? '', because: row.withdrawnBecause ?? '' }
      : undefined,
    sent: sent.find((each) => each.version === row.number)?.sent ?? 0,
  }));
}

async function timedOf(reader: Reader | Writer, name: string): Promise<Timed[]> {
  const rows = await reader
    .select({ timed, person: people })
    .from(timed)
    .leftJoin(people, eq(people.id, timed.who))
    .where(eq(timed.text, name))
    .orderBy(asc(timed.due));
  return rows.flatMap(({ timed: { id, note: words, due, state, words: why }, person }) =>
    state === 'waiting' || state === 'stopped'
      ? [{ id, note: words, who: person ? userOfRow(person).name : 'somebody', due, state, words: why ?? undefined }]
      : [],
  );
}

/** Takes the versions that were to be made of a text that is purged. */
export async function removeTimed(writer: Writer, text: string): Promise<void> {
  await writer.delete(schema.timed).where(eq(schema.timed.text, text));
}
