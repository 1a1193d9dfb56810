/** Templates, blocks and signatures: listed, written, moved, binned. */
import type { Closure, Conflict, CreateText, Many, SaveText, TextSummary, WorkingCopy } from '@vocabula/contract';
import { dayIn, emptyDocument, nameFromTitle, normalise, sameValue } from '@vocabula/core';
import { writeText } from '@vocabula/core/markdown';
import { count, max } from 'drizzle-orm';
import { schema, type Database } from '../db/database.js';
import { notFound, RequestProblem } from '../http/problem.js';
import type { User } from '../people/user.js';
import { accessOf, ROOT } from '../rights/access.js';
import { privateFolder } from '../rights/private.js';
import { checkpointBefore } from '../versions/checkpoints.js';
import { closure, rowOf, TEXT_HEAD, workingCopy } from './visible-texts.js';
import { countFindings } from './findings.js';
import { callWordIsFree, insertText, takenNames, updateText } from './store.js';
import { actOnMany } from './bulk.js';
import { demanded, demandedWithCheckpoint, summaryOf } from './text-summaries.js';
import { Kept } from '../db/generation-cache.js';
import { JsonText } from '../http/endpoints.js';

const { texts, fills } = schema;

/** Large, and asked for at every message that is begun. */
const toFill = new Kept<JsonText<Closure>>(['rights', 'published'], 500);

export class CatalogueService {
  constructor(private readonly database: Database) {}

  /** How many texts there are, of everybody. */
  size(): Promise<number> {
    return this.database.read.$count(texts);
  }

  /** All that the user may see; what they may not write is as it was last published. */
  async list(user: User): Promise<TextSummary[]> {
    const { read } = this.database;
    const access = await accessOf(read, user);
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
  async get(name: string, user: User): Promise<WorkingCopy> {
    const { row } = await demanded(this.database.read, name, user, 'write');
    return workingCopy(row);
  }

  /** A text with all it includes: for writing as authors see it, for filling as colleagues do. */
  async closure(name: string, user: User, purpose: 'fill' | 'write' = 'write'): Promise<Closure> {
    const { read } = this.database;
    const found = await closure(read, name, user, purpose);
    if (found.length === 0) throw notFound('text');
    return { texts: found, version: (await rowOf(read, name))?.published ?? undefined };
  }

  /** The same for filling, as JSON text: made once for each person until something is published or rights change. */
  async closureToFill(name: string, user: User): Promise<JsonText<Closure>> {
    const key = `${user.role} ${user.id} ${name}`;
    return toFill.get(this.database.read, key, async () => {
      return new JsonText<Closure>(JSON.stringify(await this.closure(name, user, 'fill')));
    });
  }

  async create({ kind, title, document, folder }: CreateText, user: User): Promise<WorkingCopy> {
    const row = await this.database.write(async (writer) => {
      const access = await accessOf(writer, user);
      const into = folder ?? (access.may('write', ROOT) ? ROOT : privateFolder(user.id));
      access.demand('write', into, 'folder');
      const name = nameFromTitle(title, await takenNames(writer));
      const base = document ?? emptyDocument({ kind, title });
      // A copy does not take the call word along: it recalls one template.
      const { call: _call, ...front } = base.attrs.front;
      const made = normalise({ ...base, attrs: { ...base.attrs, front: { ...front, kind, title } } });
      return insertText(writer, name, made, { folder: into, madeBy: user.id });
    });
    await countFindings(this.database, row.name, user);
    return workingCopy(row);
  }

  /**
   * Saves a working copy based on a revision; a newer one in between is a conflict that carries both. Its findings are
   * counted by who calls this: see `FindingCounts`.
   */
  async save(name: string, { document, revision }: SaveText, user: User): Promise<WorkingCopy> {
    const row = await this.database.write(async (writer) => {
      const { row: old, last } = await demandedWithCheckpoint(writer, name, user);
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
      if (document.attrs.front.call !== old.document.attrs.front.call) await callWordIsFree(writer, name, document);
      await checkpointBefore(writer, old, last, user);
      return updateText(writer, old, saved, user);
    });
    return workingCopy(row);
  }

  /** Counts the findings of a working copy for lists. */
  countFindings(name: string, user: User): Promise<void> {
    return countFindings(this.database, name, user);
  }

  bin(name: string, binned: boolean, user: User): Promise<void> {
    return this.many({ act: binned ? 'bin' : 'restore', names: [name] }, user);
  }

  /** One act on several texts: on all of them, or, where one may not be, on none. */
  many(many: Many, user: User): Promise<void> {
    return this.database.write((writer) => actOnMany(writer, many, user));
  }

  /** The file of a text: its working copy for who may write it, else as it was published. */
  async file(name: string, user: User): Promise<string> {
    const [own] = await closure(this.database.read, name, user, 'write');
    if (!own) throw notFound('text');
    return writeText(own.document);
  }
}
