/** What a message begins on: a published version with all it includes, frozen, so that nothing changes under the hands. */
import { HOUSE_NAME, type WorkingCopy } from '@vocabula/contract';
import { dayIn, PLAIN_HOUSE, signatureFor, type Front } from '@vocabula/core';
import { and, eq, isNotNull, isNull, sql } from 'drizzle-orm';
import { closure, closureOf, headOf } from '../catalogue/visible-texts.js';
import { isOffered } from '../catalogue/store.js';
import { schema, type Reader, type Writer } from '../db/database.js';
import { Kept } from '../db/generation-cache.js';
import { among } from '../db/in-list.js';
import { notFound, RequestProblem } from '../http/problem.js';
import type { User } from '../people/user.js';
import { profileOf } from '../people/service.js';
import { accessOf } from '../rights/access.js';
import { freeze, textOrHouse } from '../versions/frozen.js';

export interface Begun {
  readonly text: string;
  readonly title: string;
  readonly version: number | null;
  readonly frozen: string[];
  readonly house: string;
  readonly signature: string | null;
}

/**
 * What a message on a template begins with. Throws words where none can be begun.
 * @param more    texts stitched to it
 * @param version one that a trial gives, in place of the one in use
 * @param kind    what the text has to be: a series begins with all that its steps are made of
 */
export async function begin(
  writer: Writer,
  text: string,
  user: User,
  more: readonly string[] = [],
  version?: number,
  kind: Parts['kind'] = 'message',
): Promise<Begun> {
  await demandOffered(writer, text, user, kind);
  const own = await partsOf(writer, text, user, more, version);
  if (!own) throw notFound('template');
  const wanted = signatureFor(own.purpose, await profileOf(writer, user.id));
  const parts = (wanted ? await partsOf(writer, text, user, [...more, wanted], version) : own) ?? own;
  return {
    text,
    title: parts.title,
    version: parts.version,
    frozen: [...parts.frozen],
    // Before there is a house, messages are in the plain one.
    house: parts.house ?? (await freeze(writer, { name: HOUSE_NAME, revision: 0, document: PLAIN_HOUSE })),
    signature: wanted ?? null,
  };
}

/** What messages on a template are made of. All of it is published, so its states are frozen already. */
interface Parts {
  readonly kind: 'message' | 'series';
  readonly title: string;
  readonly purpose: Front['purpose'];
  readonly version: number | null;
  /** Ids of the frozen states of the texts, the template first; the documents themselves would be much to keep. */
  readonly frozen: readonly string[];
  /** That of the house, once one is published. */
  readonly house: string | undefined;
}

/** Valid for each person until something is published or rights change. */
const known = new Kept<Parts | undefined>(['rights', 'published'], 1000);

function partsOf(
  writer: Writer,
  text: string,
  user: User,
  more: readonly string[],
  version: number | undefined,
): Promise<Parts | undefined> {
  return known.get(writer, JSON.stringify([user.role, user.id, version ?? 0, text, ...more]), async () => {
    const given = version === undefined ? undefined : await stateOfVersion(writer, text, version);
    const texts = given
      ? await closureOf(writer, given.copy, await accessOf(writer, user), 'fill', more)
      : await closure(writer, text, user, 'fill', more);
    const { front } = texts[0]?.document.attrs ?? {};
    if (front?.kind !== 'message' && front?.kind !== 'series') return undefined;
    const states = await publishedStates(writer, [...texts.map(({ name }) => name), HOUSE_NAME]);
    if (given) states.set(text, given);
    return {
      kind: front.kind,
      title: front.title,
      purpose: front.purpose,
      version: states.get(text)?.number ?? null,
      frozen: texts.flatMap(({ name }) => states.get(name)?.frozen ?? []),
      house: states.get(HOUSE_NAME)?.frozen,
    };
  });
}

/** A version of a text, whether it is in use or not. */
async function stateOfVersion(
  reader: Reader | Writer,
  name: string,
  number: number,
): Promise<{ readonly number: number; readonly frozen: string; readonly copy: WorkingCopy } | undefined> {
  const { versions, frozen } = schema;
  const [row] = await reader
    .select({ version: versions, document: frozen.document })
    .from(versions)
    .innerJoin(frozen, eq(frozen.id, versions.frozen))
    .where(and(eq(versions.text, name), eq(versions.number, number), isNull(versions.withdrawnAt)));
  const state = row && textOrHouse(row.document);
  if (!row || state?.kind !== 'text') return undefined;
  const { revision, at: updatedAt, frozen: id } = row.version;
  return { number, frozen: id, copy: { name, revision, updatedAt, document: state.document } };
}

/** The frozen states of what is in use, by name; those of the house are under its name. */
async function publishedStates(
  reader: Reader | Writer,
  names: readonly string[],
): Promise<Map<string, { readonly number: number; readonly frozen: string }>> {
  const { versions, texts, houses } = schema;
  const rows = await reader
    .select({ name: versions.text, number: versions.number, frozen: versions.frozen })
    .from(versions)
    .leftJoin(texts, eq(texts.name, versions.text))
    .leftJoin(houses, eq(versions.text, HOUSE_NAME))
    .where(
      and(
        sql`${versions.text} IN ${among(names)}`,
        sql`${versions.number} = coalesce(${texts.published}, ${houses.published})`,
      ),
    );
  return new Map(rows.map(({ name, ...state }) => [name, state]));
}

export async function frozenAll(writer: Writer, texts: readonly WorkingCopy[]): Promise<string[]> {
  const frozen: string[] = [];
  for (const each of texts) frozen.push(await freeze(writer, each));
  return frozen;
}

/** The name of the template with a call word, as the user may fill it. */
export async function calledBy(reader: Reader | Writer, call: string, user: User): Promise<string> {
  const { texts } = schema;
  const wanted = call.trim().toLowerCase();
  const access = await accessOf(reader, user);
  const rows = await reader
    .select({ name: texts.name, folder: texts.folder })
    .from(texts)
    .where(
      and(
        isNull(texts.binnedAt),
        isNotNull(texts.published),
        sql`lower(json_extract(${texts.publishedAs}, '$.call')) = ${wanted}`,
      ),
    );
  const found = rows.find(({ folder }) => access.may('fill', folder));
  if (!found)
    throw new RequestProblem(
      404,
      'not-found',
      `No template that you may fill has the call word “${call.slice(0, 40)}”.`,
    );
  return found.name;
}

/** Throws words where no message can be begun: a 404 where the user may not see the text. */
async function demandOffered(reader: Reader | Writer, name: string, user: User, kind: Parts['kind']): Promise<void> {
  const row = await headOf(reader, name);
  const access = await accessOf(reader, user);
  if (!row || row.binnedAt !== null || row.kind !== kind || !access.may('fill', row.folder))
    throw notFound(kind === 'series' ? 'series' : 'template');
  if (isOffered(row, dayIn(new Date(), 'UTC'))) return;
  if (row.published === null) {
    if (!access.may('write', row.folder)) throw notFound('template');
    throw new RequestProblem(
      422,
      'not-published',
      `“${row.title}” is not published yet. Publish it, then it can be filled.`,
    );
  }
  throw new RequestProblem(
    422,
    'not-offered',
    row.retiredAt !== null
      ? `“${row.title}” is retired.${row.replacedBy ? ` “${row.replacedBy}” takes its place.` : ''}`
      : `“${row.title}” is outside the dates it is offered for.`,
  );
}
