/** Who is asking. One person until accounts exist; only this file will change. */
import { EMPTY_PROFILE, type Profile } from '@vocabula/contract';
import { isEmail } from '@vocabula/core';
import { eq } from 'drizzle-orm';
import { schema, type Database } from '../db/database.js';

/** The person behind a request. */
export interface Asker {
  readonly id: string;
}

/** Everyone is the one person. */
export const askerOf = (): Asker => ({ id: 'me' });

/** The mailbox that a person writes from; undefined for one without an address. */
export function mailboxOf({ name, email }: Profile): string | undefined {
  if (!isEmail(email)) return undefined;
  return name ? `${JSON.stringify(name)} <${email}>` : email;
}

export class PeopleService {
  constructor(private readonly database: Database) {}

  async profile(asker: Asker): Promise<Profile> {
    const [row] = await this.database.read.select().from(schema.people).where(eq(schema.people.id, asker.id));
    return row ? { ...EMPTY_PROFILE, ...(JSON.parse(row.profile) as Profile) } : EMPTY_PROFILE;
  }

  async save(asker: Asker, profile: Profile): Promise<Profile> {
    const row = { profile: JSON.stringify(profile), updatedAt: new Date().toISOString() };
    await this.database.write((writer) =>
      writer
        .insert(schema.people)
        .values({ id: asker.id, ...row })
        .onConflictDoUpdate({ target: schema.people.id, set: row }),
    );
    return profile;
  }
}
