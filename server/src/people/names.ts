/** What people are called. */
import type { Profile } from '@vocabula/contract';
import { isEmail } from '@vocabula/core';

/** As others see it. */
export function nameOfRow({ profile, address }: { readonly profile: string; readonly address: string | null }): string {
  const { name, email } = JSON.parse(profile) as Partial<Profile>;
  return name || address || email || 'somebody';
}

/** The mailbox that a person writes from; undefined for one without an address. */
export function mailboxOf({ name, email }: Profile): string | undefined {
  if (!isEmail(email)) return undefined;
  return name ? `${JSON.stringify(name)} <${email}>` : email;
}
