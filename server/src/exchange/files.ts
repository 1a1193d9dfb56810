/** Files of the format, taken into the catalogue: all of them, or, if one cannot be read, none. */
import { basename } from 'node:path';
import type { ImportFiles, Imported } from '@vocabula/contract';
import {
  hasErrors,
  isName,
  placeInWords,
  sameValue,
  type Finding,
  type House,
  type TextDocument,
} from '@vocabula/core';
import { readText } from '@vocabula/core/markdown';
import { note } from '../audit/service.js';
import { rowOf } from '../catalogue/visible-texts.js';
import { countFindings } from '../catalogue/findings.js';
import { callWordIsFree, insertText, isPurged, updateText } from '../catalogue/store.js';
import type { Database, Writer } from '../db/database.js';
import { houseFromFile, takeHouse } from '../house/service.js';
import { RequestProblem } from '../http/problem.js';
import type { User } from '../people/user.js';
import { accessOf, ROOT, type Access } from '../rights/access.js';
import { privateFolder } from '../rights/private.js';
import { checkpoint } from '../versions/checkpoints.js';

export interface ReadFile {
  readonly file: string;
  readonly name: string;
  readonly document: TextDocument;
  readonly findings: readonly Finding[];
}

/** Reads one file of the format. */
export const readFile = (file: string, content: string): ReadFile => ({
  file,
  name: basename(file).replace(/\.md$/, ''),
  ...readText(content),
});

/** Why a file cannot be taken, each reason with its place; none where it can. */
export function refusals({
  file,
  name,
  findings,
}: ReadFile): { file: string; code: string; where: string; message: string }[] {
  const misnamed = isName(name)
    ? []
    : [
        {
          file,
          code: 'bad-file',
          where: '',
          message: 'A file is named in small letters, digits and hyphens, and ends in .md.',
        },
      ];
  const errors = findings
    .filter((finding) => finding.level === 'error')
    .map((finding) => ({ file, code: finding.code, where: placeInWords(finding.place), message: finding.message }));
  return [...misnamed, ...errors];
}

/** Puts one text into the catalogue. A binned one of that name comes back changed. */
export async function takeText(
  writer: Writer,
  { name, document }: Pick<ReadFile, 'name' | 'document'>,
  folder: string,
  access: Access,
  user: User,
): Promise<'new' | 'changed' | 'same'> {
  const row = await rowOf(writer, name);
  await callWordIsFree(writer, name, document);
  if (!row) {
    access.demand('write', folder, 'folder');
    if (await isPurged(writer, name))
      throw new RequestProblem(422, 'taken', `The name “${name}” belonged to a deleted text. Give the file another.`);
    await insertText(writer, name, document, { folder, madeBy: user.id });
    return 'new';
  }
  if (!access.may('write', row.folder))
    throw new RequestProblem(422, 'taken', `The name “${name}” is taken. Give the file another.`);
  if (row.binnedAt === null && sameValue(row.document, document)) return 'same';
  await checkpoint(writer, row, 'import', user);
  await updateText(writer, row, document, user);
  return 'changed';
}

export class FileService {
  constructor(private readonly database: Database) {}

  /** Imports files of the format and, by its name, `house.yaml`. */
  async import({ files, folder }: ImportFiles, user: User): Promise<Imported[]> {
    const houseFile = files.find(({ file }) => basename(file) === 'house.yaml');
    const house: House | undefined = houseFile && houseFromFile(houseFile.file, houseFile.content);
    const read = files.filter((each) => each !== houseFile).map(({ file, content }) => readFile(file, content));
    const details = read.filter((each) => hasErrors(each.findings) || !isName(each.name)).flatMap(refusals);
    const [first] = details;
    if (first)
      throw new RequestProblem(
        422,
        'bad-file',
        `${first.file}${first.where ? `, ${first.where}` : ''}: ${first.message} Nothing was imported.`,
        details,
      );
    const twice = read.find(({ name }, index) => read.findIndex((other) => other.name === name) !== index);
    if (twice)
      throw new RequestProblem(
        422,
        'bad-file',
        `Two files would both be called “${twice.name}”. Nothing was imported.`,
      );
    const outcomes = await this.database.write(async (writer) => {
      const access = await accessOf(writer, user);
      const into = folder ?? (access.may('write', ROOT) ? ROOT : privateFolder(user.id));
      const made: Imported[] = [];
      if (house && houseFile)
        made.push({
          file: houseFile.file,
          name: 'house',
          outcome: await takeHouse(writer, house, user),
          findings: [],
        });
      for (const each of read) {
        const outcome = await takeText(writer, each, into, access, user);
        made.push({ file: each.file, name: each.name, outcome, findings: each.findings });
      }
      await note(writer, user, 'imported', 'catalogue', 'catalogue', `${made.length} files`);
      return made;
    });
    for (const { name, outcome } of outcomes) if (outcome !== 'same') await countFindings(this.database, name, user);
    return outcomes;
  }
}
