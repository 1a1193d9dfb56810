/** Templates, blocks and signatures: listed, written, moved, binned. */
import type { Closure, Conflict, CreateText, Many, SaveText, TextSummary, WorkingCopy } from '@vocabula/contract';
import { dayIn, emptyDocument, nameFromTitle, normalise, sameValue } from '@vocabula/core';
import { writeText } from '@vocabula/core/markdown';
import { count, inArray, max } from 'drizzle-orm';
import { note } from '../audit/service.js';
import { schema, type Database, type Writer } from '../db/database.js';
import { notFound, RequestProblem } from '../http/problem.js';
import type { Asker } from '../people/asker.js';
import { accessOf, ROOT, type Access } from '../rights/access.js';
import { privateFolder } from '../rights/private.js';
import { checkpointBefore } from '../versions/checkpoints.js';
import { closure, rowOf, TEXT_HEAD, workingCopy, type Row } from './visible-texts.js';
import { countFindings } from './findings.js';
import { callWordIsFree, changeText, insertText, removeText, takenNames, updateText } from './store.js';
import { demanded, summaryOf } from './text-summaries.js';
import { setOwnSet } from '../samples/store.js';
import { removeProofRecord } from '../proofs/service.js';
import { removeCheckpoints } from '../versions/checkpoints.js';
import { removeRemarks } from '../versions/remarks.js';
import { removeRequests } from '../versions/requests.js';
import { removeTimed } from '../versions/service.js';
import { Kept } from '../db/kept.js';
import { JsonText } from '../http/endpoints.js';

const { texts, fills } = schema;

/** Large, and asked for at every message that is begun. */
const toFill = new Kept<JsonText<Closure>>(['rights', 'published'], 500);

export class CatalogueService {
  constructor(private readonly database: Database) {}

  /** All that the asker may see; what they may not write is as it was last published. */
  async list(asker: Asker): Promise<TextSummary[]> {
    const { read } = this.database;
    const access = await accessOf(read, asker);
    const rows = await read.select(TEXT_HEAD).from(texts);
    const used = await read
      .select({ text: fills.text, last: max(fills.updatedAt), used: count() })
      .from(fills)
      .groupBy(fills.text);
    const usedBy = new Map(used.map((each) => [each.text, each]));
    const today = dayIn(new Date(), 'UTC');
    return rows
      .flatMap((row) => {
        const found = summaryOf(row, access, today);
        const { last, used: times } = usedBy.get(row.name) ?? {};
        return found ? [{ ...found, lastUsed: last ?? undefined, used: times ?? 0 }] : [];
      })
      .sort((a, b) => a.title.localeCompare(b.title, 'en'));
  }

  /** The working copy, for who may write it. */
  async get(name: string, asker: Asker): Promise<WorkingCopy> {
    const { row } = await demanded(this.database.read, name, asker, 'write');
    return workingCopy(row);
  }

  /** A text with all it includes: for writing as authors see it, for filling as colleagues do. */
  async closure(name: string, asker: Asker, purpose: 'fill' | 'write' = 'write'): Promise<Closure> {
    const { read } = this.database;
    const found = await closure(read, name, asker, purpose);
    if (found.length === 0) throw notFound('text');
    return { texts: found, version: (await rowOf(read, name))?.published ?? undefined };
  }

  /** The same for filling, as JSON text: made once for each person until something is published or rights change. */
  async closureToFill(name: string, asker: Asker): Promise<JsonText<Closure>> {
    const key = `${asker.role} ${asker.id} ${name}`;
    return toFill.get(this.database.read, key, async () => {
      return new JsonText<Closure>(JSON.stringify(await this.closure(name, asker, 'fill')));
    });
  }

  async create({ kind, title, document, folder }: CreateText, asker: Asker): Promise<WorkingCopy> {
    const row = await this.database.write(async (writer) => {
      const access = await accessOf(writer, asker);
      const into = folder ?? (access.may('write', ROOT) ? ROOT : privateFolder(asker.id));
      access.demand('write', into, 'folder');
      const name = nameFromTitle(title, await takenNames(writer));
      const base = document ?? emptyDocument({ kind, title });
      // A copy does not take the call word along: it recalls one template.
      const { call: _call, ...front } = base.attrs.front;
      const made = normalise({ ...base, attrs: { ...base.attrs, front: { ...front, kind, title } } });
      return insertText(writer, name, made, { folder: into, madeBy: asker.id });
    });
    await countFindings(this.database, row.name, asker);
    return workingCopy(row);
  }

  /** Saves a working copy based on a revision; a newer one in between is a conflict that carries both. */
  async save(name: string, { document, revision }: SaveText, asker: Asker): Promise<WorkingCopy> {
    const row = await this.database.write(async (writer) => {
      const { row: old } = await demanded(writer, name, asker, 'write');
      if (old.revision !== revision) {
        const conflict: Conflict = { yours: document, theirs: workingCopy(old) };
        throw new RequestProblem(
          409,
          'stale-revision',
          `“${old.title}” was saved from somewhere else in the meantime.`,
          conflict,
        );
      }
      const saved = normalise(document);
      if (sameValue(saved, old.document)) return old;
      await callWordIsFree(writer, name, document);
      await checkpointBefore(writer, old, asker);
      return updateText(writer, old, saved, asker);
    });
    await countFindings(this.database, name, asker);
    return workingCopy(row);
  }

  bin(name: string, binned: boolean, asker: Asker): Promise<void> {
    return this.many({ act: binned ? 'bin' : 'restore', names: [name] }, asker);
  }

  /** One act on several texts: on all of them, or, where one may not be, on none. */
  many(many: Many, asker: Asker): Promise<void> {
    return this.database.write(async (writer) => {
      const access = await accessOf(writer, asker);
      const rows: Row[] = [];
      for (let at = 0; at < many.names.length; at += 500)
        rows.push(
          ...(await writer
            .select()
            .from(texts)
            .where(inArray(texts.name, many.names.slice(at, at + 500)))),
        );
      if (rows.length !== new Set(many.names).size) throw notFound('text');
      for (const row of rows) access.demand('write', row.folder);
      switch (many.act) {
        case 'move':
          access.demand('write', many.folder, 'folder');
          for (const row of rows) {
            // Where it stands says who gets it.
            if (row.published !== null) {
              access.demand('publish', row.folder);
              access.demand('publish', many.folder, 'folder');
            }
            const secondPerson = carriedRequirement(row, many.folder, access, asker);
            await changeText(writer, row.name, { folder: many.folder, position: 0, secondPerson });
            const to = access.folders.get(many.folder)?.title ?? '';
            await note(writer, asker, 'moved', 'text', row.name, `${row.title} to ${to}`);
          }
          return;
        case 'order':
          access.demand('write', many.folder, 'folder');
          for (const [at, name] of many.names.entries()) await changeText(writer, name, { position: at + 1 });
          return;
        case 'tag':
          for (const row of rows) {
            const old = row.tags;
            const tags = many.off
              ? old.filter((tag) => !many.tags.includes(tag))
              : [...new Set([...old, ...many.tags])].sort();
            await changeText(writer, row.name, { tags });
          }
          return;
        case 'bin':
        case 'restore':
          for (const row of rows) {
            if (row.published !== null) access.demand('publish', row.folder);
            const binnedAt = many.act === 'bin' ? new Date().toISOString() : null;
            if (binnedAt === null) await callWordIsFree(writer, row.name, workingCopy(row).document);
            await changeText(writer, row.name, { binnedAt });
            await note(writer, asker, many.act === 'bin' ? 'binned' : 'restored', 'text', row.name, row.title);
          }
          return;
        case 'purge':
          for (const row of rows) {
            // What colleagues never had is its author's to throw away.
            access.demand(row.publishedRevision === null ? 'write' : 'manage', row.folder);
            if (row.binnedAt === null) throw new RequestProblem(422, 'not-binned', `“${row.title}” is not in the bin.`);
            await purge(writer, row);
            await note(writer, asker, 'purged', 'text', row.name, row.title);
          }
      }
    });
  }

  /** The file of a text: its working copy for who may write it, else as it was published. */
  async file(name: string, asker: Asker): Promise<string> {
    const [own] = await closure(this.database.read, name, asker, 'write');
    if (!own) throw notFound('text');
    return writeText(own.document);
  }
}

/**
 * Whether a text that is moved goes on needing a second person for publishing. The requirement of the folder it leaves
 * goes with it, unless somebody who may change that folder moves it. Throws where a version that one person published
 * would come into a folder that needs two.
 */
function carriedRequirement(row: Row, target: string, access: Access, asker: Asker): boolean {
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
  if (asker.role === 'administrator') return false;
  return row.secondPerson || (needsTwo(row.folder) && !access.may('manage', row.folder));
}

/** Takes a text out for good. What was sent from it stays, with the versions it was sent from. */
async function purge(writer: Writer, row: Row): Promise<void> {
  for (const remove of [removeCheckpoints, removeTimed, removeRequests, removeRemarks, removeProofRecord])
    await remove(writer, row.name);
  await setOwnSet(writer, row.name, null);
  await removeText(writer, row.name);
}
