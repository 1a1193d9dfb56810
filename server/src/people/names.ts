/** What people are called. */
import type { Profile } from '@vocabula/contract';
import { isEmail, type Mailbox } from '@vocabula/core';

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

/** The mailbox that a person writes from; undefined for one without an address. */
export function mailboxOf({ name, email }: Profile): Mailbox | undefined {
  return isEmail(email) ? { name, address: email } : undefined;
}
