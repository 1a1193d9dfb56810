/** Signing in, slowed after failures. */
import type { SignIn } from '@vocabula/contract';
import { eq, inArray } from 'drizzle-orm';
import { note } from '../audit/service.js';
import { schema, type Database } from '../db/database.js';
import { RequestProblem } from '../http/problem.js';
import type { Asker } from './asker.js';
import { isPassword } from './secrets.js';
import { foldedAddress } from './addresses.js';
import { askerOfRow } from './service.js';

/** Failures before waiting begins: for one address, and for one place that attempts come from. */
const FREE = { address: 4, place: 20 } as const;
/** The longest wait, in seconds. */
const LONGEST = 900;
/** After so many seconds without an attempt, failures are forgotten. */
const FORGOTTEN = 24 * 3600;
const { attempts, people } = schema;

export class SignInService {
  constructor(private readonly database: Database) {}

  /**
   * Who signs in with that address and password. The answer to a wrong address and to a wrong password is the same,
   * and takes as long. Throws 429 with the seconds to wait where it failed too often.
   */
  async signIn({ address, password }: SignIn, place: string): Promise<Asker> {
    const folded = foldedAddress(address);
    const keys = { address: `address:${folded.slice(0, 320)}`, place: `place:${place}` };
    const wait = await this.wait(keys);
    if (wait > 0)
      throw new RequestProblem(
        429,
        'wait',
        `This did not fit too often. Try again in ${wait < 90 ? `${wait} seconds` : `${Math.ceil(wait / 60)} minutes`}.`,
        { seconds: wait },
      );
    const [row] = await this.database.read.select().from(people).where(eq(people.address, folded));
    // Counted before it is known, so that attempts at one moment are all counted.
    await this.count(Object.values(keys));
    const fits = await isPassword(password, row?.password);
    if (!row || !fits || row.endedAt !== null) {
      if (row)
        await this.database.write((writer) =>
          note(writer, { id: '', name: 'somebody' }, 'failed to sign in', 'person', row.id, folded),
        );
      throw new RequestProblem(401, 'wrong', 'Address and password do not fit together.');
    }
    await this.database.write(async (writer) => {
      await writer.delete(attempts).where(inArray(attempts.key, Object.values(keys)));
      await note(writer, askerOfRow(row), 'signed in', 'person', row.id, folded);
    });
    return askerOfRow(row);
  }

  private async wait(keys: { readonly address: string; readonly place: string }): Promise<number> {
    const rows = await this.database.read
      .select()
      .from(attempts)
      .where(inArray(attempts.key, Object.values(keys)));
    const waits = rows.map(({ key, count, lastAt }) => {
      const since = (Date.now() - Date.parse(lastAt)) / 1000;
      const over = count - (key === keys.address ? FREE.address : FREE.place);
      return over < 0 || since > FORGOTTEN ? 0 : Math.min(LONGEST, 2 ** (over + 1)) - since;
    });
    return Math.ceil(Math.max(0, ...waits));
  }

  private count(keys: readonly string[]): Promise<void> {
    return this.database.write(async (writer) => {
      const lastAt = new Date().toISOString();
      for (const key of keys) {
        const [row] = await writer.select().from(attempts).where(eq(attempts.key, key));
        const stale = !row || Date.now() - Date.parse(row.lastAt) > FORGOTTEN * 1000;
        const changed = { count: stale ? 1 : row.count + 1, lastAt };
        await writer
          .insert(attempts)
          .values({ key, ...changed })
          .onConflictDoUpdate({ target: attempts.key, set: changed });
      }
    });
  }
}
