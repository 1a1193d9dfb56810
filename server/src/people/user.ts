/** Who is asking. */
import type { Caller, Role, Scope } from '@vocabula/contract';

/** The person behind a request. */
export interface User {
  readonly id: string;
  readonly role: Role;
  /** As others see it. */
  readonly name: string;
  /** The address they sign in with. */
  readonly address: string;
  /** The session they came with, by its id; none for a key. */
  readonly session?: string;
  /** What a key may do; none where a person is signed in, who may do all that is theirs. */
  readonly scopes?: readonly Scope[];
}

const RANK: Readonly<Record<Role, number>> = { colleague: 1, author: 2, administrator: 3 };
export const mayCall = (user: User, caller: Exclude<Caller, 'anyone'>): boolean => RANK[user.role] >= RANK[caller];
