/** Which lines of a text were compared with those of its original. They are kept beside the text, and go with it. */
import { MOST_AGREED, type Agree, type AgreedAnswer } from '@vocabula/contract';
import type { Agreed } from '@vocabula/core/languages';
import { eq } from 'drizzle-orm';
import { demanded } from '../catalogue/text-summaries.js';
import { schema, type Database, type Reader, type Writer } from '../db/database.js';
import type { User } from '../people/user.js';

const { agreedLines } = schema;

export class LanguageService {
  constructor(private readonly database: Database) {}

  async agreed(name: string, user: User): Promise<AgreedAnswer> {
    const { read } = this.database;
    await demanded(read, name, user, 'write');
    return { pairs: await pairsOf(read, name) };
  }

  /** Adds lines that were compared. Known ones become the newest; beyond `MOST_AGREED` the oldest are let go of. */
  agree(name: string, { pairs }: Agree, user: User): Promise<AgreedAnswer> {
    return this.database.write(async (writer) => {
      await demanded(writer, name, user, 'write');
      const all = new Map((await pairsOf(writer, name)).map((pair) => [idOf(pair), pair]));
      for (const pair of pairs) {
        all.delete(idOf(pair));
        all.set(idOf(pair), pair);
      }
      const kept = [...all.values()].slice(-MOST_AGREED);
      await writer
        .insert(agreedLines)
        .values({ text: name, pairs: kept })
        .onConflictDoUpdate({ target: agreedLines.text, set: { pairs: kept } });
      return { pairs: kept };
    });
  }
}

const idOf = ({ original, version }: Agreed): string => JSON.stringify([original, version]);

async function pairsOf(reader: Reader | Writer, name: string): Promise<readonly Agreed[]> {
  const [row] = await reader.select().from(agreedLines).where(eq(agreedLines.text, name));
  return row?.pairs ?? [];
}

/** Takes what was compared of a text that is purged. */
export async function removeAgreed(writer: Writer, text: string): Promise<void> {
  await writer.delete(agreedLines).where(eq(agreedLines.text, text));
}
