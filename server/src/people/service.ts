/** People: accounts, invitations, profiles, groups. */
import { randomUUID } from 'node:crypto';
import {
  EMPTY_PROFILE,
  USUAL_WAYS,
  type ChangePassword,
  type ChangePerson,
  type FirstPerson,
  type HandOverWays,
  type Invite,
  type LinkFor,
  type Me,
  type OneTimeLink,
  type Person,
  type Profile,
  type SetPassword,
} from '@vocabula/contract';
import { and, eq, gt, isNull, max, ne } from 'drizzle-orm';
import { note } from '../audit/service.js';
import { schema, type Database, type Reader, type Writer } from '../db/database.js';
import { notFound, RequestProblem } from '../http/problem.js';
import { addPrivateFolder } from '../rights/private.js';
import { accountOf, demandNotShared, foldedAddress, furtherAddresses, ownAddresses } from './addresses.js';
import type { User } from './user.js';
import { userOfRow, nameOfRow } from './names.js';
import { digestOf, hashed, isPassword, newToken } from './secrets.js';
import { endAll } from './sessions.js';
import { SlowDown } from './slow-down.js';
import { workspaceOf } from './workspace.js';
import { endKeys } from './keys.js';

const { people, links, sessions } = schema;
type Row = typeof people.$inferSelect;
const LINK_DAYS = { invitation: 14, reset: 2 } as const;

export class PeopleService {
  private readonly slow: SlowDown;

  constructor(private readonly database: Database) {
    this.slow = new SlowDown(database);
  }

  /** Whether nobody can sign in yet. */
  async isEmpty(): Promise<boolean> {
    const [row] = await this.database.read
      .select({ id: people.id })
      .from(people)
      .where(ne(people.password, ''))
      .limit(1);
    return row === undefined;
  }

  /** Makes the first administrator; only where there is none. Whoever wrote here before there were accounts is they. */
  async makeFirst({ name, address, password }: FirstPerson): Promise<User> {
    const hash = await hashed(password);
    return this.database.write(async (writer) => {
      const rows = await writer.select().from(people);
      if (rows.some((row) => row.password !== null))
        throw new RequestProblem(409, 'taken', 'There is an administrator already. Ask them for an invitation.');
      const before = rows.find((row) => row.id === BEFORE_ACCOUNTS);
      const user = await addPerson(writer, {
        id: before?.id ?? randomUUID(),
        name,
        address,
        role: 'administrator',
        password: hash,
        profile: before ? before.profile : EMPTY_PROFILE,
      });
      await note(writer, user, 'made', 'person', user.id, `${name}, the first administrator`);
      return user;
    });
  }

  async me(user: User): Promise<Me> {
    const { read } = this.database;
    const [profile, ways, workspace, further] = [
      await this.profile(user),
      await waysOf(read, user.id),
      await workspaceOf(read),
      await furtherAddresses(read),
    ];
    const { id, role, address } = user;
    return { id, role, address, addresses: further.get(id) ?? [], profile, ways, workspace };
  }

  profile(user: Pick<User, 'id'>): Promise<Profile> {
    return profileOf(this.database.read, user.id);
  }

  /** Keeps the profile. Throws 422 for an address to write from that does not count for this person. */
  save(user: User, profile: Profile): Promise<Profile> {
    return this.database.write(async (writer) => {
      const own = await ownAddresses(writer, user.id);
      const wanted = foldedAddress(profile.email);
      if (wanted !== '' && !own.includes(wanted))
        throw new RequestProblem(
          422,
          'address-not-confirmed',
          `You cannot write from “${profile.email.slice(0, 80)}” until an administrator has confirmed it.`,
        );
      await writer.update(people).set({ profile, updatedAt: new Date().toISOString() }).where(eq(people.id, user.id));
      return profileOf(writer, user.id);
    });
  }

  async saveWays(user: User, ways: HandOverWays): Promise<HandOverWays> {
    await this.database.write((writer) => writer.update(people).set({ ways }).where(eq(people.id, user.id)));
    return ways;
  }

  async list(): Promise<Person[]> {
    const { read } = this.database;
    const seen = new Map(
      (
        await read
          .select({ person: sessions.person, last: max(sessions.seenAt) })
          .from(sessions)
          .groupBy(sessions.person)
      ).map(({ person, last }) => [person, last]),
    );
    const rows = await read.select().from(people);
    const further = await furtherAddresses(read);
    return rows
      .map((row) => personOf(row, seen.get(row.id) ?? undefined, further.get(row.id)))
      .sort((a, b) => a.name.localeCompare(b.name, 'en'));
  }

  /** Adds a person without a password, and makes the link by which they set one. */
  invite({ name, address, role }: Invite, user: User): Promise<Person & { readonly link: OneTimeLink }> {
    return this.database.write(async (writer) => {
      const added = await addPerson(writer, { id: randomUUID(), name, address, role, password: null });
      await note(writer, user, 'invited', 'person', added.id, `${name} as ${role}`);
      const row = await rowOf(writer, added.id);
      return { ...personOf(row, undefined), link: await addLink(writer, added.id, 'invitation') };
    });
  }

  /** A link by which somebody sets a new password; links made before no longer work. */
  link(id: string, user: User): Promise<OneTimeLink> {
    return this.database.write(async (writer) => {
      const row = await rowOf(writer, id);
      const what = row.password === null ? 'invitation' : 'reset';
      await note(writer, user, what === 'reset' ? 'made a reset link for' : 'invited', 'person', id, nameOfRow(row));
      return addLink(writer, id, what);
    });
  }

  /** Who a link is for. */
  async linkFor(token: string): Promise<LinkFor> {
    const { row, what } = await this.linked(this.database.read, token);
    return { name: nameOfRow(row), address: row.address ?? '', what };
  }

  /** Sets a password by a link, ends the sessions there were, and uses the link up. */
  async setPassword({ token, password }: SetPassword): Promise<User> {
    await this.linked(this.database.read, token);
    const hash = await hashed(password);
    return this.database.write(async (writer) => {
      const { row } = await this.linked(writer, token);
      await writer.update(people).set({ password: hash }).where(eq(people.id, row.id));
      await writer.delete(links).where(eq(links.person, row.id));
      await endAll(writer, row.id);
      // Whoever had the old password may have made keys with it.
      await endKeys(writer, row.id);
      const user = userOfRow(row);
      await note(writer, user, 'set a password', 'person', row.id, nameOfRow(row));
      return user;
    });
  }

  /** Changes one's own password. Slowed after failures, as signing in is. */
  async changePassword({ old, password }: ChangePassword, user: User): Promise<void> {
    const row = await rowOf(this.database.read, user.id);
    await this.slow.attempt({ [`password:${user.id}`]: 4 }, async () => {
      if (!(await isPassword(old, row.password)))
        throw new RequestProblem(422, 'wrong-password', 'The present password is another one.');
    });
    const hash = await hashed(password);
    await this.database.write(async (writer) => {
      await writer.update(people).set({ password: hash }).where(eq(people.id, user.id));
      await endAll(writer, user.id, user.session);
      await note(writer, user, 'set a password', 'person', user.id, user.name);
    });
  }

  /** Changes role or address, or ends an account. There is always an administrator left. */
  change(id: string, { role, address, ended }: ChangePerson, user: User): Promise<Person> {
    return this.database.write(async (writer) => {
      const row = await rowOf(writer, id);
      if (address !== undefined) await addressIsFree(writer, address, id);
      const changed: Row = {
        ...row,
        role: role ?? row.role,
        address: address === undefined ? row.address : foldedAddress(address),
        endedAt: ended === undefined ? row.endedAt : ended ? (row.endedAt ?? new Date().toISOString()) : null,
      };
      await writer.update(people).set(changed).where(eq(people.id, id));
      const [left] = await writer
        .select({ id: people.id })
        .from(people)
        .where(and(eq(people.role, 'administrator'), isNull(people.endedAt), ne(people.password, '')))
        .limit(1);
      if (!left) throw new RequestProblem(422, 'last-administrator', 'Nobody else could look after people then.');
      if (changed.endedAt !== null) {
        await endAll(writer, id);
        await endKeys(writer, id);
      }
      const words = [role ? `role ${role}` : '', address ? 'address' : ''].filter(Boolean).join(', ');
      const act = ended === true ? 'ended' : ended === false ? 'restored' : 'changed';
      await note(writer, user, act, 'person', id, `${nameOfRow(row)}${words ? `: ${words}` : ''}`);
      return personOf(changed, undefined);
    });
  }

  private async linked(reader: Reader | Writer, token: string): Promise<{ row: Row; what: 'invitation' | 'reset' }> {
    const [found] = await reader
      .select({ link: links, row: people })
      .from(links)
      .innerJoin(people, eq(people.id, links.person))
      .where(and(eq(links.digest, digestOf(token)), gt(links.endsAt, new Date().toISOString())));
    if (!found || found.row.endedAt !== null)
      throw new RequestProblem(
        404,
        'not-found',
        'This link has been followed already, or is too old. Ask an administrator for another.',
      );
    return { row: found.row, what: found.link.what };
  }
}

/** Who wrote here before there were accounts. */
const BEFORE_ACCOUNTS = 'me';

/** Somebody's profile. Its address is one that counts for them: what they only say of themselves gives way to the account's. */
export async function profileOf(reader: Reader | Writer, id: string): Promise<Profile> {
  const account = await accountOf(reader, id);
  if (!account) return EMPTY_PROFILE;
  const profile = { ...EMPTY_PROFILE, ...account.profile };
  const { own } = account;
  return own.includes(foldedAddress(profile.email)) ? profile : { ...profile, email: own[0] ?? '' };
}

/** How somebody hands over. */
export async function waysOf(reader: Reader | Writer, id: string): Promise<HandOverWays> {
  const [row] = await reader.select({ ways: people.ways }).from(people).where(eq(people.id, id));
  return { ...USUAL_WAYS, ...row?.ways };
}

/** Adds a person with a private folder, or gives an account to one who is known without. */
export async function addPerson(
  writer: Writer,
  {
    id,
    name,
    address,
    role,
    password,
    profile = EMPTY_PROFILE,
  }: Invite & { id: string; password: string | null; profile?: Profile },
): Promise<User> {
  await addressIsFree(writer, address, id);
  const now = new Date().toISOString();
  const row: Row = {
    id,
    profile: { ...profile, name, email: profile.email || address.trim() },
    address: foldedAddress(address),
    role,
    password,
    createdAt: now,
    updatedAt: now,
    endedAt: null,
    ways: {},
  };
  await writer.insert(people).values(row).onConflictDoUpdate({ target: people.id, set: row });
  await addPrivateFolder(writer, id);
  return userOfRow(row);
}

async function addressIsFree(writer: Writer, address: string, id: string): Promise<void> {
  await demandNotShared(writer, foldedAddress(address), id);
  const [other] = await writer
    .select({ id: people.id })
    .from(people)
    .where(eq(people.address, foldedAddress(address)));
  if (other && other.id !== id)
    throw new RequestProblem(409, 'taken', `Somebody signs in with “${address.trim()}” already.`);
}

async function addLink(writer: Writer, person: string, what: 'invitation' | 'reset'): Promise<OneTimeLink> {
  const token = newToken();
  const endsAt = new Date(Date.now() + LINK_DAYS[what] * 86_400_000).toISOString();
  await writer.delete(links).where(eq(links.person, person));
  await writer.insert(links).values({ digest: digestOf(token), person, what, endsAt });
  return { path: `/enter/${token}`, endsAt };
}

async function rowOf(reader: Reader | Writer, id: string): Promise<Row> {
  const [row] = await reader.select().from(people).where(eq(people.id, id));
  if (!row) throw notFound('person');
  return row;
}

function personOf(row: Row, lastSeen: string | undefined, further: Person['addresses'] = []): Person {
  const state = row.endedAt !== null ? 'ended' : row.password === null ? 'invited' : 'active';
  const { id, role } = row;
  return { id, name: nameOfRow(row), address: row.address ?? '', role, state, lastSeen, addresses: further };
}
