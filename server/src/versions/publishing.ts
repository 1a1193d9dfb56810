/** Making versions, and taking them out of use. Everything that publishes comes through `publishState`. */
import { HOUSE_NAME } from '@vocabula/contract';
import { error, hasErrors, type Finding } from '@vocabula/core';
import { and, eq, max } from 'drizzle-orm';
import { note } from '../audit/service.js';
import { rowOf, type Row } from '../catalogue/visible-texts.js';
import { findingsOf } from '../catalogue/findings.js';
import { changeText, derive, frontOf, underive } from '../catalogue/store.js';
import { schema, type Reader, type Writer } from '../db/database.js';
import { houseRow, type HouseRow } from '../house/house-state.js';
import { notFound, RequestProblem } from '../http/problem.js';
import type { User } from '../people/user.js';
import { accessOf } from '../rights/access.js';
import { freeze, textOrHouse, thawed, type TextOrHouse } from './frozen.js';
import { changeHouse } from '../house/house-state.js';
import { endTrialOf, runningTrial } from '../trials/store.js';

const { texts, versions } = schema;

/** What is known of a text or the house, whatever its state. */
interface About {
  readonly name: string;
  readonly title: string;
  readonly revision: number;
  readonly published: number | undefined;
  readonly publishedRevision: number | undefined;
  readonly mayWrite: boolean;
  readonly mayPublish: boolean;
  /** Why the user may not publish although the folder would let them. */
  readonly whyNot: string | undefined;
}

/** A text or the house as it is, as far as versions are concerned. */
export type Subject = About &
  (
    | (Extract<TextOrHouse, { kind: 'text' }> & { readonly row: Row })
    | (Extract<TextOrHouse, { kind: 'house' }> & { readonly row?: undefined })
  );
/** A state of a subject that is to be published. */
export type Candidate = Pick<About, 'name' | 'title' | 'revision'> & TextOrHouse;

/** The subject of that name. Throws a 404 where the user may not see it. */
export async function subjectOf(reader: Reader | Writer, name: string, user: User): Promise<Subject> {
  if (name === HOUSE_NAME) return houseSubject(await houseRow(reader), user);
  const row = await rowOf(reader, name);
  const access = await accessOf(reader, user);
  if (!row || row.binnedAt !== null) throw notFound('text');
  const mayWrite = access.may('write', row.folder);
  if (row.published === null && !mayWrite) throw notFound('text');
  access.demand('fill', row.folder);
  const second = row.secondPerson || access.folders.get(row.folder)?.secondPerson === true;
  const wrote = row.writtenBy.includes(user.id);
  const granted = access.may('publish', row.folder);
  return {
    kind: 'text',
    name,
    title: row.title,
    revision: row.revision,
    document: row.document,
    published: row.published ?? undefined,
    publishedRevision: row.publishedRevision ?? undefined,
    row,
    mayWrite,
    mayPublish: granted && !(second && wrote),
    whyNot:
      granted && second && wrote
        ? `${row.secondPerson ? 'Where this text comes from' : 'In this folder'} somebody other than who changed it publishes. Ask for it.`
        : undefined,
  };
}

function houseSubject(row: HouseRow | undefined, user: User): Subject {
  if (!row) throw notFound('house');
  return {
    kind: 'house',
    name: HOUSE_NAME,
    title: 'House style, facts and holidays',
    revision: row.revision,
    document: row.house,
    published: row.published ?? undefined,
    publishedRevision: row.publishedRevision ?? undefined,
    mayWrite: user.role !== 'colleague',
    mayPublish: user.role === 'administrator',
    whyNot: undefined,
  };
}

/** What stands against publishing: errors, and blocks that colleagues would miss. */
export async function obstacles(reader: Reader | Writer, subject: Candidate, user: User): Promise<Finding[]> {
  if (subject.kind === 'house') return [];
  const found = await findingsOf(reader, subject, user);
  const included = await reader
    .select({ name: texts.name, title: texts.title, published: texts.published })
    .from(schema.uses)
    .innerJoin(texts, eq(texts.name, schema.uses.target))
    .where(and(eq(schema.uses.text, subject.name), eq(schema.uses.state, 'working'), eq(schema.uses.what, 'text')));
  const missing = included.filter((each) => each.published === null);
  return [...found, ...missing.map(({ title }) => error({ code: 'unknown-block', why: 'unpublished', title }))];
}

/** Throws where something stands against publishing, with the findings. */
export async function demandPublishable(
  reader: Reader | Writer,
  subject: Candidate & Pick<About, 'mayPublish' | 'whyNot'>,
  user: User,
): Promise<void> {
  if (!subject.mayPublish)
    throw new RequestProblem(403, 'not-allowed', subject.whyNot ?? 'You may not publish this. Ask for it.');
  const found = await obstacles(reader, subject, user);
  if (!hasErrors(found)) return;
  const errors = found.filter(({ level }) => level === 'error');
  throw new RequestProblem(422, 'has-errors', `${errors[0]?.message ?? ''} It cannot be published like this.`, errors);
}

/** Makes a version of a state. @returns its number */
export async function publishState(
  writer: Writer,
  candidate: Candidate,
  words: string,
  who: Pick<User, 'id' | 'name'>,
): Promise<number> {
  const { name, title, revision } = candidate;
  const frozen = await freeze(writer, candidate);
  const [last] = await writer
    .select({ number: max(versions.number) })
    .from(versions)
    .where(eq(versions.text, name));
  const number = (last?.number ?? 0) + 1;
  const at = new Date().toISOString();
  await writer
    .insert(versions)
    .values({ text: name, number, frozen, revision, note: words, who: who.id, whoName: who.name, at });
  if (candidate.kind === 'house')
    await changeHouse(writer, { published: number, publishedRevision: revision, writtenBy: [] });
  else {
    const row = await rowOf(writer, name);
    await changeText(writer, name, {
      published: number,
      publishedRevision: revision,
      publishedAs: frontOf(candidate.document),
      // Who changed it since that state was looked at is still to be looked after by somebody else.
      ...(row?.revision === revision ? { writtenBy: [] } : {}),
    });
    await derive(writer, name, 'published', candidate.document);
  }
  await endTrialOf(writer, name, `version ${number} was published`);
  await note(writer, who, 'published', candidate.kind, name, `${title}, version ${number}: ${words}`);
  return number;
}

/** Takes a version out of use. If it is the one colleagues use, they have none until the next. */
export async function withdraw(
  writer: Writer,
  subject: Subject,
  number: number,
  because: string,
  user: User,
): Promise<void> {
  const at = new Date().toISOString();
  const { rowsAffected } = await writer
    .update(versions)
    .set({ withdrawnAt: at, withdrawnBy: user.name, withdrawnBecause: because })
    .where(and(eq(versions.text, subject.name), eq(versions.number, number)));
  if (rowsAffected === 0) throw notFound('version');
  const running = await runningTrial(writer, subject.name);
  if (running?.arms.some(({ version }) => version === number))
    await endTrialOf(writer, subject.name, `version ${number} was withdrawn`);
  if (subject.published === number) {
    if (subject.kind === 'house') await changeHouse(writer, { published: null });
    else {
      await changeText(writer, subject.name, { published: null, publishedAs: null });
      await underive(writer, subject.name, 'published');
    }
  }
  await note(writer, user, 'withdrew', subject.kind, subject.name, `${subject.title}, version ${number}: ${because}`);
}

/** A frozen state, by its id. */
export async function frozenState(reader: Reader | Writer, id: string): Promise<TextOrHouse> {
  const found = (await thawed(reader, [id])).get(id);
  if (!found) throw notFound('state');
  return textOrHouse(found.document);
}
