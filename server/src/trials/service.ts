/** Trials: begun, looked at as often as one likes, and ended with one version for everybody. */
import { randomUUID } from 'node:crypto';
import type { EndTrial, StartTrial, Trial } from '@vocabula/contract';
import { and, desc, eq } from 'drizzle-orm';
import { note } from '../audit/service.js';
import { schema, type Database, type Reader, type Writer } from '../db/database.js';
import { notFound, RequestProblem } from '../http/problem.js';
import type { User } from '../people/user.js';
import { demandPublishable, frozenState, publishState, subjectOf, type Subject } from '../versions/publishing.js';
import { trialOf } from './results.js';
import { addTrial, endTrialOf, runningTrial, type TrialRow } from './store.js';

const { trials, versions } = schema;

export class TrialService {
  constructor(private readonly database: Database) {}

  /** The trials of a text, the latest first. */
  async list(name: string, user: User): Promise<Trial[]> {
    const { read } = this.database;
    const subject = await writable(read, name, user);
    const rows = await read.select().from(trials).where(eq(trials.text, name)).orderBy(desc(trials.startedAt));
    return Promise.all(rows.map((row) => trialOf(read, row, mayChoose(subject))));
  }

  /** Begins a trial. Throws words: 409 while another one runs, 422 for versions that cannot be tried. */
  async start(name: string, { arms, outcome, matters }: StartTrial, user: User): Promise<Trial> {
    const begun = await this.database.write(async (writer) => {
      const subject = await writable(writer, name, user);
      demandMayChoose(subject);
      if (subject.published === undefined || !arms.some(({ version }) => version === subject.published))
        throw new RequestProblem(422, 'not-in-use', 'One of the versions must be the one that is in use.');
      const known = new Map(
        (await writer.select().from(versions).where(eq(versions.text, name))).map((row) => [row.number, row]),
      );
      for (const { version } of arms) {
        const row = known.get(version);
        if (!row) throw notFound('version');
        if (row.withdrawnAt !== null)
          throw new RequestProblem(422, 'withdrawn', `Version ${version} was withdrawn, so nobody may get it.`);
      }
      if (await runningTrial(writer, name))
        throw new RequestProblem(409, 'running', 'There is a trial of this text already. End it first.');
      const row: TrialRow = {
        ...{ id: randomUUID(), text: name, arms, outcome, matters },
        ...{ startedAt: new Date().toISOString(), who: user.id, whoName: user.name },
        ...{ endedAt: null, endedBecause: null },
      };
      await addTrial(writer, row);
      const which = arms.map(({ version }) => version).join(', ');
      await note(writer, user, 'began a trial of', 'text', name, `${subject.title}, versions ${which}`);
      return row;
    });
    return trialOf(this.database.read, begun, true);
  }

  /** Ends a trial, and publishes one of its versions again where that is not the one in use. */
  async end(name: string, id: string, { publish }: EndTrial, user: User): Promise<Trial> {
    await this.database.write(async (writer) => {
      const subject = await writable(writer, name, user);
      demandMayChoose(subject);
      const running = await runningTrial(writer, name);
      if (running?.id !== id) {
        const [known] = await writer.select().from(trials).where(idOf(id, name));
        if (!known) throw notFound('trial');
        throw new RequestProblem(409, 'ended', 'This trial has ended already.');
      }
      if (publish !== undefined && !running.arms.some(({ version }) => version === publish)) throw notFound('version');
      await endTrialOf(
        writer,
        name,
        publish === undefined ? `ended by ${user.name}` : `version ${publish} chosen by ${user.name}`,
      );
      await note(writer, user, 'ended a trial of', 'text', name, subject.title);
      if (publish !== undefined && publish !== subject.published) await publishAgain(writer, subject, publish, user);
    });
    const { read } = this.database;
    const [ended] = await read.select().from(trials).where(idOf(id, name));
    if (!ended) throw notFound('trial');
    return trialOf(read, ended, true);
  }
}

const idOf = (id: string, name: string) => and(eq(trials.id, id), eq(trials.text, name));

/** Makes a new version of the state of an older one. */
async function publishAgain(writer: Writer, subject: Subject, number: number, user: User): Promise<void> {
  const [row] = await writer
    .select()
    .from(versions)
    .where(and(eq(versions.text, subject.name), eq(versions.number, number)));
  if (!row) throw notFound('version');
  const state = await frozenState(writer, row.frozen);
  const candidate = { name: subject.name, title: subject.title, revision: row.revision, ...state };
  // What it includes may have gone since.
  await demandPublishable(writer, { ...candidate, mayPublish: true, whyNot: undefined }, user);
  await publishState(writer, candidate, `Version ${number} again, chosen by a trial`, user);
}

async function writable(reader: Reader | Writer, name: string, user: User): Promise<Subject> {
  const subject = await subjectOf(reader, name, user);
  if (!subject.mayWrite) throw new RequestProblem(403, 'not-allowed', 'This is for those who may write it.');
  if (subject.kind !== 'text' || subject.document.attrs.front.kind !== 'message')
    throw new RequestProblem(422, 'no-message', 'Only templates of messages are tried.');
  return subject;
}
/** A second person is needed for new words, not for choosing among versions that were published. */
const mayChoose = ({ mayPublish, whyNot }: Subject): boolean => mayPublish || whyNot !== undefined;
function demandMayChoose(subject: Subject): void {
  if (!mayChoose(subject)) throw new RequestProblem(403, 'not-allowed', 'This is for those who may publish it.');
}
