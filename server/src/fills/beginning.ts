/** What a message begins on: a published version with all it includes, frozen, so that nothing changes under the hands. */
import { HOUSE_NAME, type WorkingCopy } from '@vocabula/contract';
import { dayIn, signatureFor } from '@vocabula/core';
import { and, isNotNull, isNull, sql } from 'drizzle-orm';
import { closure, rowOf } from '../catalogue/visible-texts.js';
import { isOffered } from '../catalogue/store.js';
import { schema, type Reader, type Writer } from '../db/database.js';
import { currentHouse } from '../house/house-state.js';
import { notFound, RequestProblem } from '../http/problem.js';
import type { User } from '../people/user.js';
import { profileOf } from '../people/service.js';
import { accessOf } from '../rights/access.js';
import { freeze } from '../versions/frozen.js';

export interface Begun {
  readonly text: string;
  readonly title: string;
  readonly version: number | null;
  readonly frozen: string[];
  readonly house: string;
  readonly signature: string | null;
}

/** Freezes what a template needs. Throws words where no message can be begun. @param more stitched to it */
export async function begin(writer: Writer, text: string, user: User, more: readonly string[] = []): Promise<Begun> {
  await demandOffered(writer, text, user);
  const own = await closure(writer, text, user, 'fill', more);
  const { front } = own[0]?.document.attrs ?? {};
  if (!front || front.kind !== 'message') throw notFound('template');
  const profile = await profileOf(writer, user.id);
  const wanted = signatureFor(front.purpose, profile);
  const texts = wanted ? await closure(writer, text, user, 'fill', [...more, wanted]) : own;
  const { house, revision } = await currentHouse(writer, 'fill');
  return {
    text,
    title: front.title,
    version: (await rowOf(writer, text))?.published ?? null,
    frozen: await frozenAll(writer, texts),
    house: await freeze(writer, { name: HOUSE_NAME, revision, document: house }),
    signature: wanted ?? null,
  };
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
async function demandOffered(reader: Reader | Writer, name: string, user: User): Promise<void> {
  const row = await rowOf(reader, name);
  const access = await accessOf(reader, user);
  if (!row || row.binnedAt !== null || row.kind !== 'message' || !access.may('fill', row.folder))
    throw notFound('template');
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
