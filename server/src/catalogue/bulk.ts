/** What is done to several texts at once. */
import type { Many } from '@vocabula/contract';
import { sql } from 'drizzle-orm';
import { note } from '../audit/service.js';
import { schema, type Writer } from '../db/database.js';
import { among } from '../db/in-list.js';
import { notFound, RequestProblem } from '../http/problem.js';
import type { User } from '../people/user.js';
import { removeProofRecord } from '../proofs/service.js';
import { accessOf, type Access } from '../rights/access.js';
import { setOwnSet } from '../samples/store.js';
import { removeAgreed } from '../languages/agreed.js';
import { removeCheckpoints } from '../versions/checkpoints.js';
import { removeRemarks } from '../versions/remarks.js';
import { removeRequests } from '../versions/requests.js';
import { removeTrials } from '../trials/store.js';
import { removeTimed } from '../versions/service.js';
import { callWordIsFree, changeText, removeText } from './store.js';
import { rowOf, TEXT_HEAD, type TextHead } from './visible-texts.js';

/** One kind of act. */
type Act<A extends Many['act']> = Extract<Many, { readonly act: A }>;
/** What every act is given: the texts, in no order, and who wants it. */
interface Chosen {
  readonly writer: Writer;
  readonly rows: readonly TextHead[];
  readonly access: Access;
  readonly user: User;
}

/**
 * One act on several texts: on all of them, or, where one may not be, on none.
 * @throws RequestProblem 404 where one is not there for who asks, 403 where they may not do this to it
 */
export async function actOnMany(writer: Writer, many: Many, user: User): Promise<void> {
  const access = await accessOf(writer, user);
  const { texts } = schema;
  const rows = await writer
    .select(TEXT_HEAD)
    .from(texts)
    .where(sql`${texts.name} IN ${among(many.names)}`);
  if (rows.length !== new Set(many.names).size) throw notFound('text');
  for (const row of rows) access.demand('write', row.folder);
  const given: Chosen = { writer, rows, access, user };
  switch (many.act) {
    case 'move':
      return move(given, many);
    case 'order':
      return order(given, many);
    case 'tag':
      return tag(given, many);
    case 'bin':
      return bin(given);
    case 'restore':
      return restore(given);
    case 'purge':
      return purge(given);
  }
}

async function move({ writer, rows, access, user }: Chosen, { folder }: Act<'move'>): Promise<void> {
  access.demand('write', folder, 'folder');
  const to = access.folders.get(folder)?.title ?? '';
  for (const row of rows) {
    // Where it stands says who gets it.
    if (row.published !== null) {
      access.demand('publish', row.folder);
      access.demand('publish', folder, 'folder');
    }
    const secondPerson = carriedRequirement(row, folder, access, user);
    await changeText(writer, row.name, { folder, position: 0, secondPerson });
    await note(writer, user, 'moved', 'text', row.name, `${row.title} to ${to}`);
  }
}

async function order({ writer, access }: Chosen, { folder, names }: Act<'order'>): Promise<void> {
  access.demand('write', folder, 'folder');
  for (const [at, name] of names.entries()) await changeText(writer, name, { position: at + 1 });
}

async function tag({ writer, rows }: Chosen, { tags, off }: Act<'tag'>): Promise<void> {
  for (const { name, tags: old } of rows)
    await changeText(writer, name, {
      tags: off ? old.filter((each) => !tags.includes(each)) : [...new Set([...old, ...tags])].sort(),
    });
}

async function bin({ writer, rows, access, user }: Chosen): Promise<void> {
  for (const row of rows) {
    if (row.published !== null) access.demand('publish', row.folder);
    await changeText(writer, row.name, { binnedAt: new Date().toISOString() });
    await note(writer, user, 'binned', 'text', row.name, row.title);
  }
}

async function restore({ writer, rows, access, user }: Chosen): Promise<void> {
  for (const row of rows) {
    if (row.published !== null) access.demand('publish', row.folder);
    const whole = await rowOf(writer, row.name);
    if (whole) await callWordIsFree(writer, row.name, whole.document);
    await changeText(writer, row.name, { binnedAt: null });
    await note(writer, user, 'restored', 'text', row.name, row.title);
  }
}

async function purge({ writer, rows, access, user }: Chosen): Promise<void> {
  for (const row of rows) {
    // What colleagues never had is its author's to throw away.
    access.demand(row.publishedRevision === null ? 'write' : 'manage', row.folder);
    if (row.binnedAt === null) throw new RequestProblem(422, 'not-binned', `“${row.title}” is not in the bin.`);
    await purgeOne(writer, row);
    await note(writer, user, 'purged', 'text', row.name, row.title);
  }
}

/**
 * Whether a text that is moved goes on needing a second person for publishing. The requirement of the folder it leaves
 * goes with it, unless somebody who may change that folder moves it. Throws where a version that one person published
 * would come into a folder that needs two.
 */
function carriedRequirement(row: TextHead, target: string, access: Access, user: User): boolean {
  const needsTwo = (folder: string): boolean => access.folders.get(folder)?.secondPerson === true;
  const required = row.secondPerson || needsTwo(row.folder);
  if (needsTwo(target)) {
    if (row.published !== null && !required && !access.may('manage', target))
      throw new RequestProblem(
        422,
        'second-person',
        `“${row.title}” was published by one person. Somebody who manages the folder has to move it there.`,
      );
    return false;
  }
  if (user.role === 'administrator') return false;
  return row.secondPerson || (needsTwo(row.folder) && !access.may('manage', row.folder));
}

/** Takes a text out for good. What was sent from it stays, with the versions it was sent from. */
async function purgeOne(writer: Writer, row: TextHead): Promise<void> {
  const others = [
    removeCheckpoints,
    removeTimed,
    removeRequests,
    removeRemarks,
    removeAgreed,
    removeProofRecord,
    removeTrials,
  ];
  for (const remove of others) await remove(writer, row.name);
  await setOwnSet(writer, row.name, null);
  await removeText(writer, row.name);
}
