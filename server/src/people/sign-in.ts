/** Signing in, slowed after failures. */
import type { SignIn } from '@vocabula/contract';
import { eq } from 'drizzle-orm';
import { note } from '../audit/service.js';
import { schema, type Database } from '../db/database.js';
import { RequestProblem } from '../http/problem.js';
import { foldedAddress } from './addresses.js';
import type { User } from './user.js';
import { isPassword } from './secrets.js';
import { userOfRow } from './names.js';
import { SlowDown } from './slow-down.js';
import { workspaceValue } from './workspace.js';

/** Failures before waiting begins: for one address, and for one place that attempts come from. */
const FREE = { address: 4, place: 20 } as const;
const { people } = schema;

/** Under which key the workspace keeps the hash of the password that all accounts of the demo were made with. */
export const DEMO_PASSWORD = 'demo-password';

export class SignInService {
  private readonly slow: SlowDown;

  /** @param isDemo whether this is the demo: elsewhere the password that it prints opens nothing */
  constructor(
    private readonly database: Database,
    private readonly isDemo: () => boolean = () => false,
  ) {
    this.slow = new SlowDown(database);
  }

  /**
   * Who signs in with that address and password. The answer to a wrong address and to a wrong password is the same,
   * and takes as long. Throws 429 with the seconds to wait where it failed too often.
   */
  signIn({ address, password }: SignIn, place: string): Promise<User> {
    const folded = foldedAddress(address);
    const free = { [`address:${folded.slice(0, 320)}`]: FREE.address, [`place:${place}`]: FREE.place };
    return this.slow.attempt(free, async () => {
      const [row] = await this.database.read.select().from(people).where(eq(people.address, folded));
      const fits = await isPassword(password, row?.password);
      if (!row || !fits || row.endedAt !== null) {
        if (row)
          await this.database.write((writer) =>
            note(writer, { id: '', name: 'somebody' }, 'failed to sign in', 'person', row.id, folded),
          );
        throw new RequestProblem(401, 'wrong', 'Address and password do not fit together.');
      }
      if (!this.isDemo() && row.password === (await workspaceValue(this.database.read, DEMO_PASSWORD)))
        throw new RequestProblem(
          401,
          'demo-account',
          'This is an account of the demo. Its password works in the demo only: set another with a reset link.',
        );
      await this.database.write((writer) => note(writer, userOfRow(row), 'signed in', 'person', row.id, folded));
      return userOfRow(row);
    });
  }
}
