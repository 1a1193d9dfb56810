/** Templates, blocks and signatures: listed, written, imported, binned, found. */
import { basename } from 'node:path';
import type {
  Closure,
  Conflict,
  CreateText,
  Hit,
  ImportFiles,
  Imported,
  SaveText,
  TextSummary,
  WorkingCopy,
} from '@vocabula/contract';
import {
  emptyDocument,
  fold,
  hasErrors,
  isName,
  namesIncluded,
  nameFromTitle,
  normalise,
  placeInWords,
  type TextDocument,
} from '@vocabula/core';
import { readText, writeText } from '@vocabula/core/markdown';
import { eq, max } from 'drizzle-orm';
import { schema, type Database, type Writer } from '../db/database.js';
import { notFound, RequestProblem } from '../http/problem.js';
import { houseFromFile, takeHouse } from '../house/service.js';
import type { Asker } from '../people/service.js';
import { closure, rowOf, workingCopy, type Row } from './current.js';
import { opening, searchWords, subjectWords } from './words.js';

export class CatalogueService {
  constructor(private readonly database: Database) {}

  async list(_asker: Asker): Promise<TextSummary[]> {
    const { read } = this.database;
    const rows = await read.select().from(schema.texts);
    const used = await read
      .select({ text: schema.fills.text, last: max(schema.fills.updatedAt) })
      .from(schema.fills)
      .groupBy(schema.fills.text);
    const lastUsed = new Map(used.map(({ text, last }) => [text, last]));
    return rows
      .map((row): TextSummary => ({
        name: row.name,
        kind: row.kind,
        title: row.title,
        subject: row.subject,
        call: row.call ?? undefined,
        locale: row.locale ?? undefined,
        revision: row.revision,
        updatedAt: row.updatedAt,
        lastUsed: lastUsed.get(row.name) ?? undefined,
        binned: row.binnedAt !== null,
      }))
      .sort((a, b) => a.title.localeCompare(b.title, 'en'));
  }

  async get(name: string, _asker: Asker): Promise<WorkingCopy> {
    const row = await rowOf(this.database.read, name);
    if (!row || row.binnedAt !== null) throw notFound('text');
    return workingCopy(row);
  }

  async closure(name: string, asker: Asker): Promise<Closure> {
    const texts = await closure(this.database.read, name, asker);
    if (texts.length === 0) throw notFound('text');
    const rows = await this.database.read.select().from(schema.texts);
    const usedIn = rows
      .filter(
        (row) =>
          row.name !== name &&
          row.binnedAt === null &&
          namesIncluded(JSON.parse(row.document) as TextDocument).includes(name),
      )
      .map(({ name: other, title }) => ({ name: other, title }));
    return { texts, usedIn };
  }

  create({ kind, title, document }: CreateText, _asker: Asker): Promise<WorkingCopy> {
    return this.database.write(async (writer) => {
      const taken = new Set(
        (await writer.select({ name: schema.texts.name }).from(schema.texts)).map((row) => row.name),
      );
      const name = nameFromTitle(title, taken);
      const base = document ?? emptyDocument({ kind, title });
      // A copy does not take the call word along: it recalls one template.
      const { call: _call, ...front } = base.attrs.front;
      return workingCopy(
        await insert(writer, name, normalise({ ...base, attrs: { ...base.attrs, front: { ...front, kind, title } } })),
      );
    });
  }

  /** Saves a working copy based on a revision; a newer one in between is a conflict that carries both. */
  save(name: string, { document, revision }: SaveText, _asker: Asker): Promise<WorkingCopy> {
    return this.database.write(async (writer) => {
      const row = await rowOf(writer, name);
      if (!row || row.binnedAt !== null) throw notFound('text');
      if (row.revision !== revision) {
        const conflict: Conflict = { yours: document, theirs: workingCopy(row) };
        throw new RequestProblem(
          409,
          'stale-revision',
          `“${row.title}” was saved from somewhere else in the meantime.`,
          conflict,
        );
      }
      await callWordIsFree(writer, name, document);
      return workingCopy(await update(writer, name, normalise(document), revision + 1));
    });
  }

  bin(name: string, binned: boolean, _asker: Asker): Promise<void> {
    return this.database.write(async (writer) => {
      if (!(await rowOf(writer, name))) throw notFound('text');
      await writer
        .update(schema.texts)
        .set({ binnedAt: binned ? new Date().toISOString() : null })
        .where(eq(schema.texts.name, name));
    });
  }

  async file(name: string, asker: Asker): Promise<string> {
    return writeText((await this.get(name, asker)).document);
  }

  /** Imports files of the format: all of them, or, if one cannot be read, none. */
  import({ files }: ImportFiles, asker: Asker): Promise<Imported[]> {
    const houseFile = files.find(({ file }) => basename(file) === 'house.yaml');
    const house = houseFile && houseFromFile(houseFile.file, houseFile.content);
    const texts = files.filter((each) => each !== houseFile);
    const read = texts.map(({ file, content }) => ({
      file,
      name: basename(file).replace(/\.md$/, ''),
      ...readText(content),
    }));
    const bad = read.filter(({ name, findings }) => hasErrors(findings) || !isName(name));
    if (bad.length > 0) {
      const details = bad.flatMap(({ file, name, findings }) => [
        ...(isName(name)
          ? []
          : [
              {
                file,
                code: 'bad-file',
                where: '',
                message: 'A file is named in small letters, digits and hyphens, and ends in .md.',
              },
            ]),
        ...findings
          .filter((finding) => finding.level === 'error')
          .map((finding) => ({
            file,
            code: finding.code,
            where: placeInWords(finding.place),
            message: finding.message,
          })),
      ]);
      const [first] = details;
      throw new RequestProblem(
        422,
        'bad-file',
        `${first?.file}${first?.where ? `, ${first.where}` : ''}: ${first?.message} Nothing was imported.`,
        details,
      );
    }
    const twice = read.find(({ name }, index) => read.findIndex((other) => other.name === name) !== index);
    if (twice)
      throw new RequestProblem(
        422,
        'bad-file',
        `Two files would both be called “${twice.name}”. Nothing was imported.`,
      );
    return this.database.write(async (writer) => {
      const outcomes: Imported[] = [];
      if (house && houseFile)
        outcomes.push({
          file: houseFile.file,
          name: 'house',
          outcome: await takeHouse(writer, house, asker),
          findings: [],
        });
      for (const { file, name, document, findings } of read) {
        const row = await rowOf(writer, name);
        await callWordIsFree(writer, name, document);
        const same = row !== undefined && row.binnedAt === null && row.document === JSON.stringify(document);
        if (!row) await insert(writer, name, document);
        else if (!same) await update(writer, name, document, row.revision + 1);
        outcomes.push({ file, name, outcome: !row ? 'new' : same ? 'same' : 'changed', findings });
      }
      return outcomes;
    });
  }

  /** Texts that all typed words are in, best first: call word, then title, subject, anything. */
  async search(query: string, _asker: Asker): Promise<Hit[]> {
    const words = fold(query).split(/\s+/).filter(Boolean);
    const rows = (await this.database.read.select().from(schema.texts)).filter(
      (row) => row.binnedAt === null && row.kind === 'message',
    );
    return rows
      .map((row) => ({ row, score: score(row, words) }))
      .filter(({ score: points }) => points > 0)
      .sort((a, b) => b.score - a.score || a.row.title.localeCompare(b.row.title, 'en'))
      .slice(0, 12)
      .map(({ row }): Hit => ({
        name: row.name,
        kind: row.kind,
        title: row.title,
        subject: row.subject,
        call: row.call ?? undefined,
        opening: opening(JSON.parse(row.document) as TextDocument),
      }));
  }
}

function score(row: Row, words: readonly string[]): number {
  if (words.length === 0) return 1;
  const title = fold(row.title);
  let points = 0;
  for (const word of words) {
    if (row.call && fold(row.call) === word) points += 100;
    else if (row.call && fold(row.call).startsWith(word)) points += 40;
    else if (title.startsWith(word)) points += 30;
    else if (title.includes(` ${word}`)) points += 20;
    else if (title.includes(word)) points += 12;
    else if (fold(row.subject).includes(word)) points += 8;
    else if (row.words.includes(word)) points += 2;
    else return 0;
  }
  return points;
}

const columnsOf = (document: TextDocument, revision: number): Omit<Row, 'name' | 'binnedAt'> => ({
  kind: document.attrs.front.kind,
  title: document.attrs.front.title,
  subject: subjectWords(document),
  call: document.attrs.front.call ?? null,
  locale: document.attrs.front.locale ?? null,
  words: searchWords(document),
  document: JSON.stringify(document),
  revision,
  updatedAt: new Date().toISOString(),
});

async function insert(writer: Writer, name: string, document: TextDocument): Promise<Row> {
  const row: Row = { name, ...columnsOf(document, 1), binnedAt: null };
  await writer.insert(schema.texts).values(row);
  return row;
}

async function update(writer: Writer, name: string, document: TextDocument, revision: number): Promise<Row> {
  const columns = columnsOf(document, revision);
  await writer
    .update(schema.texts)
    .set({ ...columns, binnedAt: null })
    .where(eq(schema.texts.name, name));
  return { name, ...columns, binnedAt: null };
}

async function callWordIsFree(writer: Writer, name: string, document: TextDocument): Promise<void> {
  const { call } = document.attrs.front;
  if (call === undefined || call === '') return;
  const [other] = await writer.select().from(schema.texts).where(eq(schema.texts.call, call));
  if (other && other.name !== name && other.binnedAt === null)
    throw new RequestProblem(422, 'duplicate-key', `The call word “${call}” is taken by “${other.title}”.`);
}
