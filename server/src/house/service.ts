/** The house: how messages look, facts, holidays. One document, with a revision check on saving. */
import type { SaveHouse, StoredHouse } from '@vocabula/contract';
import { hasErrors, PLAIN_HOUSE, placeInWords, type House } from '@vocabula/core';
import { readHouse, writeHouse } from '@vocabula/core/house';
import { eq } from 'drizzle-orm';
import { schema, type Database, type Reader, type Writer } from '../db/database.js';
import { RequestProblem } from '../http/problem.js';
import type { Asker } from '../people/service.js';

const ID = 'house';

/**
 * The house that Fill, proofs and inclusion see, for whoever asks. For now its last saved working copy; when houses
 * are published, this function says so.
 */
export async function currentHouse(reader: Reader | Writer, _asker: Asker): Promise<StoredHouse> {
  const [row] = await reader.select().from(schema.houses).where(eq(schema.houses.id, ID));
  return row
    ? { house: JSON.parse(row.house) as House, revision: row.revision, updatedAt: row.updatedAt }
    : { house: PLAIN_HOUSE, revision: 0, updatedAt: undefined };
}

export class HouseService {
  constructor(private readonly database: Database) {}

  get(asker: Asker): Promise<StoredHouse> {
    return currentHouse(this.database.read, asker);
  }

  save({ house, revision }: SaveHouse, asker: Asker): Promise<StoredHouse> {
    return this.database.write(async (writer) => {
      const theirs = await currentHouse(writer, asker);
      if (theirs.revision !== revision)
        throw new RequestProblem(409, 'stale-revision', 'The house was saved from somewhere else in the meantime.', {
          yours: house,
          theirs,
        });
      return keep(writer, house, revision + 1);
    });
  }

  async file(asker: Asker): Promise<string> {
    return writeHouse((await this.get(asker)).house);
  }
}

async function keep(writer: Writer, house: House, revision: number): Promise<StoredHouse> {
  const row = { house: JSON.stringify(house), revision, updatedAt: new Date().toISOString() };
  await writer
    .insert(schema.houses)
    .values({ id: ID, ...row })
    .onConflictDoUpdate({ target: schema.houses.id, set: row });
  return { house, revision, updatedAt: row.updatedAt };
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
export async function takeHouse(writer: Writer, house: House, asker: Asker): Promise<'new' | 'changed' | 'same'> {
  const old = await currentHouse(writer, asker);
  if (JSON.stringify(old.house) === JSON.stringify(house)) return 'same';
  await keep(writer, house, old.revision + 1);
  return old.revision === 0 ? 'new' : 'changed';
}
