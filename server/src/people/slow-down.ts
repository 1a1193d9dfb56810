/** Slowing down after failures: whoever guesses waits longer and longer. */
import { eq, inArray } from 'drizzle-orm';
import { schema, type Database } from '../db/database.js';
import { RequestProblem } from '../http/problem.js';

/** The longest wait, in seconds. */
const LONGEST = 900;
/** After so many seconds without an attempt, failures are forgotten. */
const FORGOTTEN = 24 * 3600;
const { attempts } = schema;

export class SlowDown {
  constructor(private readonly database: Database) {}

  /**
   * Does something that may fail, such as telling whether a password is right.
   * @param free how many failures each key has before waiting begins: an address, a place, a person
   * @throws RequestProblem 429 with the seconds to wait, without doing it; or what `work` throws
   */
  async attempt<T>(free: Readonly<Record<string, number>>, work: () => Promise<T>): Promise<T> {
    const keys = Object.keys(free);
    const wait = await this.wait(free);
    if (wait > 0)
      throw new RequestProblem(
        429,
        'wait',
        `This failed too often. Try again in ${wait < 90 ? `${wait} seconds` : `${Math.ceil(wait / 60)} minutes`}.`,
        { seconds: wait },
      );
    // Counted before it is known, so that attempts at one moment are all counted.
    await this.count(keys);
    const result = await work();
    await this.database.write((writer) => writer.delete(attempts).where(inArray(attempts.key, keys)));
    return result;
  }

  private async wait(free: Readonly<Record<string, number>>): Promise<number> {
    const rows = await this.database.read
      .select()
      .from(attempts)
      .where(inArray(attempts.key, Object.keys(free)));
    const now = Date.now();
    // A moment that lies ahead was written before the clock was set back. It counts from now on, and not for longer.
    const ahead = rows.filter(({ lastAt }) => Date.parse(lastAt) > now).map(({ key }) => key);
    if (ahead.length > 0)
      await this.database.write((writer) =>
        writer
          .update(attempts)
          .set({ lastAt: new Date(now).toISOString() })
          .where(inArray(attempts.key, ahead)),
      );
    const waits = rows.map(({ key, count, lastAt }) => {
      const since = Math.max(0, now - Date.parse(lastAt)) / 1000;
      const over = count - (free[key] ?? 0);
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
