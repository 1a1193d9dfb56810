/**
 * The addresses that somebody may read and send with: the one of their account, and further ones that an administrator
 * has confirmed. What people say of themselves in their profile never counts by itself.
 */
import type { OwnAddress, Profile } from '@vocabula/contract';
import { isEmail } from '@vocabula/core';
import { and, asc, eq, isNotNull, ne } from 'drizzle-orm';
import { note } from '../audit/service.js';
import { schema, type Database, type Reader, type Writer } from '../db/database.js';
import { notFound, RequestProblem } from '../http/problem.js';
import type { User } from './user.js';

const { addresses, people } = schema;

/** How addresses are compared: trimmed, in small letters. */
export const foldedAddress = (address: string): string => address.trim().toLowerCase();

/** All addresses that count for a person, folded, the account's first. Empty for somebody without an account. */
export const ownAddresses = async (reader: Reader | Writer, person: string): Promise<readonly string[]> =>
  (await accountOf(reader, person))?.own ?? [];

/** What a person says of themselves, and their own addresses; undefined for somebody who is not known. */
export async function accountOf(
  reader: Reader | Writer,
  person: string,
): Promise<{ readonly profile: Partial<Profile>; readonly own: readonly string[] } | undefined> {
  const rows = await reader
    .select({ profile: people.profile, account: people.address, further: addresses.address })
    .from(people)
    .leftJoin(addresses, and(eq(addresses.person, people.id), isNotNull(addresses.confirmedAt)))
    .where(eq(people.id, person))
    .orderBy(asc(addresses.address));
  const [first] = rows;
  if (!first) return undefined;
  const further = rows.flatMap(({ further: address }) => address ?? []);
  return { profile: first.profile, own: [...(first.account ? [first.account] : []), ...further] };
}

/** Whose mailbox an address is, by person's id: that of the account, and of all who have it confirmed. */
export async function mailboxesOf(reader: Reader | Writer, folded: readonly string[]): Promise<ReadonlySet<string>> {
  const wanted = new Set(folded);
  const accounts = await reader.select({ address: people.address }).from(people);
  const further = await reader
    .select({ address: addresses.address })
    .from(addresses)
    .where(isNotNull(addresses.confirmedAt));
  return new Set([...accounts, ...further].flatMap(({ address }) => (address && wanted.has(address) ? [address] : [])));
}

/** Further addresses by person, confirmed or asked for. */
export async function furtherAddresses(reader: Reader | Writer): Promise<ReadonlyMap<string, OwnAddress[]>> {
  const rows = await reader.select().from(addresses).orderBy(asc(addresses.address));
  const found = new Map<string, OwnAddress[]>();
  for (const { person, address, confirmedAt } of rows)
    found.set(person, [...(found.get(person) ?? []), { address, confirmed: confirmedAt !== null }]);
  return found;
}

export class AddressService {
  constructor(private readonly database: Database) {}

  async list(person: string): Promise<OwnAddress[]> {
    return (await furtherAddresses(this.database.read)).get(person) ?? [];
  }

  /** Asks for a further address. An administrator's own is confirmed by another administrator, as anybody's. */
  ask(address: string, user: User): Promise<OwnAddress[]> {
    const folded = foldedAddress(address);
    if (!isEmail(folded))
      throw new RequestProblem(422, 'bad-address', `“${folded.slice(0, 80)}” is not an email address.`);
    return this.database.write(async (writer) => {
      if (folded === user.address) throw new RequestProblem(422, 'own-address', 'This is your account’s own address.');
      await demandNoAccount(writer, folded);
      const askedAt = new Date().toISOString();
      await writer.insert(addresses).values({ person: user.id, address: folded, askedAt }).onConflictDoNothing();
      await note(writer, user, 'asked for', 'address', user.id, folded);
      return (await furtherAddresses(writer)).get(user.id) ?? [];
    });
  }

  /** Confirms what somebody else asked for. Throws 404 where nobody did. */
  confirm(person: string, address: string, user: User): Promise<void> {
    const folded = foldedAddress(address);
    if (person === user.id)
      throw new RequestProblem(403, 'second-person', 'Another administrator confirms an address of yours.');
    return this.database.write(async (writer) => {
      await demandNoAccount(writer, folded);
      const { rowsAffected } = await writer
        .update(addresses)
        .set({ confirmedBy: user.id, confirmedAt: new Date().toISOString() })
        .where(and(eq(addresses.person, person), eq(addresses.address, folded)));
      if (rowsAffected === 0) throw notFound('address');
      await note(writer, user, 'confirmed', 'address', person, folded);
    });
  }

  /** Takes a further address off, confirmed or not. */
  remove(person: string, address: string, user: User): Promise<void> {
    const folded = foldedAddress(address);
    return this.database.write(async (writer) => {
      const { rowsAffected } = await writer
        .delete(addresses)
        .where(and(eq(addresses.person, person), eq(addresses.address, folded)));
      if (rowsAffected === 0) throw notFound('address');
      await note(writer, user, 'removed', 'address', person, folded);
    });
  }
}

/** An address that somebody signs in with is theirs alone. */
async function demandNoAccount(writer: Writer, folded: string): Promise<void> {
  const [account] = await writer.select({ id: people.id }).from(people).where(eq(people.address, folded));
  if (account) throw new RequestProblem(409, 'taken', 'Somebody signs in with this address.');
}

/** Throws where an address, about to be an account's, is confirmed for somebody else, who could read its mail. */
export async function demandNotShared(writer: Writer, folded: string, id: string): Promise<void> {
  const [other] = await writer
    .select({ person: addresses.person })
    .from(addresses)
    .where(and(eq(addresses.address, folded), isNotNull(addresses.confirmedAt), ne(addresses.person, id)));
  if (other)
    throw new RequestProblem(
      409,
      'shared-address',
      `“${folded}” is a further address of somebody here. Remove it there first.`,
    );
}
