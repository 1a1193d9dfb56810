/** The house: how messages look, facts, holidays. One document, with a revision check on saving; published as texts are. */
import type { SaveHouse, StoredHouse } from '@vocabula/contract';
import { hasErrors, placeInWords, sameValue, type House } from '@vocabula/core';
import { readHouse, writeHouse } from '@vocabula/core/house';
import { type Database, type Writer } from '../db/database.js';
import { RequestProblem } from '../http/problem.js';
import type { User } from '../people/user.js';
import { currentHouse, houseRow, putHouse } from './house-state.js';

export class HouseService {
  constructor(private readonly database: Database) {}

  /** For authors the working copy, for colleagues what is published. */
  get(user: User): Promise<StoredHouse> {
    return currentHouse(this.database.read, user.role === 'colleague' ? 'fill' : 'write');
  }

  save({ house, revision }: SaveHouse, user: User): Promise<StoredHouse> {
    return this.database.write(async (writer) => {
      const theirs = await currentHouse(writer, 'write');
      if (theirs.revision !== revision)
        throw new RequestProblem(409, 'stale-revision', 'The house was saved from somewhere else in the meantime.', {
          yours: house,
          theirs,
        });
      return keepHouse(writer, house, user);
    });
  }

  async file(user: User): Promise<string> {
    return writeHouse((await this.get(user)).house);
  }
}

/** Puts a house in the place of the working copy. */
export async function keepHouse(writer: Writer, house: House, user: Pick<User, 'id'>): Promise<StoredHouse> {
  const old = await houseRow(writer);
  const row = {
    house,
    revision: (old?.revision ?? 0) + 1,
    updatedAt: new Date().toISOString(),
    writtenBy: [...new Set([...(old?.writtenBy ?? []), user.id])],
  };
  await putHouse(writer, row);
  return { house, revision: row.revision, updatedAt: row.updatedAt, version: old?.published ?? undefined };
}

/** Reads `house.yaml`. Throws words for a file that cannot be read. */
export function houseFromFile(file: string, content: string): House {
  const { house, findings } = readHouse(content);
  const first = findings.find((finding) => finding.level === 'error');
  if (first && hasErrors(findings))
    throw new RequestProblem(
      422,
      'bad-file',
      `${file}, ${placeInWords(first.place)}: ${first.message} Nothing was imported.`,
      [...findings],
    );
  return house;
}

/** Puts a house that was read from a file in the place of the one there is, as part of an import. */
export async function takeHouse(writer: Writer, house: House, user: User): Promise<'new' | 'changed' | 'same'> {
  const old = await currentHouse(writer, 'write');
  if (sameValue(old.house, house)) return 'same';
  await keepHouse(writer, house, user);
  return old.revision === 0 ? 'new' : 'changed';
}
