/** What people are called. */
import type { Profile } from '@vocabula/contract';
import { isEmail, type Mailbox } from '@vocabula/core';
import type { User } from './user.js';

/** As others see it. */
export function nameOfRow({
  profile,
  address,
}: {
  readonly profile: Partial<Profile>;
  readonly address: string | null;
}): string {
  const { name, email } = profile;
  return name || address || email || 'somebody';
}

/** The person of a row, as who asks. */
export const userOfRow = (
  row: Pick<User, 'id' | 'role'> & { readonly profile: Partial<Profile>; readonly address: string | null },
): User => ({ id: row.id, role: row.role, name: nameOfRow(row), address: row.address ?? '' });

/** The mailbox that a person writes from; undefined for one without an address. */
export function mailboxOf({ name, email }: Profile): Mailbox | undefined {
  return isEmail(email) ? { name, address: email } : undefined;
}
